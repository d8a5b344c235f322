// The borders of masks as lines.
#pragma once

#include <vector>

#include "image/mask.h"

namespace bp {

// Around what is kept at half and more, and around holes in it: closed lines in pixels of the mask, as the mask is seen
// scaled down so that its longer side is at most `side`. Pure; any thread.
std::vector<std::vector<Point>> outlines_of(const Mask& mask, int side);

}  // namespace bp
