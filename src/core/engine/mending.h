// Mending spots of the picture.
#pragma once

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// A spot as it is best mended from its surroundings: looked for in the composed picture, at a level in which it is a
// few pixels wide, and no coarser than `coarsest`.
Result<Mended> mended_spot(const Pile& pile, Point at, double width_px, int coarsest, FrameStore& store, Job& job);

}  // namespace bp
