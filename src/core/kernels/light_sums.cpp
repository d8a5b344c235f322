// Looking light up in a table is bound by loads: plain code, eight rows at a time so that a sum is loaded and stored
// once for eight. Measured, it is faster than the gathers of vector code and than what a compiler makes of it by
// itself, which is therefore told not to (src/core/CMakeLists.txt). Rows of 8 bits are looked up by twos, which takes
// little more than half the loads: the table of all pairs is large, but neighbouring samples use few of its lines.
#include "kernels/light_sums.h"

#include <algorithm>
#include <bit>
#include <cstring>

namespace bp::kernels {
namespace {

template <class T, class Light>
using Add = void (*)(const T* const* rows, std::size_t begin, std::size_t count, const Light* light, LightSums& sums);

template <std::size_t together, class T, class Light>
void add_rows(const T* const* rows, std::size_t begin, std::size_t count, const Light* light, LightSums& sums) {
    std::array<const T*, together> at;
    for (std::size_t j = 0; j < together; ++j) at[j] = rows[j] + begin;
    for (std::size_t i = 0; i < count; ++i) {
        std::uint64_t here = sums[i];
        for (const T* row : at) here += light[row[i]];
        sums[i] = here;
    }
}

// Up to seven rows, at one go.
template <class T, class Light>
void add_rest(Rows<T> rows, std::size_t begin, std::size_t count, const Light* light, LightSums& sums) {
    static constexpr std::array<Add<T, Light>, 7> by_rows{
        add_rows<1, T, Light>, add_rows<2, T, Light>, add_rows<3, T, Light>, add_rows<4, T, Light>,
        add_rows<5, T, Light>, add_rows<6, T, Light>, add_rows<7, T, Light>};
    if (!rows.empty()) by_rows[rows.size() - 1](rows.data(), begin, count, light, sums);
}

constexpr std::size_t together = 8;
constexpr std::size_t in_word = sizeof(std::uint64_t) / sizeof(std::uint16_t);
static_assert(sum_block % in_word == 0);

// Twice `pairs` rows of 8 bits.
template <std::size_t pairs>
void add_pairs(const std::uint8_t* const* rows, std::size_t begin, std::size_t count, const std::uint64_t* light,
               LightSums& sums) {
    std::array<std::array<std::uint16_t, sum_block>, pairs> paired;
    for (std::size_t p = 0; p < pairs; ++p)
        pair_up(rows[2 * p] + begin, rows[2 * p + 1] + begin, count, paired[p].data());
    // Past `count` the last word would read pairs of earlier blocks.
    for (auto& pair : paired) std::fill(pair.begin() + std::ptrdiff_t(count), pair.end(), std::uint16_t{0});
    for (std::size_t i = 0; i < count; i += in_word) {
        std::array<std::uint64_t, pairs> words;
        for (std::size_t p = 0; p < pairs; ++p) std::memcpy(&words[p], &paired[p][i], sizeof words[p]);
        for (std::size_t j = 0; j < in_word; ++j) {
            std::uint64_t here = sums[i + j];
            for (std::uint64_t& word : words) {
                here += light[word & 0xFFFF];
                word >>= 16;
            }
            sums[i + j] = here;
        }
    }
}

}  // namespace

void sum_light(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve,
               LightSums& sums) {
    static_assert(std::endian::native == std::endian::little, "four pairs are taken out of a word from its low end");
    sums.fill(0);
    const std::uint64_t* light = curve.table_of_pairs();
    std::size_t k = 0;
    for (; k + together <= rows.size(); k += together) add_pairs<4>(rows.data() + k, begin, count, light, sums);
    const std::size_t rest = rows.size() - k;
    if (rest >= 6)
        add_pairs<3>(rows.data() + k, begin, count, light, sums);
    else if (rest >= 4)
        add_pairs<2>(rows.data() + k, begin, count, light, sums);
    else if (rest >= 2)
        add_pairs<1>(rows.data() + k, begin, count, light, sums);
    k += rest / 2 * 2;
    add_rest(rows.subspan(k), begin, count, curve.table_of_8_bit(), sums);
}

void sum_light(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve,
               LightSums& sums) {
    sums.fill(0);
    const std::uint32_t* light = curve.table();
    std::size_t k = 0;
    for (; k + together <= rows.size(); k += together) add_rows<together>(rows.data() + k, begin, count, light, sums);
    add_rest(rows.subspan(k), begin, count, light, sums);
}

void segments_of(const float* light, std::size_t count, const LightCurve& curve, LightCurve::Segment* out) {
    const LightCurve::Segment* segments = curve.segments();
    for (std::size_t i = 0; i < count; ++i) {
        const std::int32_t k =
            (std::bit_cast<std::int32_t>(light[i]) >> LightCurve::segment_shift) - LightCurve::first_segment;
        out[i] = segments[std::max(k, -1)];
    }
}

}  // namespace bp::kernels
