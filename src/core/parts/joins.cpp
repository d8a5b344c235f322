#include "parts/joins.h"

#include <algorithm>

#include "kernels/blend.h"

namespace bp {
namespace {

constexpr double full = 255.0 * 255.0;

void replace(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
             const LightCurve&, std::uint16_t* base) {
    kernels::lay_over(over, mask, opacity, pixels, channels, base);
}

void lighter(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
             const LightCurve&, std::uint16_t* base) {
    kernels::lay_lighter(over, mask, opacity, pixels, channels, base);
}

void darker(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
            const LightCurve&, std::uint16_t* base) {
    kernels::lay_darker(over, mask, opacity, pixels, channels, base);
}

void add(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels, int channels,
         const LightCurve& curve, std::uint16_t* base) {
    for (std::size_t p = 0; p < pixels; ++p) {
        const double share = mask[p] * opacity / full;
        if (share == 0) continue;
        for (std::size_t i = p * std::size_t(channels); i < (p + 1) * std::size_t(channels); ++i)
            base[i] = curve.sample(curve.light(base[i]) + share * curve.light(over[i]));
    }
}

constexpr JoinEntry table[] = {
    {Join::replace, "replace", replace},
    {Join::lighter, "lighter", lighter},
    {Join::darker, "darker", darker},
    {Join::add, "add", add},
};

}  // namespace

std::span<const JoinEntry> joins() {
    return table;
}

const JoinEntry& entry_of(Join join) {
    return *std::find_if(std::begin(table), std::end(table), [join](const JoinEntry& e) { return e.join == join; });
}

void lower_light(std::uint16_t* row, const std::array<double, 3>& by, std::size_t pixels, int channels,
                 const LightCurve& curve) {
    for (std::size_t p = 0; p < pixels; ++p)
        for (int c = 0; c < channels; ++c) {
            std::uint16_t& sample = row[p * std::size_t(channels) + std::size_t(c)];
            sample = curve.sample(curve.light(sample) - by[std::size_t(c)] * LightCurve::full);
        }
}

}  // namespace bp
