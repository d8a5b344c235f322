#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/stand_out.cpp"
#include "kernels/stand_out.h"

#include <hwy/foreach_target.h>

#include <algorithm>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

void stand_out_all(const float* row, const Ring& ring, float gain, std::size_t samples, float* out) {
    const hn::ScalableTag<float> d;
    const auto more = hn::Set(d, gain);
    std::size_t i = 0;
    for (; i + hn::Lanes(d) <= samples; i += hn::Lanes(d)) {
        auto first = hn::LoadU(d, ring[0] + i);
        auto second = hn::Zero(d);
        for (std::size_t k = 1; k < ring.size(); ++k) {
            const auto v = hn::LoadU(d, ring[k] + i);
            second = hn::Max(second, hn::Min(first, v));
            first = hn::Max(first, v);
        }
        const auto here = hn::LoadU(d, row + i);
        hn::StoreU(hn::Add(here, hn::Mul(more, hn::Max(hn::Zero(d), hn::Sub(here, second)))), d, out + i);
    }
    for (; i < samples; ++i) {
        float first = ring[0][i], second = 0;
        for (std::size_t k = 1; k < ring.size(); ++k) {
            second = std::max(second, std::min(first, ring[k][i]));
            first = std::max(first, ring[k][i]);
        }
        out[i] = row[i] + gain * std::max(0.0F, row[i] - second);
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(stand_out_all);

void stand_out(const float* row, const Ring& ring, float gain, std::size_t samples, float* out) {
    HWY_DYNAMIC_DISPATCH(stand_out_all)(row, ring, gain, samples, out);
}

}  // namespace bp::kernels
#endif
