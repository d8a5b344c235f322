// Files that ship beside the program and are not part of it: the guide, the words of other languages.
#pragma once

#include <QString>

namespace bp::app {

// A folder with `inside` in it: `installed` in share/bright-pile/ of an installed program, `built` beside a built one
// or in its source. Empty where neither is.
QString shipped_folder(const QString& installed, const QString& built, const QString& inside);

}  // namespace bp::app
