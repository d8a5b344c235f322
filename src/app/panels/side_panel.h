// What stands on the right of the picture when asked for: a column that scrolls when it is longer than the window.
#pragma once

#include <QFrame>
#include <QVBoxLayout>

namespace bp::app {

// Fits out an empty panel and gives the column that its contents go into. `object` is its name for tests and styles,
// `words` what it is called.
QVBoxLayout* side_column(QFrame& panel, const QString& object, const QString& words);

}  // namespace bp::app
