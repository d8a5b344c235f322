#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/level.cpp"
#include "kernels/level.h"

#include <hwy/foreach_target.h>

#include <algorithm>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

void lower_all(const std::uint16_t* row, int by, std::size_t samples, std::uint16_t* out) {
    const hn::ScalableTag<std::uint16_t> d;
    const auto less = hn::Set(d, std::uint16_t(std::max(0, by)));
    const auto more = hn::Set(d, std::uint16_t(std::max(0, -by)));
    std::size_t i = 0;
    for (; i + hn::Lanes(d) <= samples; i += hn::Lanes(d))
        hn::StoreU(hn::SaturatedSub(hn::SaturatedAdd(hn::LoadU(d, row + i), more), less), d, out + i);
    for (; i < samples; ++i) out[i] = std::uint16_t(std::clamp(int(row[i]) - by, 0, 65535));
}

void places_above(const std::uint16_t* row, const std::uint16_t* limits, std::size_t samples,
                  std::vector<std::uint16_t>& places) {
    const hn::ScalableTag<std::uint16_t> d;
    const std::size_t lanes = hn::Lanes(d);
    for (std::size_t i = 0; i < samples; i += lanes) {
        const std::size_t end = std::min(samples, i + lanes);
        if (end == i + lanes && hn::AllFalse(d, hn::Gt(hn::LoadU(d, row + i), hn::LoadU(d, limits + i)))) continue;
        for (std::size_t x = i; x < end; ++x)
            if (row[x] > limits[x]) places.push_back(std::uint16_t(x));
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(lower_all);
HWY_EXPORT(places_above);

void lower_by(const std::uint16_t* row, int by, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_all)(row, by, samples, out);
}
void add_places_above(const std::uint16_t* row, const std::uint16_t* limits, std::size_t samples,
                      std::vector<std::uint16_t>& places) {
    HWY_DYNAMIC_DISPATCH(places_above)(row, limits, samples, places);
}

}  // namespace bp::kernels
#endif
