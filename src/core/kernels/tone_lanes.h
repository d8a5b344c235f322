// tone_sample() for vectors. Included once for every target that Highway compiles for, hence the guard by target.
#if defined(BP_KERNELS_TONE_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_TONE_LANES_H
#undef BP_KERNELS_TONE_LANES_H
#else
#define BP_KERNELS_TONE_LANES_H
#endif

#include "kernels/develop.h"
#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

using Light = hn::ScalableTag<float>;
using Whole = hn::RebindToSigned<Light>;

// 16-bit samples by light, the same to the last bit as tone_sample() gives, in 32-bit lanes.
HWY_INLINE hn::Vec<Whole> tone_lanes(const float* table, hn::Vec<Light> light) {
    const Light d;
    const Whole whole;
    const auto root = hn::Sqrt(hn::Max(light, hn::Zero(d)));
    const auto place = hn::Min(hn::Mul(root, hn::Set(d, float(tone_steps))), hn::Set(d, float(2 * tone_steps)));
    const auto at = hn::ConvertTo(whole, place);
    const auto low = hn::GatherIndex(d, table, at);
    const auto high = hn::GatherIndex(d, table + 1, at);
    const auto part = hn::Sub(place, hn::ConvertTo(d, at));
    const auto value = hn::Add(low, hn::Mul(hn::Sub(high, low), part));
    return hn::ConvertTo(whole, hn::Add(value, hn::Set(d, 0.5F)));
}

// Samples as indices into a table: as they are, or 8-bit ones as 257 times their value, for tables of 65536 entries.
template <class T>
HWY_INLINE hn::Vec<Whole> load_index(const T* from) {
    return hn::PromoteTo(Whole(), hn::LoadU(hn::Rebind<T, Whole>(), from));
}
template <class T>
HWY_INLINE hn::Vec<Whole> load_index_16(const T* from) {
    const auto v = load_index(from);
    if constexpr (sizeof(T) == 1)
        return hn::Or(v, hn::ShiftLeft<8>(v));
    else
        return v;
}

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
