// What hangs together in a mask.
#pragma once

#include <vector>

#include "image/raster.h"

namespace bp {

// The boxes of pieces of at least so many pixels that are not 0 and touch each other, by side or corner; the one of
// the most pixels first. Pure; any thread.
std::vector<Rect> pieces_of(const Raster8& mask, int least);

}  // namespace bp
