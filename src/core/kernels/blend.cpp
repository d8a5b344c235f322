#include "kernels/blend.h"

#include <algorithm>
#include <cstdlib>

namespace bp::kernels {

void lay_over(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
              std::uint16_t* base) {
    constexpr std::uint32_t full = 255 * 255;
    for (std::size_t p = 0; p < pixels; ++p) {
        const std::uint32_t a = std::uint32_t(mask[p]) * std::uint32_t(opacity);
        if (a == 0) continue;
        for (int c = 0; c < channels; ++c) {
            const std::size_t i = p * std::size_t(channels) + std::size_t(c);
            base[i] = std::uint16_t((base[i] * (full - a) + over[i] * a + full / 2) / full);
        }
    }
}

void difference(const std::uint16_t* a, const std::uint16_t* b, int gain, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i)
        out[i] = std::uint16_t(std::min(65535, gain * std::abs(int(a[i]) - int(b[i]))));
}

}  // namespace bp::kernels
