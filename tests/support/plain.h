// The yardstick: the same picture as render() by plain loops over whole rasters, one sample at a time. It shares no
// merging, warping or laying code with the engine it is held against, holds every frame in memory and takes its time.
#pragma once

#include "pile/pile.h"

namespace bp {

// The region of level 0. Samples equal render()'s wherever no frame is resampled, and differ by at most 1 elsewhere,
// where this one computes in double precision.
Result<Raster16> render_plain(const Pile& pile, const Rect& region);

}  // namespace bp
