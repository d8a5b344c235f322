#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/light_samples.cpp"
#include <hwy/foreach_target.h>

#include "kernels/lanes.h"
#include "kernels/light_sums.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// By whom sums are divided: all by one, or each by its own.
struct ByRows {
    double rows;
    // Nearly: what that is off is less than a float tells.
    template <class D, class V = hn::Vec<D>>
    HWY_INLINE V divided(D d, V sums, std::size_t) const {
        return hn::Mul(sums, hn::Set(d, 1 / rows));
    }
    double at(std::size_t) const { return rows; }
};
struct ByVoters {
    const std::uint32_t* voters;
    template <class D, class V = hn::Vec<D>>
    HWY_INLINE V divided(D d, V sums, std::size_t i) const {
        // No more than 65535: the same as signed numbers.
        const hn::Rebind<std::int32_t, D> narrow;
        return hn::Div(sums, hn::PromoteTo(d, hn::LoadU(narrow, reinterpret_cast<const std::int32_t*>(voters) + i)));
    }
    double at(std::size_t i) const { return double(voters[i]); }
};

// The light of sums, as a float.
template <class Divisors>
void mean_light(const LightSums& sums, std::size_t count, const Divisors& divisors, float* out) {
    std::size_t i = 0;
    const hn::ScalableTag<double> d;
    const hn::RebindToSigned<decltype(d)> sum;
    const hn::Rebind<float, decltype(d)> narrow;
    const std::size_t lanes = hn::Lanes(d);
    for (; i + lanes <= count; i += lanes) {
        const auto all = hn::ConvertTo(d, hn::LoadU(sum, reinterpret_cast<const std::int64_t*>(sums.data()) + i));
        const auto mean = hn::Min(divisors.divided(d, all, i), hn::Set(d, LightCurve::full));
        hn::StoreU(hn::DemoteTo(narrow, mean), narrow, out + i);
    }
    for (; i < count; ++i) out[i] = float(std::min(double(std::int64_t(sums[i])) / divisors.at(i), LightCurve::full));
}

// Reads the segments one by one: gathers are slow where the machine guards them. The segments tell nearly every sample;
// the few that lie close to a border are looked up.
template <class Divisors>
void samples_by(const LightSums& sums, std::size_t count, const Divisors& divisors, const LightCurve& curve,
                std::uint16_t* out) {
    alignas(64) std::array<float, sum_block> light{};
    alignas(64) std::array<LightCurve::Segment, sum_block> segments;
    mean_light(sums, count, divisors, light.data());
    segments_of(light.data(), count, curve, segments.data());
    const hn::ScalableTag<float> d;
    const hn::RebindToSigned<decltype(d)> whole;
    const hn::Rebind<std::uint16_t, decltype(d)> narrow;
    const std::size_t lanes = hn::Lanes(d);
    const auto doubt = hn::Set(d, curve.doubt());
    const auto no_doubt = hn::Set(d, 1 - curve.doubt());
    const auto begin_bits = hn::Set(whole, -(1 << LightCurve::segment_shift));
    const auto mean_of = [&](std::size_t at) { return double(std::int64_t(sums[at])) / divisors.at(at); };
    const auto one = [&](std::size_t at) { out[at] = curve.sample(mean_of(at)); };
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes) {
        const auto here = hn::LoadU(d, light.data() + i);
        const auto begin = hn::BitCast(d, hn::And(hn::BitCast(whole, here), begin_bits));
        hn::Vec<decltype(d)> at, slope;
        hn::LoadInterleaved2(d, &segments[i].at, at, slope);
        const auto value = hn::MulAdd(slope, hn::Sub(here, begin), at);
        const auto sample = hn::ConvertTo(whole, value);
        const auto left = hn::Sub(value, hn::ConvertTo(d, sample));
        const auto sure = hn::And(hn::Gt(left, doubt), hn::Lt(left, no_doubt));
        hn::StoreU(hn::DemoteTo(narrow, sample), narrow, out + i);
        if (hn::AllTrue(d, sure)) continue;
        std::array<std::uint8_t, 8 + HWY_MAX_BYTES / sizeof(float) / 8> told{};
        hn::StoreMaskBits(d, sure, told.data());
        std::array<std::uint16_t, HWY_MAX_BYTES / sizeof(float)> nearest{};
        hn::StoreU(hn::DemoteTo(narrow, hn::NearestInt(value)), narrow, nearest.data());
        for (std::size_t j = 0; j < lanes; ++j) {
            if ((unsigned(told[j / 8]) >> (j % 8) & 1U) != 0) continue;
            // The segment tells nothing.
            if (nearest[j] == 0)
                one(i + j);
            else
                out[i + j] = curve.beside_border(mean_of(i + j), nearest[j]);
        }
    }
    for (; i < count; ++i) one(i);
}

void samples_by_rows(const LightSums& sums, std::size_t count, double rows, const LightCurve& curve,
                     std::uint16_t* out) {
    samples_by(sums, count, ByRows{rows}, curve, out);
}
void samples_by_voters(const LightSums& sums, std::size_t count, const std::uint32_t* voters, const LightCurve& curve,
                       std::uint16_t* out) {
    samples_by(sums, count, ByVoters{voters}, curve, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(samples_by_rows);
HWY_EXPORT(samples_by_voters);

void samples_of(const LightSums& sums, std::size_t count, std::uint32_t rows, const LightCurve& curve,
                std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(samples_by_rows)(sums, count, double(rows), curve, out);
}

void samples_of(const LightSums& sums, std::size_t count, const std::array<std::uint32_t, sum_block>& voters,
                const LightCurve& curve, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(samples_by_voters)(sums, count, voters.data(), curve, out);
}

}  // namespace bp::kernels
#endif
