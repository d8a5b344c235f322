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

void distances_8(const std::uint8_t* row, const std::uint8_t* middle, std::size_t count, std::uint8_t* out) {
    distances_of(row, middle, count, out);
}
void distances_16(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    distances_of(row, middle, count, out);
}

void differences_16(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    const hn::ScalableTag<std::uint16_t> d;
    const hn::RebindToSigned<decltype(d)> signed_d;
    const auto half = hn::Set(d, std::uint16_t(32768));
    const std::size_t lanes = hn::Lanes(d);
    std::size_t i = 0;
    for (; i + lanes <= count; i += lanes) {
        const auto a = hn::BitCast(signed_d, hn::Xor(hn::LoadU(d, row + i), half));
        const auto b = hn::BitCast(signed_d, hn::Xor(hn::LoadU(d, middle + i), half));
        hn::StoreU(hn::Xor(hn::BitCast(d, hn::SaturatedSub(a, b)), half), d, out + i);
    }
    for (; i < count; ++i) out[i] = std::uint16_t(std::clamp(int(row[i]) - int(middle[i]) + 32768, 0, 65535));
}

// Bit by bit, the largest value that at most 31 of the 64 lie below.
void middles_of_blocks(const std::uint16_t* row, std::size_t blocks, std::uint16_t* out) {
    constexpr std::size_t samples = 64, rank = (samples - 1) / 2;
    const hn::CappedTag<std::uint16_t, samples> d;
    const std::size_t lanes = hn::Lanes(d);
    for (std::size_t b = 0; b < blocks; ++b, row += samples) {
        unsigned value = 0;
        for (unsigned bit = 32768; bit != 0; bit /= 2) {
            const auto tried = hn::Set(d, std::uint16_t(value | bit));
            std::size_t below = 0;
            for (std::size_t i = 0; i < samples; i += lanes)
                below += hn::CountTrue(d, hn::Lt(hn::LoadU(d, row + i), tried));
            value |= below <= rank ? bit : 0;
        }
        out[b] = std::uint16_t(value);
    }
}

void sums_of_fours(const std::uint16_t* row, std::size_t sums, std::uint32_t* out) {
    std::size_t i = 0;
#if HWY_TARGET != HWY_SCALAR
    const hn::ScalableTag<std::uint16_t> d;
    const hn::Repartition<std::uint32_t, decltype(d)> pairs;
    const hn::Repartition<std::uint64_t, decltype(d)> fours;
    const hn::Rebind<std::uint32_t, decltype(fours)> d_out;
    const std::size_t at_once = hn::Lanes(fours);
    for (; i + at_once <= sums; i += at_once) {
        const auto v = hn::BitCast(pairs, hn::LoadU(d, row + 4 * i));
        const auto twos = hn::Add(hn::And(v, hn::Set(pairs, 0xffff)), hn::ShiftRight<16>(v));
        const auto w = hn::BitCast(fours, twos);
        hn::StoreU(hn::TruncateTo(d_out, hn::Add(w, hn::ShiftRight<32>(w))), d_out, out + i);
    }
#endif
    for (; i < sums; ++i) out[i] = std::uint32_t(row[4 * i]) + row[4 * i + 1] + row[4 * i + 2] + row[4 * i + 3];
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
HWY_EXPORT(distances_8);
HWY_EXPORT(distances_16);
HWY_EXPORT(differences_16);
HWY_EXPORT(middles_of_blocks);
HWY_EXPORT(sums_of_fours);
HWY_EXPORT(places_above);

void lower_by(const std::uint16_t* row, int by, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_all)(row, by, samples, out);
}
void distances(const std::uint8_t* row, const std::uint8_t* middle, std::size_t count, std::uint8_t* out) {
    HWY_DYNAMIC_DISPATCH(distances_8)(row, middle, count, out);
}
void distances(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(distances_16)(row, middle, count, out);
}
void differences(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(differences_16)(row, middle, count, out);
}
void middles_of_64(const std::uint16_t* row, std::size_t blocks, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(middles_of_blocks)(row, blocks, out);
}
void sums_of_4(const std::uint16_t* row, std::size_t sums, std::uint32_t* out) {
    HWY_DYNAMIC_DISPATCH(sums_of_fours)(row, sums, out);
}
void add_places_above(const std::uint16_t* row, const std::uint16_t* limits, std::size_t samples,
                      std::vector<std::uint16_t>& places) {
    HWY_DYNAMIC_DISPATCH(places_above)(row, limits, samples, places);
}

}  // namespace bp::kernels
#endif
