#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/colours_apart.cpp"
#include "kernels/colours_apart.h"

#include <hwy/foreach_target.h>

#include <algorithm>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

constexpr int half = 32768, red_of_cr = 91881, blue_of_cb = 116130, green_of_cr = -46802, green_of_cb = -22554;

void colours_of(const std::uint8_t* apart, std::size_t pixels, std::uint8_t* rgb) {
    const hn::ScalableTag<std::int32_t> d;
    const hn::Rebind<std::uint8_t, decltype(d)> bytes;
    using V = hn::Vec<decltype(d)>;
    const std::size_t lanes = hn::Lanes(d);
    const auto share = [&](V v, int of) HWY_ATTR { return hn::Mul(v, hn::Set(d, of)); };
    const auto made = [&](V y, V shares) HWY_ATTR {
        return hn::DemoteTo(bytes, hn::Add(y, hn::ShiftRight<16>(hn::Add(shares, hn::Set(d, half)))));
    };
    std::size_t i = 0;
    for (; i + lanes <= pixels; i += lanes) {
        hn::Vec<decltype(bytes)> stored[3];
        hn::LoadInterleaved3(bytes, apart + 3 * i, stored[0], stored[1], stored[2]);
        const V y = hn::PromoteTo(d, stored[0]);
        const V cb = hn::Sub(hn::PromoteTo(d, stored[1]), hn::Set(d, 128));
        const V cr = hn::Sub(hn::PromoteTo(d, stored[2]), hn::Set(d, 128));
        hn::StoreInterleaved3(made(y, share(cr, red_of_cr)),
                              made(y, hn::Add(share(cb, green_of_cb), share(cr, green_of_cr))),
                              made(y, share(cb, blue_of_cb)), bytes, rgb + 3 * i);
    }
    const auto held = [](int v) { return std::uint8_t(std::clamp(v, 0, 255)); };
    for (; i < pixels; ++i) {
        const int y = apart[3 * i], cb = apart[3 * i + 1] - 128, cr = apart[3 * i + 2] - 128;
        rgb[3 * i] = held(y + ((red_of_cr * cr + half) >> 16));
        rgb[3 * i + 1] = held(y + ((green_of_cb * cb + green_of_cr * cr + half) >> 16));
        rgb[3 * i + 2] = held(y + ((blue_of_cb * cb + half) >> 16));
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(colours_of);

void colours_apart(const std::uint8_t* apart, std::size_t pixels, std::uint8_t* rgb) {
    HWY_DYNAMIC_DISPATCH(colours_of)(apart, pixels, rgb);
}

}  // namespace bp::kernels
#endif
