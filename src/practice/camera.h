// From light to a frame as a camera writes it.
#pragma once

#include <cstdint>

#include "practice/scene.h"

namespace bp::practice {

// How far a camera that moves may look beyond the picture, in scene units.
constexpr double widest_shake = 40;

int margin_for(Size picture, const std::vector<Shot>& shots);

// The frame of one shot in 16-bit sRGB. `still` (and `foreground`) are the painted still pictures with a margin.
Raster16 expose(const Scene& scene, const std::vector<Shot>& shots, std::size_t index, const Canvas& still,
                Size picture, std::uint64_t seed);
// The same as the sensor has it: one channel, a mosaic of colours (dng.h).
Raster16 expose_raw(const Scene& scene, const std::vector<Shot>& shots, std::size_t index, const Canvas& still,
                    Size picture, std::uint64_t seed);

// A painted canvas without noise, as 16-bit sRGB; the margin is cut off.
Raster16 develop(const Canvas& canvas, Size picture);

struct HotPixel {
    int x, y;
    float level;  // light of the pixel in an exposure of one second at the run's ISO
};
std::vector<HotPixel> hot_pixels(int count, Size picture, std::uint64_t seed);

// The frame's transform in pixels of `picture`.
Matrix shake_in(Size picture, const Matrix& to_scene);

}  // namespace bp::practice
