// Taking a place of the picture from another frame: what belongs to it is found.
#pragma once

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// The connected thing at a place of the canvas in which a frame differs from the picture, out to where both agree, as a
// mask of the pile. `more` takes in what lies further away, step by step from 0 on. Light that is brighter or warmer
// as a whole is no difference. Empty when the frame shows there what the picture shows.
Result<Mask> thing_at(const Pile& pile, int frame, Point at, int more, FrameStore& store, Job& job);

}  // namespace bp
