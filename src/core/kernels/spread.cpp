#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/spread.cpp"
#include "kernels/spread.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <memory>
#include <utility>
#include <vector>

#include "kernels/mean.h"
#include "kernels/median.h"
#include "kernels/network_lanes.h"
#include "kernels/strays.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// The value of `rank` (from 0) among two ascending lists, below(0) ... and above(0) ...: over all ways to take so many
// from both together, the least of what the larger of the two last ones is.
template <class V, class Below, class Above>
HWY_INLINE V ranked(std::size_t rank, std::size_t count_below, std::size_t count_above, const Below& below,
                    const Above& above) {
    const std::size_t taken = rank + 1;
    std::size_t from_below = taken > count_above ? taken - count_above : 0;
    const std::size_t most = std::min(taken, count_below);
    const auto larger = [&](std::size_t k) HWY_ATTR -> V {
        if (k == 0) return above(taken - 1);
        if (k == taken) return below(taken - 1);
        return hn::Max(below(k - 1), above(taken - k - 1));
    };
    V out = larger(from_below);
    while (++from_below <= most) out = hn::Min(out, larger(from_below));
    return out;
}

// The middle and the two middle distances of sorted values. Distances ascend both ways from the middle, so that their
// middle ones need no second sort. at(k) is the value of rank k.
template <class T, class At>
HWY_INLINE void write_spread(std::size_t n, const At& at, std::size_t to, T* middle, T* low, T* high) {
    const hn::CappedTag<T, held_part<T>> d;
    using V = hn::Vec<decltype(d)>;
    const std::size_t rank = (n - 1) / 2;
    const V from = at(rank);
    const auto below = [&](std::size_t k) HWY_ATTR { return hn::Sub(from, at(rank - k)); };
    const auto above = [&](std::size_t k) HWY_ATTR { return hn::Sub(at(rank + 1 + k), from); };
    hn::StoreU(from, d, middle + to);
    hn::StoreU(ranked<V>(rank, rank + 1, n - 1 - rank, below, above), d, low + to);
    hn::StoreU(ranked<V>(n / 2, rank + 1, n - 1 - rank, below, above), d, high + to);
}

template <class T>
void through_memory(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high) {
    HeldRows<T> held;
    const hn::CappedTag<T, held_part<T>> d;
    for (std::size_t from = 0; from < count; from += held_part<T>) {
        held.load(rows, begin + from);
        held.run(sorting_network_for(rows.size()));
        for (std::size_t i = 0; i < held_part<T>; i += hn::Lanes(d))
            write_spread(
                rows.size(), [&](std::size_t k) HWY_ATTR { return hn::Load(d, held.row(k) + i); }, from + i, middle,
                low, high);
    }
}

template <std::size_t n, class T, std::size_t... input>
HWY_INLINE void sort_in_registers(Rows<T> rows, std::size_t from, std::size_t to, T* middle, T* low, T* high,
                                  std::index_sequence<input...>) {
    const hn::CappedTag<T, held_part<T>> d;
    hn::Vec<decltype(d)> v[n] = {hn::LoadU(d, rows[input] + from)...};
    run_in_registers<sorting_network>(v);
    alignas(64) std::array<std::array<T, held_part<T>>, n> sorted;
    (hn::Store(v[input], d, sorted[input].data()), ...);
    write_spread(
        n, [&](std::size_t k) HWY_ATTR { return hn::Load(d, sorted[k].data()); }, to, middle, low, high);
}

template <std::size_t n, class T>
void in_registers(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high) {
    const std::size_t lanes = hn::Lanes(hn::CappedTag<T, held_part<T>>());
    for (std::size_t i = 0; i < count; i += lanes)
        sort_in_registers<n, T>(rows, begin + i, i, middle, low, high, std::make_index_sequence<n>());
}

template <class T, std::size_t... less>
void in_registers_of(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high,
                     std::index_sequence<less...>) {
    using Sort = void (*)(Rows<T>, std::size_t, std::size_t, T*, T*, T*);
    static constexpr std::array<Sort, sizeof...(less)> by_rows{in_registers<less + 1, T>...};
    by_rows[rows.size() - 1](rows, begin, count, middle, low, high);
}

template <class T>
void by_one_sort(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high) {
    if (rows.size() <= most_in_registers)
        in_registers_of(rows, begin, count, middle, low, high, std::make_index_sequence<most_in_registers>());
    else
        through_memory(rows, begin, count, middle, low, high);
}

void by_one_sort_8(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, std::uint8_t* middle,
                   std::uint8_t* low, std::uint8_t* high) {
    by_one_sort(rows, begin, count, middle, low, high);
}
void by_one_sort_16(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, std::uint16_t* middle,
                    std::uint16_t* low, std::uint16_t* high) {
    by_one_sort(rows, begin, count, middle, low, high);
}

// Four times the sum of both distances, no more than `most_sum`, times this over 2^16 is the reach.
constexpr unsigned most_sum = 127;
constexpr unsigned factor = 36437;
constexpr unsigned narrow_reach(unsigned sum, int step) {
    return std::min(255U, unsigned(clip_reach(int((sum * to_16(std::uint8_t{1}) + 1) / 2), step)) / 257U);
}
static_assert([] {
    for (unsigned sum = 0; sum <= 510; ++sum)
        for (const int step : {1, 257})
            if (std::min(255U, std::max(4 * std::min(sum, most_sum) * factor >> 16U, narrow_reach(0, step))) !=
                narrow_reach(sum, step))
                return false;
    return true;
}());

void reaches_8(const std::uint8_t* low, const std::uint8_t* high, int step, std::size_t count, std::uint8_t* reach) {
    std::size_t i = 0;
#if HWY_TARGET != HWY_SCALAR
    const hn::ScalableTag<std::uint16_t> d;
    const hn::Rebind<std::uint8_t, decltype(d)> narrow;
    const hn::RebindToSigned<decltype(d)> whole;
    const std::size_t lanes = hn::Lanes(d);
    const auto most = hn::Set(d, std::uint16_t(most_sum));
    const auto times = hn::Set(d, std::uint16_t(factor));
    const auto least = hn::Set(d, std::uint16_t(narrow_reach(0, step)));
    for (; i + lanes <= count; i += lanes) {
        const auto sum =
            hn::Add(hn::PromoteTo(d, hn::LoadU(narrow, low + i)), hn::PromoteTo(d, hn::LoadU(narrow, high + i)));
        const auto scaled = hn::MulHigh(hn::ShiftLeft<2>(hn::Min(sum, most)), times);
        hn::StoreU(hn::DemoteTo(narrow, hn::BitCast(whole, hn::Max(scaled, least))), narrow, reach + i);
    }
#endif
    for (; i < count; ++i) reach[i] = std::uint8_t(narrow_reach(unsigned(low[i]) + unsigned(high[i]), step));
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(by_one_sort_8);
HWY_EXPORT(by_one_sort_16);
HWY_EXPORT(reaches_8);

namespace {

void sort_once(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, std::uint8_t* middle, std::uint8_t* low,
               std::uint8_t* high) {
    HWY_DYNAMIC_DISPATCH(by_one_sort_8)(rows, begin, count, middle, low, high);
}
void sort_once(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, std::uint16_t* middle,
               std::uint16_t* low, std::uint16_t* high) {
    HWY_DYNAMIC_DISPATCH(by_one_sort_16)(rows, begin, count, middle, low, high);
}

// What does not fill a part, and more rows than a network sorts.
template <class T>
void by_two_medians(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high) {
    std::vector<const T*> pieces(rows.size());
    for (std::size_t k = 0; k < rows.size(); ++k) pieces[k] = rows[k] + begin;
    lower_middle(Rows<T>(pieces), count, middle);
    const auto apart = std::make_unique_for_overwrite<T[]>(rows.size() * count);
    for (std::size_t k = 0; k < rows.size(); ++k) {
        T* row = apart.get() + k * count;
        distances(pieces[k], middle, count, row);
        pieces[k] = row;
    }
    middles(Rows<T>(pieces), count, low, high);
}

template <class T>
void middle_and_spread_of(Rows<T> rows, std::size_t begin, std::size_t count, T* middle, T* low, T* high) {
    constexpr std::size_t part = 128 / sizeof(T);
    const std::size_t sorted = rows.size() <= Network::most_inputs ? count / part * part : 0;
    if (sorted > 0) sort_once(rows, begin, sorted, middle, low, high);
    if (sorted < count)
        by_two_medians(rows, begin + sorted, count - sorted, middle + sorted, low + sorted, high + sorted);
}

}  // namespace

void middle_and_spread(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, std::uint8_t* middle,
                       std::uint8_t* low, std::uint8_t* high) {
    middle_and_spread_of(rows, begin, count, middle, low, high);
}
void middle_and_spread(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, std::uint16_t* middle,
                       std::uint16_t* low, std::uint16_t* high) {
    middle_and_spread_of(rows, begin, count, middle, low, high);
}

void reaches(const std::uint8_t* low, const std::uint8_t* high, int step, std::size_t count, std::uint8_t* reach) {
    HWY_DYNAMIC_DISPATCH(reaches_8)(low, high, step, count, reach);
}
void reaches(const std::uint16_t* low, const std::uint16_t* high, int step, std::size_t count, std::uint16_t* reach) {
    constexpr int largest = 65535;
    for (std::size_t i = 0; i < count; ++i)
        reach[i] = std::uint16_t(std::min(largest, clip_reach((int(low[i]) + int(high[i]) + 1) / 2, step)));
}

}  // namespace bp::kernels
#endif
