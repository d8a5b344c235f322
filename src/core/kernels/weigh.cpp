#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/weigh.cpp"
#include "kernels/weigh.h"

#include <hwy/foreach_target.h>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Four vectors at a time: the sums stay in registers while all rows pass.
void weigh_all(std::span<const float* const> rows, std::span<const float> weights, std::size_t samples, float* out) {
    const hn::ScalableTag<float> d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + 4 * lanes <= samples; i += 4 * lanes) {
        auto a = hn::Zero(d), b = hn::Zero(d), c = hn::Zero(d), e = hn::Zero(d);
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const auto weight = hn::Set(d, weights[k]);
            const float* row = rows[k] + i;
            a = hn::Add(a, hn::Mul(weight, hn::LoadU(d, row)));
            b = hn::Add(b, hn::Mul(weight, hn::LoadU(d, row + lanes)));
            c = hn::Add(c, hn::Mul(weight, hn::LoadU(d, row + 2 * lanes)));
            e = hn::Add(e, hn::Mul(weight, hn::LoadU(d, row + 3 * lanes)));
        }
        hn::StoreU(a, d, out + i);
        hn::StoreU(b, d, out + i + lanes);
        hn::StoreU(c, d, out + i + 2 * lanes);
        hn::StoreU(e, d, out + i + 3 * lanes);
    }
    for (; i < samples; ++i) {
        float sum = 0;
        for (std::size_t k = 0; k < rows.size(); ++k) sum += weights[k] * rows[k][i];
        out[i] = sum;
    }
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(weigh_all);

void weigh(std::span<const float* const> rows, std::span<const float> weights, std::size_t samples, float* out) {
    HWY_DYNAMIC_DISPATCH(weigh_all)(rows, weights, samples, out);
}

}  // namespace bp::kernels
#endif
