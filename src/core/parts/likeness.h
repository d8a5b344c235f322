// What of a picture is like a place in it.
#pragma once

#include "image/raster.h"

namespace bp {

// 255 where every channel is within `reach`, as a share of white, of the mean over the pixels about (x, y): everywhere,
// or only what hangs together with that place; 0 elsewhere. Pure; any thread.
Raster8 likeness(const Raster16& picture, int x, int y, double reach, bool everywhere);

}  // namespace bp
