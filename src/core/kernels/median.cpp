#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/median.cpp"
#include "kernels/median.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <limits>
#include <utility>
#include <vector>

#include "kernels/count_lanes.h"
#include "kernels/network_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

template <std::size_t n, class T, std::size_t... input>
HWY_INLINE void network_step(Rows<T> rows, std::size_t i, T* low, T* high, std::index_sequence<input...>) {
    const hn::ScalableTag<T> d;
    hn::Vec<decltype(d)> v[n] = {hn::LoadU(d, rows[input] + i)...};
    run_in_registers<median_network>(v);
    hn::Store(v[(n - 1) / 2], d, low);
    hn::Store(v[n / 2], d, high);
}

// `count` is a whole number of vectors.
template <std::size_t n, class T>
void in_registers(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    const std::size_t lanes = hn::Lanes(hn::ScalableTag<T>());
    for (std::size_t i = 0; i < count; i += lanes)
        network_step<n, T>(rows, begin + i, out.low.data() + i, out.high.data() + i, std::make_index_sequence<n>());
}

template <class T, std::size_t... less>
void in_registers_of(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out, std::index_sequence<less...>) {
    using Step = void (*)(Rows<T>, std::size_t, std::size_t, Middle<T>&);
    static constexpr std::array<Step, sizeof...(less)> by_rows{in_registers<less + 1, T>...};
    by_rows[rows.size() - 1](rows, begin, count, out);
}

template <class T>
void through_memory(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    HeldRows<T> held;
    for (std::size_t from = 0; from < count; from += held_part<T>) {
        held.load(rows, begin + from);
        held.run(median_network_for(rows.size()));
        std::copy_n(held.row((rows.size() - 1) / 2), held_part<T>, out.low.data() + from);
        std::copy_n(held.row(rows.size() / 2), held_part<T>, out.high.data() + from);
    }
}

template <class T>
void middle_of(Rows<T> rows, std::size_t begin, std::size_t count, Middle<T>& out) {
    if (rows.size() <= most_in_registers)
        in_registers_of(rows, begin, count, out, std::make_index_sequence<most_in_registers>());
    else if (rows.size() <= Network::most_inputs)
        through_memory(rows, begin, count, out);
    else if (sizeof(T) == 1 && rows.size() <= most_counted<std::uint8_t>)
        by_counting<T>(rows, begin, count, out);
    else if (rows.size() > std::numeric_limits<std::uint8_t>::max())
        by_counting<std::uint16_t>(rows, begin, count, out);
    else if constexpr (sizeof(T) == 2)
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
