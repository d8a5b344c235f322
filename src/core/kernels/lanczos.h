// The weights of resampling as polynomials. Internal to the room.
#pragma once

#include <array>

namespace bp::kernels {

// The weights mirror each other: with t = part - 1/2 and s = t^2, weight[j] = even + t odd and weight[5 - j] = even - t
// odd, where even and odd are even[j] and odd[j] as polynomials of s. They go through the exact weights at six places
// (Chebyshev, both ends among them), lie within 0.0002 of them elsewhere, and add up to one everywhere.
struct LanczosCoefficients {
    std::array<std::array<float, 3>, 3> even;
    std::array<std::array<float, 3>, 3> odd;
};
const LanczosCoefficients& lanczos_coefficients();

}  // namespace bp::kernels
