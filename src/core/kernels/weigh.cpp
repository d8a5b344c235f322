#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/weigh.cpp"
#include "kernels/weigh.h"

#include <hwy/foreach_target.h>

#include <cmath>

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

// In the same way.
template <class Of>
HWY_INLINE void choose_all(std::span<const float* const> rows, std::size_t samples, float* out, const Of& of) {
    const hn::ScalableTag<float> d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + 4 * lanes <= samples; i += 4 * lanes) {
        const float* first = rows[0] + i;
        auto a = hn::LoadU(d, first), b = hn::LoadU(d, first + lanes), c = hn::LoadU(d, first + 2 * lanes),
             e = hn::LoadU(d, first + 3 * lanes);
        for (std::size_t k = 1; k < rows.size(); ++k) {
            const float* row = rows[k] + i;
            a = of(a, hn::LoadU(d, row));
            b = of(b, hn::LoadU(d, row + lanes));
            c = of(c, hn::LoadU(d, row + 2 * lanes));
            e = of(e, hn::LoadU(d, row + 3 * lanes));
        }
        hn::StoreU(a, d, out + i);
        hn::StoreU(b, d, out + i + lanes);
        hn::StoreU(c, d, out + i + 2 * lanes);
        hn::StoreU(e, d, out + i + 3 * lanes);
    }
    const hn::CappedTag<float, 1> one;
    for (; i < samples; ++i) {
        auto chosen = hn::LoadU(one, rows[0] + i);
        for (std::size_t k = 1; k < rows.size(); ++k) chosen = of(chosen, hn::LoadU(one, rows[k] + i));
        hn::StoreU(chosen, one, out + i);
    }
}

struct Smaller {
    template <class V>
    HWY_INLINE V operator()(V a, V b) const {
        return hn::Min(a, b);
    }
};
struct Larger {
    template <class V>
    HWY_INLINE V operator()(V a, V b) const {
        return hn::Max(a, b);
    }
};
void least_of(std::span<const float* const> rows, std::size_t samples, float* out) {
    choose_all(rows, samples, out, Smaller());
}
void most_of(std::span<const float* const> rows, std::size_t samples, float* out) {
    choose_all(rows, samples, out, Larger());
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(weigh_all);
HWY_EXPORT(least_of);
HWY_EXPORT(most_of);

void weigh(std::span<const float* const> rows, std::span<const float> weights, std::size_t samples, float* out) {
    HWY_DYNAMIC_DISPATCH(weigh_all)(rows, weights, samples, out);
}
void least(std::span<const float* const> rows, std::size_t samples, float* out) {
    HWY_DYNAMIC_DISPATCH(least_of)(rows, samples, out);
}
void most(std::span<const float* const> rows, std::size_t samples, float* out) {
    HWY_DYNAMIC_DISPATCH(most_of)(rows, samples, out);
}

std::vector<float> gaussian(double deviation, int reach) {
    std::vector<double> exact;
    double sum = 0;
    for (int k = -reach; k <= reach; ++k) {
        exact.push_back(std::exp(-0.5 * k * k / (deviation * deviation)));
        sum += exact.back();
    }
    std::vector<float> out;
    out.reserve(exact.size());
    for (const double weight : exact) out.push_back(float(weight / sum));
    return out;
}

}  // namespace bp::kernels
#endif
