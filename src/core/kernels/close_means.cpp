#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/close_means.cpp"
#include "kernels/close_means.h"

#include <hwy/foreach_target.h>

#include <array>
#include <bit>

#include "kernels/lanes.h"
#include "kernels/light_sums.h"
#include "kernels/strays.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Of the distances from the middle, for every sample of a block.
struct Moments {
    alignas(64) std::array<std::int16_t, sum_block> first, second, third;
    alignas(64) std::array<std::uint8_t, sum_block> furthest, voters;
};

#if HWY_TARGET != HWY_SCALAR

using Bytes = hn::ScalableTag<std::uint8_t>;
using Words = hn::RepartitionToWide<Bytes>;
using Signed = hn::RebindToSigned<Words>;
using Byte = hn::Vec<Bytes>;

// Values in lanes of 16 bits: those at even places and those at odd ones.
struct Halves {
    hn::Vec<Signed> even, odd;
};

HWY_INLINE Halves halves_of(Byte values) {
    const Words d;
    const auto both = hn::BitCast(d, values);
    return {hn::BitCast(Signed(), hn::And(both, hn::Set(d, std::uint16_t{0xFF}))),
            hn::BitCast(Signed(), hn::ShiftRight<8>(both))};
}

HWY_INLINE void add_powers(hn::Vec<Signed> distance, hn::Vec<Signed>& first, hn::Vec<Signed>& second,
                           hn::Vec<Signed>& third) {
    const auto square = hn::Mul(distance, distance);
    first = hn::Add(first, distance);
    second = hn::Add(second, square);
    third = hn::Add(third, hn::Mul(square, distance));
}

// Sums of the values that `keep(values, distances)` lets through; it puts the middle in the place of others.
template <class Keep>
HWY_INLINE void moments_of(Rows<std::uint8_t> rows, std::size_t begin, std::size_t i, Byte middle, Moments& out,
                           const Keep& keep) {
    const Bytes d;
    const Signed d16;
    const Halves from = halves_of(middle);
    Halves first{hn::Zero(d16), hn::Zero(d16)}, second = first, third = first;
    auto furthest = hn::Zero(d);
    for (const std::uint8_t* row : rows) {
        const auto read = hn::LoadU(d, row + begin + i);
        auto distance = hn::Sub(hn::Max(read, middle), hn::Min(read, middle));
        const Halves values = halves_of(keep(read, distance));
        furthest = hn::Max(furthest, distance);
        add_powers(hn::Sub(values.even, from.even), first.even, second.even, third.even);
        add_powers(hn::Sub(values.odd, from.odd), first.odd, second.odd, third.odd);
    }
    hn::StoreInterleaved2(first.even, first.odd, d16, out.first.data() + i);
    hn::StoreInterleaved2(second.even, second.odd, d16, out.second.data() + i);
    hn::StoreInterleaved2(third.even, third.odd, d16, out.third.data() + i);
    hn::Store(furthest, d, out.furthest.data() + i);
}

// Whole numbers as floats.
template <class D, class T>
HWY_INLINE hn::Vec<D> floats(D d, const T* from) {
    return hn::ConvertTo(d, hn::PromoteTo(hn::RebindToSigned<D>(), hn::LoadU(hn::Rebind<T, D>(), from)));
}

// Samples of `count` means, whole vectors of bytes; bits of those that are not sure are set.
void samples_by_bends(const Moments& moments, std::size_t count, const std::uint8_t* middle,
                      const LightCurve::Bend* bends, std::uint16_t* out, StrayBits& unsure) {
    alignas(64) std::array<LightCurve::Bend, sum_block> bend;
    for (std::size_t i = 0; i < count; ++i) bend[i] = bends[middle[i]];
    const hn::CappedTag<float, 16> d;
    const hn::RebindToSigned<decltype(d)> whole;
    const hn::Rebind<std::uint16_t, decltype(d)> narrow;
    const std::size_t lanes = hn::Lanes(d);
    const auto one = hn::Set(d, 1.0F);
    const auto value = hn::Set(d, 257.0F);
    // Beyond it their sum may have gone around; that of the squares does not (most, below).
    const auto most_cubes = hn::Set(d, 32700.0F);
    std::uint64_t bits = 0;
    for (std::size_t i = 0; i < count; i += lanes) {
        hn::Vec<decltype(d)> square, cube, fourth, off;
        hn::LoadInterleaved4(d, &bend[i].square, square, cube, fourth, off);
        const auto voters = floats(d, moments.voters.data() + i);
        const auto share = hn::Div(one, voters);
        const auto first = hn::Mul(floats(d, moments.first.data() + i), share);
        const auto squares = floats(d, reinterpret_cast<const std::uint16_t*>(moments.second.data()) + i);
        const auto second = hn::Mul(squares, share);
        const auto third = hn::Mul(floats(d, moments.third.data() + i), share);
        const auto furthest = floats(d, moments.furthest.data() + i);
        const auto widest = hn::Mul(furthest, furthest);
        // Mean light over that of the middle, in values.
        const auto rise = hn::MulAdd(third, cube, hn::MulAdd(second, square, first));
        const auto back = hn::MulSub(hn::Add(square, square), square, cube);
        const auto step = hn::Mul(rise, hn::MulAdd(rise, hn::MulSub(rise, back, square), one));
        const auto sample = hn::MulAdd(step, value, hn::Set(d, 0.5F));
        const auto floor = hn::Floor(sample);
        const auto left = hn::Sub(sample, floor);
        // The mean of the fourth powers is no more than that of the squares times the largest square.
        const auto doubt = hn::MulAdd(hn::Mul(fourth, widest), second, off);
        auto sure = hn::And(hn::Gt(left, doubt), hn::Lt(left, hn::Sub(one, doubt)));
        sure = hn::And(sure, hn::Le(hn::Abs(rise), one));
        sure = hn::And(sure, hn::Le(furthest, hn::Set(d, float(LightCurve::bend_reach))));
        sure = hn::And(sure, hn::Lt(hn::Mul(furthest, squares), most_cubes));
        const auto base = hn::Mul(floats(d, middle + i), value);
        hn::StoreU(hn::DemoteTo(narrow, hn::ConvertTo(whole, hn::Add(base, floor))), narrow, out + i);
        std::array<std::uint8_t, 8> told{};
        hn::StoreMaskBits(d, hn::Not(sure), told.data());
        std::uint64_t here = 0;
        for (std::size_t byte = 0; byte * 8 < lanes; ++byte) here |= std::uint64_t(told[byte]) << byte * 8;
        bits |= here << i % 64;
        if ((i + lanes) % 64 == 0 || i + lanes == count) {
            unsure[i / 64] = bits;
            bits = 0;
        }
    }
}

// The sum of no more than 128 values and its share as whole numbers, nearly: any middle will do.
HWY_INLINE Byte rounded_mean(Rows<std::uint8_t> rows, std::size_t at) {
    const Bytes d;
    const Signed d16;
    const Words words;
    Halves sum{hn::Zero(d16), hn::Zero(d16)};
    for (const std::uint8_t* row : rows) {
        const Halves values = halves_of(hn::LoadU(d, row + at));
        sum = {hn::Add(sum.even, values.even), hn::Add(sum.odd, values.odd)};
    }
    const auto half = hn::Set(words, std::uint16_t(rows.size() / 2));
    const auto share = hn::Set(words, std::uint16_t(65536 / rows.size()));
    const auto mean = [&](hn::Vec<Signed> all)
                          HWY_ATTR { return hn::MulHigh(hn::Add(hn::BitCast(words, all), half), share); };
    return hn::BitCast(d, hn::Or(mean(sum.even), hn::ShiftLeft<8>(mean(sum.odd))));
}

std::size_t close_all(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const LightCurve::Bend* bends,
                      std::uint16_t* out, StrayBits& unsure) {
    const Bytes d;
    const std::size_t lanes = hn::Lanes(d);
    const std::size_t told = count / lanes * lanes;
    Moments moments;
    alignas(64) std::array<std::uint8_t, sum_block> middle;
    moments.voters.fill(std::uint8_t(rows.size()));
    for (std::size_t i = 0; i < told; i += lanes) {
        const auto here = rounded_mean(rows, begin + i);
        hn::Store(here, d, middle.data() + i);
        moments_of(rows, begin, i, here, moments, [](Byte values, Byte) HWY_ATTR { return values; });
    }
    samples_by_bends(moments, told, middle.data(), bends, out, unsure);
    return told;
}

std::size_t close_within(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const std::uint8_t* middle,
                         const std::uint8_t* reach, const LightCurve::Bend* bends, std::uint16_t* out,
                         StrayBits& unsure) {
    const Bytes d;
    const std::size_t lanes = hn::Lanes(d);
    const std::size_t told = count / lanes * lanes;
    const auto one = hn::Set(d, std::uint8_t{1});
    Moments moments;
    for (std::size_t i = 0; i < told; i += lanes) {
        const auto from = hn::LoadU(d, middle + i);
        const auto limit = hn::LoadU(d, reach + i);
        auto voters = hn::Zero(d);
        moments_of(rows, begin, i, from, moments, [&](Byte values, Byte& distance) HWY_ATTR {
            const auto apart = hn::Gt(distance, limit);
            voters = hn::Add(voters, hn::IfThenZeroElse(apart, one));
            distance = hn::IfThenZeroElse(apart, distance);
            return hn::IfThenElse(apart, from, values);
        });
        hn::Store(voters, d, moments.voters.data() + i);
    }
    samples_by_bends(moments, told, middle, bends, out, unsure);
    return told;
}

#else  // which has no bytes in wider lanes: nothing is told

std::size_t close_all(Rows<std::uint8_t>, std::size_t, std::size_t, const LightCurve::Bend*, std::uint16_t*,
                      StrayBits&) {
    return 0;
}
std::size_t close_within(Rows<std::uint8_t>, std::size_t, std::size_t, const std::uint8_t*, const std::uint8_t*,
                         const LightCurve::Bend*, std::uint16_t*, StrayBits&) {
    return 0;
}

#endif

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(close_all);
HWY_EXPORT(close_within);

namespace {

// With fewer rows looking up costs no more; of more the sums might go around.
constexpr std::size_t fewest = 6;
constexpr std::size_t most = 128;
static_assert(most * LightCurve::bend_reach * LightCurve::bend_reach <= 65535);
// One that is looked up costs as much as this many that are told.
constexpr std::size_t price = 10;
constexpr int long_pause = 7;

}  // namespace

template <class Tell, class One>
bool CloseMeans::tell(std::size_t count, std::uint16_t* out, const Tell& tell, const One& one) {
    if (rows_.size() < fewest || rows_.size() > most) return false;
    if (pause_ > 0) {
        --pause_;
        return false;
    }
    StrayBits unsure{};
    const std::size_t told = tell(unsure);
    std::size_t doubtful = count - told;
    for (const std::uint64_t word : unsure) doubtful += std::size_t(std::popcount(word));
    if (doubtful * price > count) {
        pause_ = long_pause;
        return false;
    }
    for (std::size_t word = 0; word < unsure.size(); ++word)
        for (std::uint64_t left = unsure[word]; left != 0; left &= left - 1) {
            const std::size_t i = word * 64 + std::size_t(std::countr_zero(left));
            out[i] = one(i);
        }
    for (std::size_t i = told; i < count; ++i) out[i] = one(i);
    return true;
}

bool CloseMeans::all(std::size_t begin, std::size_t count, std::uint16_t* out) {
    return tell(
        count, out,
        [&](StrayBits& unsure) {
            return HWY_DYNAMIC_DISPATCH(close_all)(rows_, begin, count, curve_.bends(), out, unsure);
        },
        [&](std::size_t i) {
            std::uint64_t light = 0;
            for (const std::uint8_t* row : rows_) light += curve_.table_of_8_bit()[row[begin + i]];
            return curve_.sample(double(light) / double(rows_.size()));
        });
}

bool CloseMeans::within(std::size_t begin, std::size_t count, const std::uint8_t* middle, const std::uint8_t* reach,
                        std::uint16_t* out) {
    return tell(
        count, out,
        [&](StrayBits& unsure) {
            return HWY_DYNAMIC_DISPATCH(close_within)(rows_, begin, count, middle, reach, curve_.bends(), out, unsure);
        },
        [&](std::size_t i) {
            std::uint64_t light = 0;
            int voters = 0;
            for (const std::uint8_t* row : rows_) {
                const int value = row[begin + i];
                if (std::abs(value - int(middle[i])) > int(reach[i])) continue;
                light += curve_.table_of_8_bit()[value];
                ++voters;
            }
            return curve_.sample(double(light) / double(voters));
        });
}

}  // namespace bp::kernels
#endif
