// Masks in pixels of a frame as they lie on the canvas, and back.
#pragma once

#include "image/mask.h"
#include "image/placement.h"

namespace bp {

// What a mask of a frame covers of the reference's area, by the nearest pixel.
Mask on_canvas(const Mask& of_frame, const Placement& place);

// The frame's mask with what was changed on the canvas from `before` to `after`; all else stays as it is to the bit.
Mask carried_back(Mask of_frame, const Mask& before, const Mask& after, const Placement& place);

}  // namespace bp
