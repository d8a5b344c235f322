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

// What of a frame, or of the picture before it is finished for frame 0, is like a place of the canvas in it, within a
// reach in brightness and colour (a share of white): everywhere, or what hangs together with the place. As a mask of
// the pile.
Result<Mask> like_at(const Pile& pile, int frame, Point at, double reach, bool everywhere, FrameStore& store, Job& job);

}  // namespace bp
