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
constexpr std::size_t most_in_registers = 16;
// Samples that one step works on; every row's piece of it stays in the nearest cache.
constexpr std::size_t block = 256;

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
    const Network& network = network_for(rows.size());
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
        for (int bit = int(8 * sizeof(T)) - 1; bit >= 0; --bit) {
            const auto tried = hn::Or(value, hn::Set(d, Lane(1U << bit)));
            auto below = hn::Zero(d);
            for (const T* row : rows)
                below = hn::Add(below, hn::IfThenElseZero(hn::Lt(load_as<Lane>(row + begin + i), tried), one));
            value = hn::IfThenElse(hn::Lt(rank, below), value, tried);
        }
        store_as<Lane>(value, out.low.data() + i);
        if (rows.size() % 2 == 0) {
            value = next_rank<Lane>(rows, begin + i, value);
        }
        store_as<Lane>(value, out.high.data() + i);
    }
}

// Samples of 16 bits that are counted as two times 8 bits. So few at a time that the bytes of many rows stay in the
// nearest cache.
constexpr std::size_t byte_part = 128;
static_assert(hn::MaxLanes(hn::ScalableTag<std::uint8_t>()) <= byte_part && block % byte_part == 0);

// The largest value below 2^bits that at most `rank` of `count` rows of bytes lie below. Rows follow each other.
HWY_INLINE void rank_of_bytes(const std::uint8_t* rows, std::size_t count, std::size_t rank, int bits,
                              std::uint8_t* out) {
    const hn::ScalableTag<std::uint8_t> d;
    const auto one = hn::Set(d, std::uint8_t{1});
    const auto most = hn::Set(d, std::uint8_t(rank));
    for (std::size_t i = 0; i < byte_part; i += hn::Lanes(d)) {
        auto value = hn::Zero(d);
        for (int bit = bits - 1; bit >= 0; --bit) {
            const auto tried = hn::Or(value, hn::Set(d, std::uint8_t(1U << bit)));
            auto below = hn::Zero(d);
            for (std::size_t k = 0; k < count; ++k)
                below = hn::Add(below, hn::IfThenElseZero(hn::Lt(hn::LoadU(d, rows + k * byte_part + i), tried), one));
            value = hn::IfThenElse(hn::Lt(most, below), value, tried);
        }
        hn::Store(value, d, out + i);
    }
}

// Counts in lanes of 8 bits: first the upper bits of what lies above the least value, then the lower bits of those
// whose upper bits are the middle ones. Rows that differ little, as most do, need few bits. At most 255 rows.
void by_halves(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, Middle<std::uint16_t>& out) {
    static thread_local std::vector<std::uint8_t> memory;
    memory.resize(rows.size() * byte_part);
    std::uint8_t* bytes = memory.data();
    const hn::ScalableTag<std::uint16_t> d;
    const hn::Rebind<std::uint8_t, decltype(d)> narrow;
    const hn::RebindToSigned<decltype(d)> with_sign;
    const std::size_t lanes = hn::Lanes(d);
    const std::size_t rank = (rows.size() - 1) / 2;
    alignas(64) std::array<std::uint16_t, byte_part> floor;
    alignas(64) std::array<std::uint16_t, byte_part> ceiling;
    alignas(64) std::array<std::uint8_t, byte_part> found;
    for (std::size_t from = 0; from < count; from += byte_part) {
        const std::size_t at = begin + from;
        // Row by row, because what stands beside is fetched from memory together.
        std::copy_n(rows[0] + at, byte_part, floor.begin());
        std::copy_n(rows[0] + at, byte_part, ceiling.begin());
        for (std::size_t k = 1; k < rows.size(); ++k)
            for (std::size_t i = 0; i < byte_part; i += lanes) {
                const auto v = hn::LoadU(d, rows[k] + at + i);
                hn::Store(hn::Min(hn::Load(d, floor.data() + i), v), d, floor.data() + i);
                hn::Store(hn::Max(hn::Load(d, ceiling.data() + i), v), d, ceiling.data() + i);
            }
        unsigned widest = 0;
        for (std::size_t i = 0; i < byte_part; ++i) widest = std::max(widest, unsigned(ceiling[i] - floor[i]));
        // What lies above the floor, less its `shift` lower bits; what is more than a byte counts as the largest byte.
        const auto bytes_above_floor = [&](int shift) HWY_ATTR {
            const auto largest = hn::Set(d, std::uint16_t{255});
            for (std::size_t k = 0; k < rows.size(); ++k)
                for (std::size_t i = 0; i < byte_part; i += lanes) {
                    const auto above = hn::SaturatedSub(hn::LoadU(d, rows[k] + at + i), hn::Load(d, floor.data() + i));
                    const auto part = hn::Min(hn::ShiftRightSame(above, shift), largest);
                    hn::StoreU(hn::DemoteTo(narrow, hn::BitCast(with_sign, part)), narrow, bytes + k * byte_part + i);
                }
        };
        const auto raise_floor = [&](int shift) HWY_ATTR {
            for (std::size_t i = 0; i < byte_part; i += lanes) {
                const auto more = hn::ShiftLeftSame(hn::PromoteTo(d, hn::Load(narrow, found.data() + i)), shift);
                hn::Store(hn::Add(hn::Load(d, floor.data() + i), more), d, floor.data() + i);
            }
        };
        int bits = 0;
        while ((widest >> unsigned(bits)) != 0) ++bits;
        if (bits > 8) {
            bytes_above_floor(bits - 8);
            rank_of_bytes(bytes, rows.size(), rank, 8, found.data());
            raise_floor(bits - 8);
            bits -= 8;
        }
        // The next piece is on its way while this one is counted.
        for (const std::uint16_t* row : rows)
            for (std::size_t i = 0; i < byte_part; i += 32) hwy::Prefetch(row + at + byte_part + i);
        bytes_above_floor(0);
        rank_of_bytes(bytes, rows.size(), rank, bits, found.data());
        raise_floor(0);
        for (std::size_t i = 0; i < byte_part; i += lanes) {
            const auto low = hn::Load(d, floor.data() + i);
            hn::Store(low, d, out.low.data() + from + i);
            hn::Store(rows.size() % 2 == 0 ? next_rank<std::uint16_t>(rows, at + i, low) : low, d,
                      out.high.data() + from + i);
        }
    }
}

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
    // The rest is brought to the length of a block, so that nothing is read past a row's end.
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

void median_8(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    median_of(rows, samples, out);
}
void median_16(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    median_of(rows, samples, out);
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
HWY_EXPORT(lower_middle_8);
HWY_EXPORT(lower_middle_16);

void median(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(median_8)(rows, samples, out);
}
void median(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(median_16)(rows, samples, out);
}

void lower_middle(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_middle_8)(rows, samples, out);
}
void lower_middle(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out) {
    HWY_DYNAMIC_DISPATCH(lower_middle_16)(rows, samples, out);
}

}  // namespace bp::kernels
#endif
