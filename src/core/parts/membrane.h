// Values that go smoothly from border to border.
#pragma once

#include "image/raster.h"

namespace bp {

// What is known of a pixel of a membrane: its value, nothing yet, or that there is no membrane.
enum class Stretch : std::uint8_t { none, given, sought };

// Fills in what is sought so that every value is the mean of its neighbours beside, above and below it that have one:
// Laplace's equation with given values, and nothing flows across where there is no membrane (Perez et al., "Poisson
// image editing", 2003, where the gradients kept are those of the picture above). A piece that nothing given touches
// becomes 0. By conjugate gradients, led by membranes of half the size each, until it is off by about `membrane_off` of
// what is given. `values` has any channels, `kinds` one with a Stretch a pixel. Pure; any thread.
void solve_membrane(RasterF& values, const Raster8& kinds);
inline constexpr double membrane_off = 5e-4;

}  // namespace bp
