#include "kernels/blend.h"

#include <algorithm>
#include <cstdlib>

namespace bp::kernels {
namespace {

// wins(over, base) says where.
template <class Wins>
void lay_where(Wins wins, const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels,
               int channels, std::uint16_t* base) {
    constexpr std::uint32_t full = 255 * 255;
    for (std::size_t p = 0; p < pixels; ++p) {
        const std::uint32_t a = std::uint32_t(mask[p]) * std::uint32_t(opacity);
        if (a == 0) continue;
        for (int c = 0; c < channels; ++c) {
            const std::size_t i = p * std::size_t(channels) + std::size_t(c);
            if (!wins(over[i], base[i])) continue;
            base[i] = std::uint16_t((base[i] * (full - a) + over[i] * a + full / 2) / full);
        }
    }
}

}  // namespace

void lay_over(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
              std::uint16_t* base) {
    lay_where([](std::uint16_t, std::uint16_t) { return true; }, over, mask, opacity, pixels, channels, base);
}

void lay_lighter(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
                 std::uint16_t* base) {
    lay_where([](std::uint16_t a, std::uint16_t b) { return a > b; }, over, mask, opacity, pixels, channels, base);
}

void lay_darker(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
                std::uint16_t* base) {
    lay_where([](std::uint16_t a, std::uint16_t b) { return a < b; }, over, mask, opacity, pixels, channels, base);
}

void difference(const std::uint16_t* a, const std::uint16_t* b, int gain, std::size_t samples, std::uint16_t* out) {
    for (std::size_t i = 0; i < samples; ++i)
        out[i] = std::uint16_t(std::min(65535, gain * std::abs(int(a[i]) - int(b[i]))));
}

}  // namespace bp::kernels
