// Where sky ends and land begins, found in the frames of a pile.
#pragma once

#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// The pile's zones with their border brought to the edges of what stands still, over `reach_px` pixels of the canvas at
// most. Reads up to eight frames at full size.
Result<Mask> snap_zones(const Pile& pile, double reach_px, FrameStore& store, Job& job);

// What turns as the stars do is sky, what stands still is land. The pile must be aligned by its stars; fails when
// nothing is seen to turn.
Result<Mask> suggest_sky(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
