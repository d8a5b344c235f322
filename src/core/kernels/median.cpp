#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/median.cpp"
#include "kernels/median.h"

#include <hwy/cache_control.h>
#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <limits>
#include <utility>
#include <vector>

#include "kernels/lanes.h"
#include "kernels/network.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Beyond this the values of a network no longer fit into the registers and pass through memory anyway.
constexpr std::size_t most_in_registers = HWY_TARGET <= HWY_AVX3 ? 24 : 16;
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

template <std::size_t n, class T, std::size_t... input, std::size_t... step>
HWY_INLINE void network_step(Rows<T> rows, std::size_t i, T* low, T* high, std::index_sequence<input...>,
                             std::index_sequence<step...>) {
    [[maybe_unused]] static constexpr Network network = median_network(int(n));
    const hn::ScalableTag<T> d;
    hn::Vec<decltype(d)> v[n] = {hn::LoadU(d, rows[input] + i)...};
    [[maybe_unused]] const auto compare = [&v](auto at) HWY_ATTR {
        constexpr Comparator c = network.comparators[decltype(at)::value];
        const auto smaller = hn::Min(v[c.low], v[c.high]);
        v[c.high] = hn::Max(v[c.low], v[c.high]);
        v[c.low] = smaller;
    };
    (compare(std::integral_constant<std::size_t, step>()), ...);
    hn::Store(v[(n - 1) / 2], d, low);
    hn::Store(v[n / 2], d, high);
}

// `count` is a whole number of vectors.
template <std::size_t n, class T>
void in_registers(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    constexpr std::size_t steps = median_network(int(n)).size;
    const std::size_t lanes = hn::Lanes(hn::ScalableTag<T>());
    for (std::size_t i = 0; i < count; i += lanes)
        network_step<n, T>(rows, begin + i, out.low.data() + i, out.high.data() + i, std::make_index_sequence<n>(),
                           std::make_index_sequence<steps>());
}

template <class T, std::size_t... less>
void in_registers_of(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out, std::index_sequence<less...>) {
    using Step = void (*)(Rows<T>, std::size_t, std::size_t, Middle<T>&);
    static constexpr std::array<Step, sizeof...(less)> by_rows{in_registers<less + 1, T>...};
    by_rows[rows.size() - 1](rows, begin, count, out);
}

template <class T>
void through_memory(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    // A few vectors at a time, so that 64 rows of them fit into the nearest cache.
    constexpr std::size_t part = 128 / sizeof(T);
    alignas(64) std::array<std::array<T, part>, Network::most_inputs> held;
    const hn::CappedTag<T, part> d;
    const std::size_t lanes = hn::Lanes(d);
    const Network& network = median_network_for(rows.size());
    for (std::size_t from = 0; from < count; from += part) {
        for (std::size_t k = 0; k < rows.size(); ++k)
            std::memcpy(held[k].data(), rows[k] + begin + from, sizeof(held[k]));
        for (std::size_t c = 0; c < network.size; ++c) {
            T* a = held[network.comparators[c].low].data();
            T* b = held[network.comparators[c].high].data();
            for (std::size_t i = 0; i < part; i += lanes) {
                const auto x = hn::Load(d, a + i);
                const auto y = hn::Load(d, b + i);
                hn::Store(hn::Min(x, y), d, a + i);
                hn::Store(hn::Max(x, y), d, b + i);
            }
        }
        std::memcpy(out.low.data() + from, held[(rows.size() - 1) / 2].data(), sizeof(held[0]));
        std::memcpy(out.high.data() + from, held[rows.size() / 2].data(), sizeof(held[0]));
    }
}

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
        up_to = hn::Add(up_to, hn::IfThenZeroElse(is_above, one));
        above = hn::IfThenElse(is_above, hn::Min(above, v), above);
    }
    return hn::IfThenElse(hn::Gt(up_to, hn::Set(d, Lane(rows.size() / 2))), value, above);
}

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
                below = hn::Add(below, hn::IfThenElseZero(hn::Lt(load_as<Lane>(row + begin + i), tried), one));
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
void by_halves(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, Middle<std::uint16_t>& out) {
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
void by_halves(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, Middle<std::uint16_t>& out) {
    by_counting<std::uint16_t>(rows, begin, count, out);
}
#endif

template <class T>
void middle_of(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    if (rows.size() <= most_in_registers)
        in_registers_of(rows, begin, count, out, std::make_index_sequence<most_in_registers>());
    else if (rows.size() <= Network::most_inputs)
        through_memory(rows, begin, count, out);
    else if (rows.size() > std::numeric_limits<std::uint8_t>::max())
        by_counting<std::uint16_t>(rows, begin, count, out);
    else if constexpr (sizeof(T) == 1)
        by_counting<T>(rows, begin, count, out);
    else
        by_halves(rows, begin, count, out);
}

void write_middle(const Middle<std::uint8_t>& middle, std::size_t count, std::uint16_t* out) {
    for (std::size_t i = 0; i < count; ++i)
        out[i] = std::uint16_t((unsigned(to_16(middle.low[i])) + unsigned(to_16(middle.high[i])) + 1) / 2);
}

void write_middle(const Middle<std::uint16_t>& middle, std::size_t count, std::uint16_t* out) {
    for (std::size_t i = 0; i < count; ++i)
        out[i] = std::uint16_t((unsigned(middle.low[i]) + unsigned(middle.high[i]) + 1) / 2);
}

// Goes through the rows block by block; write(middle, count, from) takes the middles of samples [from, from + count).
template <class T, class Write>
void by_blocks(Rows<T> rows, std::size_t samples, const Write& write) {
    Middle<T> middle;
    std::size_t i = 0;
    for (; i + block <= samples; i += block) {
        middle_of(rows, i, block, middle);
        write(middle, block, i);
    }
    if (i == samples) return;
    // The last block overlaps the one before, which comes to the same.
    if (samples >= block) {
        middle_of(rows, samples - block, block, middle);
        write(middle, block, samples - block);
        return;
    }
    // What is shorter is brought to the length of a block, so that nothing is read past a row's end.
    const std::size_t rest = samples - i;
    std::vector<Piece<T>> pieces(rows.size());
    std::vector<const T*> pointers;
    pointers.reserve(rows.size());
    for (std::size_t k = 0; k < rows.size(); ++k) {
        std::copy_n(rows[k] + i, rest, pieces[k].begin());
        pointers.push_back(pieces[k].data());
    }
    middle_of(Rows<T>(pointers), 0, block, middle);
    write(middle, rest, i);
}

template <class T>
void median_of(Rows<T> rows, std::size_t samples, std::uint16_t* out) {
    by_blocks(rows, samples, [out](const Middle<T>& middle, std::size_t count, std::size_t from) {
        write_middle(middle, count, out + from);
    });
}

template <class T>
void lower_middle_of(Rows<T> rows, std::size_t samples, T* out) {
    by_blocks(rows, samples, [out](const Middle<T>& middle, std::size_t count, std::size_t from) {
        std::copy_n(middle.low.begin(), count, out + from);
    });
}

template <class T>
void middles_of(Rows<T> rows, std::size_t samples, T* low, T* high) {
    by_blocks(rows, samples, [low, high](const Middle<T>& middle, std::size_t count, std::size_t from) {
        std::copy_n(middle.low.begin(), count, low + from);
        std::copy_n(middle.high.begin(), count, high + from);
    });
}

void median_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    median_of(rows, samples, out);
}
void median_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    median_of(rows, samples, out);
}
void middles_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* low, std::uint8_t* high) {
    middles_of(rows, samples, low, high);
}
void middles_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* low, std::uint16_t* high) {
    middles_of(rows, samples, low, high);
}
void lower_middle_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* out) {
    lower_middle_of(rows, samples, out);
}
void lower_middle_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    lower_middle_of(rows, samples, out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(median_8);
HWY_EXPORT(median_16);
HWY_EXPORT(middles_8);
HWY_EXPORT(middles_16);
HWY_EXPORT(lower_middle_8);
HWY_EXPORT(lower_middle_16);

void median(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(median_8)(rows, samples, out);
}
void median(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(median_16)(rows, samples, out);
}

void middles(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* low, std::uint8_t* high) {
    HWY_DYNAMIC_DISPATCH(middles_8)(rows, samples, low, high);
}
void middles(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* low, std::uint16_t* high) {
    HWY_DYNAMIC_DISPATCH(middles_16)(rows, samples, low, high);
}

void lower_middle(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_middle_8)(rows, samples, out);
}
void lower_middle(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_middle_16)(rows, samples, out);
}

}  // namespace bp::kernels
#endif
