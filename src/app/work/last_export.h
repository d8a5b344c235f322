// How pictures were written last: what is offered for the next pile.
#pragma once

#include "pile/pile.h"

namespace bp::app {

void remember_export(const Pile& pile);
// A new pile with the settings that were used last, where there are any. An ICC file that was chosen is not among them.
Pile with_last_export(Pile pile);

}  // namespace bp::app
