#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/pair_up.cpp"
#include <hwy/foreach_target.h>

#include "kernels/lanes.h"
#include "kernels/light_sums.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

void pair_up_8(const std::uint8_t* a, const std::uint8_t* b, std::size_t count, std::uint16_t* out) {
    std::size_t i = 0;
#if HWY_TARGET != HWY_SCALAR
    const hn::ScalableTag<std::uint8_t> d;
    const std::size_t lanes = hn::Lanes(d);
    auto* bytes = reinterpret_cast<std::uint8_t*>(out);
    for (; i + lanes <= count; i += lanes)
        hn::StoreInterleaved2(hn::LoadU(d, a + i), hn::LoadU(d, b + i), d, bytes + 2 * i);
#endif
    for (; i < count; ++i) out[i] = std::uint16_t(a[i] | b[i] << 8);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(pair_up_8);

void pair_up(const std::uint8_t* a, const std::uint8_t* b, std::size_t count, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(pair_up_8)(a, b, count, out);
}

}  // namespace bp::kernels
#endif
