// Values that stand far from the middle, for the clipped mean. Internal to the room.
#pragma once

#include <array>

#include "kernels/light_sums.h"

namespace bp::kernels {

// A bit for each sample of a block, from the low end of the first word on.
using StrayBits = std::array<std::uint64_t, sum_block / 64>;

// out[i] = |row[i] - middle[i]|, for count samples.
void distances(const std::uint8_t* row, const std::uint8_t* middle, std::size_t count, std::uint8_t* out);
void distances(const std::uint16_t* row, const std::uint16_t* middle, std::size_t count, std::uint16_t* out);

// Bit i is set where distance[i] > reach[i]. Both hold a whole block, of which bits beyond `count` are cleared.
void strays(const std::uint8_t* distance, const std::uint8_t* reach, std::size_t count, StrayBits& bits);
void strays(const std::uint16_t* distance, const std::uint16_t* reach, std::size_t count, StrayBits& bits);

}  // namespace bp::kernels
