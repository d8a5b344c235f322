#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/beyond_noise.cpp"
#include "kernels/beyond_noise.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <cmath>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

constexpr float unit = 16, most = 255;

template <int channels>
void beyond(const std::uint16_t* row, const std::uint16_t* usual, const float* noise, std::size_t pixels,
            std::uint8_t* out) {
    const hn::ScalableTag<float> d;
    const hn::Rebind<std::int32_t, decltype(d)> whole;
    const hn::Rebind<std::uint16_t, decltype(d)> samples;
    const hn::Rebind<std::uint8_t, decltype(d)> bytes;
    using V = hn::Vec<decltype(d)>;
    const std::size_t lanes = hn::Lanes(d);
    const auto square = [&](hn::Vec<decltype(samples)> a, hn::Vec<decltype(samples)> b, V by) HWY_ATTR {
        const auto apart = hn::Sub(hn::PromoteTo(whole, a), hn::PromoteTo(whole, b));
        const V in_noise = hn::Div(hn::ConvertTo(d, apart), by);
        return hn::Mul(in_noise, in_noise);
    };
    std::size_t p = 0;
    for (; p + lanes <= pixels; p += lanes) {
        V sum;
        if constexpr (channels == 1) {
            sum = square(hn::LoadU(samples, row + p), hn::LoadU(samples, usual + p), hn::LoadU(d, noise + p));
        } else {
            hn::Vec<decltype(samples)> a[3], b[3];
            V by[3];
            hn::LoadInterleaved3(samples, row + 3 * p, a[0], a[1], a[2]);
            hn::LoadInterleaved3(samples, usual + 3 * p, b[0], b[1], b[2]);
            hn::LoadInterleaved3(d, noise + 3 * p, by[0], by[1], by[2]);
            sum = hn::Add(hn::Add(square(a[0], b[0], by[0]), square(a[1], b[1], by[1])), square(a[2], b[2], by[2]));
        }
        const V root = hn::Sqrt(hn::Sqrt(hn::Div(sum, hn::Set(d, float(channels)))));
        const V value = hn::Min(hn::Set(d, most), hn::Add(hn::Mul(hn::Set(d, unit), root), hn::Set(d, 0.5F)));
        hn::StoreU(hn::DemoteTo(bytes, hn::ConvertTo(whole, value)), bytes, out + p);
    }
    for (; p < pixels; ++p) {
        float sum = 0;
        for (std::size_t i = p * channels; i < (p + 1) * channels; ++i) {
            const float in_noise = float(int(row[i]) - int(usual[i])) / noise[i];
            sum += in_noise * in_noise;
        }
        out[p] = std::uint8_t(std::min(most, unit * std::sqrt(std::sqrt(sum / float(channels))) + 0.5F));
    }
}

void beyond_1(const std::uint16_t* row, const std::uint16_t* usual, const float* noise, std::size_t pixels,
              std::uint8_t* out) {
    beyond<1>(row, usual, noise, pixels, out);
}
void beyond_3(const std::uint16_t* row, const std::uint16_t* usual, const float* noise, std::size_t pixels,
              std::uint8_t* out) {
    beyond<3>(row, usual, noise, pixels, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(beyond_1);
HWY_EXPORT(beyond_3);

void beyond_noise(const std::uint16_t* row, const std::uint16_t* usual, const float* noise, std::size_t pixels,
                  int channels, std::uint8_t* out) {
    if (channels == 1)
        HWY_DYNAMIC_DISPATCH(beyond_1)(row, usual, noise, pixels, out);
    else
        HWY_DYNAMIC_DISPATCH(beyond_3)(row, usual, noise, pixels, out);
}

}  // namespace bp::kernels
#endif
