// Values that stand far from the middle, for the clipped mean. Internal to the room.
#pragma once

#include <array>
#include <bit>

#include "kernels/level.h"
#include "kernels/light_sums.h"

namespace bp::kernels {

// A bit for each sample of a block, from the low end of the first word on.
using StrayBits = std::array<std::uint64_t, sum_block / 64>;

// Bit i is set where distance[i] > reach[i]. Both hold a whole block, of which bits beyond `count` are cleared.
void strays(const std::uint8_t* distance, const std::uint8_t* reach, std::size_t count, StrayBits& bits);
void strays(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count, StrayBits& bits);

// Values that stand apart are few: all are in the sums, and those are taken back, from the voters, too.
template <class T, class Light>
void take_back_strays(const T* row, const T* distance, const T* reach, std::size_t count, const Light* light,
                      LightSums& sums, std::array<std::uint32_t, sum_block>& voters) {
    StrayBits bits;
    strays(distance, reach, count, bits);
    for (std::size_t word = 0; word < bits.size(); ++word)
        for (std::uint64_t left = bits[word]; left != 0; left &= left - 1) {
            const std::size_t i = word * 64 + std::size_t(std::countr_zero(left));
            sums[i] -= light[row[i]];
            --voters[i];
        }
}

}  // namespace bp::kernels
