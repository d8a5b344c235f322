// What is painted, cropped and mended lies on the picture as the reference has it, and stays there.
#pragma once

#include "pile/pile.h"

namespace bp {

// How far the middle of the picture came to lie from where it was, in pixels of the reference, because another frame is
// the reference `after`. 0 where nothing (parts, zones, a crop, places of the finish and the like) is drawn on the
// picture, or the frame does not lie in it.
double moved_under_drawing(const Pile& before, const Pile& after);

}  // namespace bp
