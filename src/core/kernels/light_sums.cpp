// Looking light up in a table is bound by loads: plain code, eight rows at a time so that a sum is loaded and stored
// once for eight. Measured, it is faster than the gathers of vector code and than what a compiler makes of it by
// itself, which is therefore told not to (src/core/CMakeLists.txt). Rows of 8 bits are looked up by twos, which takes
// little more than half the loads: the table of all pairs is large, but neighbouring samples use few of its lines.
#include "kernels/light_sums.h"

#include <bit>
#include <cstring>

namespace bp::kernels {
namespace {

constexpr std::size_t together = 8;

template <class T, class Light>
void add_rest(Rows<T> rows, std::size_t first, std::size_t begin, std::size_t count, const Light* light,
              LightSums& sums) {
    for (std::size_t k = first; k < rows.size(); ++k)
        for (std::size_t i = 0; i < count; ++i) sums[i] += light[rows[k][begin + i]];
}

}  // namespace

void sum_light(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve,
               LightSums& sums) {
    static_assert(std::endian::native == std::endian::little, "four pairs are taken out of a word from its low end");
    constexpr std::size_t pairs = together / 2;
    constexpr std::size_t in_word = sizeof(std::uint64_t) / sizeof(std::uint16_t);
    static_assert(sum_block % in_word == 0);
    sums.fill(0);
    std::array<std::array<std::uint16_t, sum_block>, pairs> paired{};
    const std::uint64_t* light = curve.table_of_pairs();
    std::size_t k = 0;
    for (; k + together <= rows.size(); k += together) {
        for (std::size_t p = 0; p < pairs; ++p)
            pair_up(rows[k + 2 * p] + begin, rows[k + 2 * p + 1] + begin, count, paired[p].data());
        // Past `count` this reads pairs of earlier blocks and adds to sums that nobody reads.
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
    add_rest(rows, k, begin, count, curve.table_of_8_bit(), sums);
}

void sum_light(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve,
               LightSums& sums) {
    sums.fill(0);
    const std::uint32_t* light = curve.table();
    std::size_t k = 0;
    for (; k + together <= rows.size(); k += together) {
        std::array<const std::uint16_t*, together> at;
        for (std::size_t j = 0; j < together; ++j) at[j] = rows[k + j] + begin;
        for (std::size_t i = 0; i < count; ++i) {
            std::uint64_t here = sums[i];
            for (const std::uint16_t* row : at) here += light[row[i]];
            sums[i] = here;
        }
    }
    add_rest(rows, k, begin, count, light, sums);
}

}  // namespace bp::kernels
