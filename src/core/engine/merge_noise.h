// The noise of a merge beside that of one of its frames.
#pragma once

#include "base/job.h"
#include "engine/store.h"
#include "even/noise.h"
#include "pile/pile.h"

namespace bp {

// How much of a picture it is measured in: enough flat places, and few enough rows to be quick.
constexpr Size noise_looked_at{1600, 1200};

// The frame that stands for all: the reference when it takes part, else the first that does; 0 for none.
int frame_of_noise(const Pile& pile, Zone zone);
// `result`: the same region of the merged picture, at level 0. As frames lie on the canvas, in their looks.
Result<Noise> noise_of_merge(const Pile& pile, FrameStore& store, Zone zone, const Rect& region, const Raster16& result,
                             Job& job);

}  // namespace bp
