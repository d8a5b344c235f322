// What the vector kernels share. Included once for every target that Highway compiles for, hence the guard by target.
#if defined(BP_KERNELS_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_LANES_H
#undef BP_KERNELS_LANES_H
#else
#define BP_KERNELS_LANES_H
#endif

#include <hwy/highway.h>

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <span>

#include "kernels/rows.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

namespace hn = hwy::HWY_NAMESPACE;

// Stores samples as 16 bits: an 8-bit v as 257 v.
template <class D, class V = hn::Vec<D>>
HWY_INLINE void store_16([[maybe_unused]] D d, V v, std::uint16_t* out) {
    if constexpr (sizeof(hn::TFromD<D>) == 2) {
        hn::StoreU(v, d, out);
    } else {
#if HWY_TARGET == HWY_SCALAR
        *out = to_16(hn::GetLane(v));
#else
        const hn::Half<D> half;
        const hn::RepartitionToWide<D> wide;
        const auto low = hn::PromoteTo(wide, hn::LowerHalf(half, v));
        const auto high = hn::PromoteTo(wide, hn::UpperHalf(half, v));
        hn::StoreU(hn::Or(low, hn::ShiftLeft<8>(low)), wide, out);
        hn::StoreU(hn::Or(high, hn::ShiftLeft<8>(high)), wide, out + hn::Lanes(wide));
#endif
    }
}

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
