// Which area the frames of a pile share.
#pragma once

#include "pile/pile.h"

namespace bp {

// The largest upright rectangle, in canvas pixels of level 0, that every merged frame reaches. Empty when there is
// none.
Rect full_cover(const Pile& pile);

// What is shown and exported: the full cover, or the whole canvas when the pile says so (or nothing is shared).
Rect output_area(const Pile& pile);

}  // namespace bp
