// Laying one row over another through a mask.
#pragma once

#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// base[i] moves towards over[i] by mask * opacity / 255^2, rounded once; exact at both ends. `mask` has one value a
// pixel, `opacity` is 0 to 255, rows hold pixels * channels samples. The rows must not overlap.
void lay_over(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
              std::uint16_t* base);

// The same where over[i] is the greater, and where it is the less.
void lay_lighter(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
                 std::uint16_t* base);
void lay_darker(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
                std::uint16_t* base);

// out[i] = min(65535, gain * |a[i] - b[i]|)
void difference(const std::uint16_t* a, const std::uint16_t* b, int gain, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
