// What of a frame differs from the cleared scene: connected things with their outlines.
#pragma once

#include <vector>

#include "image/raster.h"

namespace bp {

// By how much the pixels of a frame differ from what is usual there, as kernels::beyond_noise() has it: up to 254
// deviations of the noise, so that how much of a pixel at an edge is covered can be told of what stands out far. One
// channel.
using Differing = Raster8;
double deviations_of(std::uint8_t differing);

// A connected thing.
struct Thing {
    Rect box;              // of `mask` in the picture
    Raster8 mask;          // 255 where it is, 0 elsewhere
    std::size_t area = 0;  // pixels
    Point middle;          // the mean of its pixels
    double strength = 0;   // mean difference over it, in deviations
};

// The things of a frame, the largest first: where the difference over some pixels is beyond chance, with an outline by
// a minimum cut (Boykov and Jolly, "Interactive graph cuts for optimal boundary and region segmentation", 2001). What
// is smaller than `least` pixels is none. Pure; any thread.
std::vector<Thing> things_in(const Differing& by, std::size_t least);

}  // namespace bp
