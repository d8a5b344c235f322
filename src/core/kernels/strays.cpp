#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/strays.cpp"
#include "kernels/strays.h"

#include <hwy/foreach_target.h>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

template <class T>
void strays_of(const T* distance, const T* reach, std::size_t count, StrayBits& bits) {
    bits.fill(0);
#if HWY_TARGET == HWY_SCALAR
    for (std::size_t i = 0; i < count; ++i) bits[i / 64] |= std::uint64_t(distance[i] > reach[i]) << i % 64;
#else
    // Blocks are whole numbers of vectors, and vectors of whole bytes of bits.
    const hn::CappedTag<T, 64> d;
    const std::size_t lanes = hn::Lanes(d);
    auto* bytes = reinterpret_cast<std::uint8_t*>(bits.data());
    for (std::size_t i = 0; i < count; i += lanes)
        hn::StoreMaskBits(d, hn::Gt(hn::LoadU(d, distance + i), hn::LoadU(d, reach + i)), bytes + i / 8);
    if (count % 64 != 0) bits[count / 64] &= (std::uint64_t(1) << count % 64) - 1;
    for (std::size_t word = (count + 63) / 64; word < bits.size(); ++word) bits[word] = 0;
#endif
}

void strays_8(const std::uint8_t* distance, const std::uint8_t* reach, std::size_t count, StrayBits& bits) {
    strays_of(distance, reach, count, bits);
}
void strays_16(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count, StrayBits& bits) {
    strays_of(distance, reach, count, bits);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(strays_8);
HWY_EXPORT(strays_16);

void strays(const std::uint8_t* distance, const std::uint8_t* reach, std::size_t count, StrayBits& bits) {
    HWY_DYNAMIC_DISPATCH(strays_8)(distance, reach, count, bits);
}
void strays(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count, StrayBits& bits) {
    HWY_DYNAMIC_DISPATCH(strays_16)(distance, reach, count, bits);
}

}  // namespace bp::kernels
#endif
