// Middle values found by counting how many lie below, for more rows than a network takes. Included once for every
// target that Highway compiles for.
#if defined(BP_KERNELS_COUNT_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_COUNT_LANES_H
#undef BP_KERNELS_COUNT_LANES_H
#else
#define BP_KERNELS_COUNT_LANES_H
#endif

#include <hwy/cache_control.h>

#include <algorithm>
#include <array>
#include <cstdint>
#include <limits>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

// Samples that one step works on; every row's piece of it stays in the nearest cache.
constexpr std::size_t block = 128;

template <class T>
using Piece = std::array<T, block>;

// The two middle values of a piece, which are one when the number of rows is odd.
template <class T>
struct Middle {
    alignas(64) Piece<T> low;
    alignas(64) Piece<T> high;
};

// Loads samples into lanes of type Lane, in which the rows are counted as well.
template <class Lane, class T>
HWY_INLINE hn::Vec<hn::ScalableTag<Lane>> load_as(const T* from) {
    const hn::ScalableTag<Lane> d;
    if constexpr (sizeof(Lane) == sizeof(T))
        return hn::LoadU(d, from);
    else
        return hn::PromoteTo(d, hn::LoadU(hn::Rebind<T, decltype(d)>(), from));
}

template <class Lane, class V, class T>
HWY_INLINE void store_as(V v, T* to) {
    const hn::ScalableTag<Lane> d;
    if constexpr (sizeof(Lane) == sizeof(T))
        hn::StoreU(v, d, to);
    else
        hn::StoreU(hn::DemoteTo(hn::Rebind<T, decltype(d)>(), hn::BitCast(hn::RebindToSigned<decltype(d)>(), v)),
                   hn::Rebind<T, decltype(d)>(), to);
}

// The upper one of the two middle values: the same as the lower one if enough rows share it, else the least above it.
template <class Lane, class T, class V = hn::Vec<hn::ScalableTag<Lane>>>
HWY_INLINE V next_rank(Rows<T> rows, std::size_t at, V value) {
    const hn::ScalableTag<Lane> d;
    const auto one = hn::Set(d, Lane{1});
    auto up_to = hn::Zero(d);
    auto above = hn::Set(d, std::numeric_limits<Lane>::max());
    for (const T* row : rows) {
        const auto v = load_as<Lane>(row + at);
        const auto is_above = hn::Lt(value, v);
        up_to = hn::SaturatedAdd(up_to, hn::IfThenZeroElse(is_above, one));
        above = hn::IfThenElse(is_above, hn::Min(above, v), above);
    }
    return hn::IfThenElse(hn::Gt(up_to, hn::Set(d, Lane(rows.size() / 2))), value, above);
}

// Counts end at the most that a lane holds, which is enough: how many more than half of the rows there are does not
// matter.
template <class Lane>
constexpr std::size_t most_counted = 2 * std::size_t(std::numeric_limits<Lane>::max()) - 2;

// Of at most most_counted<Lane> rows.
template <class Lane, class T>
void by_counting(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    const hn::ScalableTag<Lane> d;
    const std::size_t lanes = hn::Lanes(d);
    const auto one = hn::Set(d, Lane{1});
    const auto rank = hn::Set(d, Lane((rows.size() - 1) / 2));
    for (std::size_t i = 0; i < count; i += lanes) {
        // The largest value that at most `rank` rows lie below.
        auto value = hn::Zero(d);
        constexpr int highest = int(8 * sizeof(T)) - 1;
        for (int bit = highest; bit >= 0; --bit) {
            const auto tried = hn::Or(value, hn::Set(d, Lane(1U << bit)));
            auto below = hn::Zero(d);
            for (const T* row : rows) {
                // What comes next is on its way while this is counted.
                if (bit == highest) hwy::Prefetch(row + begin + i + lanes);
                below = hn::SaturatedAdd(below, hn::IfThenElseZero(hn::Lt(load_as<Lane>(row + begin + i), tried), one));
            }
            value = hn::IfThenElse(hn::Lt(rank, below), value, tried);
        }
        store_as<Lane>(value, out.low.data() + i);
        if (rows.size() % 2 == 0) {
            value = next_rank<Lane>(rows, begin + i, value);
        }
        store_as<Lane>(value, out.high.data() + i);
    }
}

#if HWY_TARGET != HWY_SCALAR  // which has no bytes in wider lanes

// Samples of 16 bits that are counted as two times 8 bits. So few at a time that many rows of them stay in the nearest
// cache.
constexpr std::size_t part = 64;
using Whole = hn::ScalableTag<std::uint16_t>;
constexpr std::size_t part_vectors = part / hn::MaxLanes(Whole());
static_assert(hn::MaxLanes(Whole()) <= part && block % part == 0);
using Part = std::array<hn::Vec<Whole>, part_vectors>;

// Bytes of two rows in lanes of 16 bits: nothing has to change its place.
HWY_INLINE hn::Vec<Whole> paired(hn::Vec<Whole> first, hn::Vec<Whole> second) {
    return hn::Or(first, hn::ShiftLeft<8>(second));
}

// Brings samples of all rows into the caches, a row at a time.
class Ahead {
  public:
    Ahead(Rows<std::uint16_t> rows, std::size_t at) : rows_(rows), at_(at) {}
    bool done() const { return next_ == rows_.size(); }
    HWY_INLINE void fetch() {
        const std::uint16_t* row = rows_[next_++] + at_;
        for (std::size_t i = 0; i < part; i += line) hwy::Prefetch(row + i);
    }

  private:
    static constexpr std::size_t line = 64 / sizeof(std::uint16_t);
    Rows<std::uint16_t> rows_;
    std::size_t at_;
    std::size_t next_ = 0;
};

// Of each sample the largest value below 2^bits that at most `rank` rows lie below. `up_to` brings how many rows lie
// below 2^bits and takes how many do not lie above what is found. `pairs` holds `count` pairs of rows, `part` lanes
// each.
HWY_INLINE void rank_in_pairs(const std::uint16_t* pairs, std::size_t count, std::size_t rank, int bits, Ahead& ahead,
                              Part& found, Part& up_to) {
    const Whole d;
    const hn::Repartition<std::uint8_t, Whole> d8;
    const std::size_t lanes = hn::Lanes(d);
    const auto one = hn::Set(d8, std::uint8_t{1});
    const auto most = hn::Set(d, std::uint16_t(rank));
    const auto low_byte = hn::Set(d, std::uint16_t{0xFF});
    for (auto& value : found) value = hn::Zero(d);
    // A few with every bit: all at once they would wait for each other.
    const std::size_t fetched_a_bit = bits == 0 ? 0 : (2 * count + std::size_t(bits) - 1) / std::size_t(bits);
    for (int bit = bits - 1; bit >= 0; --bit) {
        Part tried;
        std::array<decltype(hn::Zero(d8)), part_vectors> both, below;
        for (std::size_t v = 0; v < part_vectors; ++v) {
            tried[v] = hn::Or(found[v], hn::Set(d, std::uint16_t(1U << unsigned(bit))));
            both[v] = hn::BitCast(d8, paired(tried[v], tried[v]));
            below[v] = hn::Zero(d8);
        }
        const std::uint16_t* pair = pairs;
        const auto count_pair = [&]() HWY_ATTR {
            for (std::size_t v = 0; v < part_vectors; ++v) {
                const auto bytes = hn::BitCast(d8, hn::Load(d, pair + v * lanes));
                below[v] = hn::IfThenElse(hn::Lt(bytes, both[v]), hn::Add(below[v], one), below[v]);
            }
            pair += part;
        };
        std::size_t k = 0;
        for (; k < std::min(count, fetched_a_bit) && !ahead.done(); ++k) {
            ahead.fetch();
            count_pair();
        }
#pragma GCC unroll 4
        for (; k < count; ++k) count_pair();
        for (std::size_t v = 0; v < part_vectors; ++v) {
            const auto counts = hn::BitCast(d, below[v]);
            const auto in_all = hn::Add(hn::And(counts, low_byte), hn::ShiftRight<8>(counts));
            const auto too_high = hn::Lt(most, in_all);
            found[v] = hn::IfThenElse(too_high, found[v], tried[v]);
            // What was last too high is the value after the one that is found.
            up_to[v] = hn::IfThenElse(too_high, in_all, up_to[v]);
        }
    }
}

// Calls store(pair) for every pair of vectors of two rows and makes a pair with the largest byte of a row that is left
// over. low(row, v) and high(row, v) make a row's lower and upper bytes of vector v.
template <class Low, class High>
HWY_INLINE void pair_rows(Rows<std::uint16_t> rows, const Low& low, const High& high, std::uint16_t* pairs) {
    const Whole d;
    const std::size_t lanes = hn::Lanes(d);
    std::size_t k = 0;
    for (; k + 1 < rows.size(); k += 2, pairs += part)
        for (std::size_t v = 0; v < part_vectors; ++v)
            hn::Store(hn::Or(low(rows[k], v), high(rows[k + 1], v)), d, pairs + v * lanes);
    if (k == rows.size()) return;
    for (std::size_t v = 0; v < part_vectors; ++v)
        hn::Store(hn::Or(low(rows[k], v), hn::Set(d, std::uint16_t{0xFF00})), d, pairs + v * lanes);
}

// Pairs of what lies above the floor, which no row lies below, without its `shift` lower bits (1 to 8): what is left
// must fit into a byte.
HWY_INLINE void pair_upper_bits(Rows<std::uint16_t> rows, std::size_t at, const Part& floor, int shift,
                                std::uint16_t* pairs) {
    const Whole d;
    const std::size_t lanes = hn::Lanes(d);
    // Times a power of two, of which the upper half counts, is to shift down.
    const auto down = hn::Set(d, std::uint16_t(1U << unsigned(16 - shift)));
    const auto up = hn::Set(d, std::uint16_t(1U << unsigned(8 - shift)));
    const auto high_byte = hn::Set(d, std::uint16_t{0xFF00});
    const auto over = [&](const std::uint16_t* row, std::size_t v)
                          HWY_ATTR { return hn::Sub(hn::LoadU(d, row + at + v * lanes), floor[v]); };
    pair_rows(
        rows, [&](const std::uint16_t* row, std::size_t v) HWY_ATTR { return hn::MulHigh(over(row, v), down); },
        [&](const std::uint16_t* row, std::size_t v) HWY_ATTR { return hn::And(hn::Mul(over(row, v), up), high_byte); },
        pairs);
}

// Pairs of what lies above the floor; what is more than a byte counts as the largest byte.
HWY_INLINE void pair_lower_bits(Rows<std::uint16_t> rows, std::size_t at, const Part& floor, std::uint16_t* pairs) {
    const Whole d;
    const std::size_t lanes = hn::Lanes(d);
    const auto largest = hn::Set(d, std::uint16_t{0xFF});
    const auto over = [&](const std::uint16_t* row, std::size_t v) HWY_ATTR {
        return hn::Min(hn::SaturatedSub(hn::LoadU(d, row + at + v * lanes), floor[v]), largest);
    };
    pair_rows(
        rows, over, [&](const std::uint16_t* row, std::size_t v) HWY_ATTR { return hn::ShiftLeft<8>(over(row, v)); },
        pairs);
}

// The least value above `value`, where there is one.
HWY_INLINE hn::Vec<Whole> least_above(Rows<std::uint16_t> rows, std::size_t at, hn::Vec<Whole> value) {
    const Whole d;
    const auto floor = hn::Add(value, hn::Set(d, std::uint16_t{1}));
    auto least = hn::Set(d, std::uint16_t{0xFFFF});
    // What lies below the floor goes around to the largest numbers.
    for (const std::uint16_t* row : rows) least = hn::Min(least, hn::Sub(hn::LoadU(d, row + at), floor));
    return hn::Add(floor, least);
}

// The value of the rank after that of `low`, which stands at `found` among the pairs, for an even number of rows, of
// which `up_to` do not lie above `found`.
HWY_INLINE hn::Vec<Whole> next_in_pairs(const std::uint16_t* pairs, Rows<std::uint16_t> rows, std::size_t at,
                                        hn::Vec<Whole> found, hn::Vec<Whole> up_to, hn::Vec<Whole> low) {
    const Whole d;
    const hn::Repartition<std::uint8_t, Whole> d8;
    const auto one = hn::Set(d, std::uint16_t{1});
    const auto low_byte = hn::Set(d, std::uint16_t{0xFF});
    // The largest byte stands for all that is larger, too.
    if (!hn::AllFalse(d, hn::Eq(found, low_byte))) return next_rank<std::uint16_t>(rows, at, low);
    const std::size_t count = rows.size() / 2;
    const auto after = hn::Add(found, one);
    const auto floor = hn::BitCast(d8, paired(after, after));
    auto over = hn::Set(d8, std::uint8_t{0xFF});
    // What lies below the floor goes around to the largest bytes.
    for (std::size_t k = 0; k < count; ++k)
        over = hn::Min(over, hn::Sub(hn::BitCast(d8, hn::Load(d, pairs + k * part)), floor));
    const auto nearest = hn::BitCast(d, over);
    const auto least = hn::Add(hn::Min(hn::And(nearest, low_byte), hn::ShiftRight<8>(nearest)), after);
    const auto shared = hn::Lt(hn::Set(d, std::uint16_t(count)), up_to);
    const bool within = hn::AllTrue(d, hn::Or(shared, hn::Lt(least, low_byte)));
    const auto next = within ? hn::Add(low, hn::Sub(least, found)) : least_above(rows, at, low);
    return hn::IfThenElse(shared, low, next);
}

// Counts in lanes of 8 bits: first the upper bits of what lies above the least value, then the lower bits of those
// whose upper bits are the middle ones. Rows that differ little, as most do, need few bits. At most 255 rows.
inline void by_halves(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, Middle<std::uint16_t>& out) {
    alignas(64) std::array<std::uint16_t, 128 * part> pairs;
    const Whole d;
    const std::size_t lanes = hn::Lanes(d);
    const std::size_t pair_count = (rows.size() + 1) / 2;
    const std::size_t rank = (rows.size() - 1) / 2;
    for (std::size_t from = 0; from < count; from += part) {
        const std::size_t at = begin + from;
        Part floor, most;
        for (std::size_t v = 0; v < part_vectors; ++v) floor[v] = most[v] = hn::LoadU(d, rows[0] + at + v * lanes);
        for (const std::uint16_t* row : rows)
            for (std::size_t v = 0; v < part_vectors; ++v) {
                const auto sample = hn::LoadU(d, row + at + v * lanes);
                floor[v] = hn::Min(floor[v], sample);
                most[v] = hn::Max(most[v], sample);
            }
        auto differ = hn::Zero(d);
        for (std::size_t v = 0; v < part_vectors; ++v) differ = hn::Or(differ, hn::Sub(most[v], floor[v]));
        alignas(64) std::array<std::uint16_t, hn::MaxLanes(Whole())> ranges;
        hn::Store(differ, d, ranges.data());
        unsigned widest = 0;
        for (std::size_t i = 0; i < lanes; ++i) widest |= ranges[i];
        Ahead ahead(rows, at + part);
        Part found, up_to;
        for (auto& value : up_to) value = hn::Set(d, std::uint16_t(2 * pair_count));
        int bits = 0;
        while ((widest >> unsigned(bits)) != 0) ++bits;
        if (bits > 8) {
            bits -= 8;
            pair_upper_bits(rows, at, floor, bits, pairs.data());
            rank_in_pairs(pairs.data(), pair_count, rank, 8, ahead, found, up_to);
            for (std::size_t v = 0; v < part_vectors; ++v)
                floor[v] = hn::Add(floor[v], hn::ShiftLeftSame(found[v], bits));
        }
        pair_lower_bits(rows, at, floor, pairs.data());
        rank_in_pairs(pairs.data(), pair_count, rank, bits, ahead, found, up_to);
        for (std::size_t v = 0; v < part_vectors; ++v) {
            const std::size_t i = v * lanes;
            const auto low = hn::Add(floor[v], found[v]);
            hn::Store(low, d, out.low.data() + from + i);
            hn::Store(
                rows.size() % 2 == 0 ? next_in_pairs(pairs.data() + i, rows, at + i, found[v], up_to[v], low) : low, d,
                out.high.data() + from + i);
        }
    }
}

#else
inline void by_halves(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, Middle<std::uint16_t>& out) {
    by_counting<std::uint16_t>(rows, begin, count, out);
}
#endif

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
