// The weights of resampling as polynomials. Internal to the room.
#pragma once

#include <array>

namespace bp::kernels {

// weight[j](part) = sum of coefficients[j][k] part^k. Polynomials through the exact weights at six places (Chebyshev,
// both ends among them): within 0.0002 of them elsewhere, and as these they add up to one everywhere.
using LanczosCoefficients = std::array<std::array<float, 6>, 6>;
const LanczosCoefficients& lanczos_coefficients();

}  // namespace bp::kernels
