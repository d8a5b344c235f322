#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/strays.cpp"
#include "kernels/strays.h"

#include <hwy/foreach_target.h>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

template <class T>
void distances_of(const T* row, const T* middle, std::size_t count, T* out) {
    const hn::ScalableTag<T> d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes) {
        const auto a = hn::LoadU(d, row + i);
        const auto b = hn::LoadU(d, middle + i);
        hn::StoreU(hn::Sub(hn::Max(a, b), hn::Min(a, b)), d, out + i);
    }
    for (; i < count; ++i) out[i] = T(std::max(row[i], middle[i]) - std::min(row[i], middle[i]));
}

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

void distances_8(const std::uint8_t* row, const std::uint8_t* middle, std::size_t count, std::uint8_t* out) {
    distances_of(row, middle, count, out);
}
void distances_16(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    distances_of(row, middle, count, out);
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

HWY_EXPORT(distances_8);
HWY_EXPORT(distances_16);
HWY_EXPORT(strays_8);
HWY_EXPORT(strays_16);

void distances(const std::uint8_t* row, const std::uint8_t* middle, std::size_t count, std::uint8_t* out) {
    HWY_DYNAMIC_DISPATCH(distances_8)(row, middle, count, out);
}
void distances(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(distances_16)(row, middle, count, out);
}
void strays(const std::uint8_t* distance, const std::uint8_t* reach, std::size_t count, StrayBits& bits) {
    HWY_DYNAMIC_DISPATCH(strays_8)(distance, reach, count, bits);
}
void strays(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count, StrayBits& bits) {
    HWY_DYNAMIC_DISPATCH(strays_16)(distance, reach, count, bits);
}

}  // namespace bp::kernels
#endif
