// Connected light in a frame: what add_excess() found, put together.
#pragma once

#include <span>
#include <vector>

#include "image/geometry.h"
#include "image/run_mask.h"

namespace bp {

// A pixel of a frame that is brighter than usual, see Excess.
struct Bright {
    std::int32_t x = 0, y = 0;
    std::uint16_t by = 0;
    std::uint16_t deviations = 0;  // in quarters
};

// Pixels that touch each other, also by their corners.
struct Trace {
    std::vector<Bright> pixels;
    Rect bounds;
    int peak = 0;  // deviations of its brightest pixel, in quarters
    // Long and thin, or small: a light, or its trail. False for beams, clouds and what else is wide.
    bool thin() const;
};

// The traces of a frame, but for those of fewer pixels that noise may have made. Pixels are given row by row, each row
// from left to right.
std::vector<Trace> traces_of(std::span<const Bright> pixels, std::size_t fewest = 3);

// All pixels of the thin ones.
RunMask thin_lights(Size size, std::span<const Trace> traces);

}  // namespace bp
