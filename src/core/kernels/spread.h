// The middle of values and how far they lie from it, for the clipped mean. Internal to the room.
#pragma once

#include <cstddef>
#include <cstdint>

#include "kernels/rows.h"

namespace bp::kernels {

// middle[i] = the lower of the two middle values of the rows at `begin + i`, low[i] and high[i] = the two middle ones
// of all values' distances from it, for count samples.
void middle_and_spread(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, std::uint8_t* middle,
                       std::uint8_t* low, std::uint8_t* high);
void middle_and_spread(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, std::uint16_t* middle,
                       std::uint16_t* low, std::uint16_t* high);

// reach[i] = clip_reach(the median of low[i] and high[i], step) in the values' own bits: how far from the middle they
// count.
void reaches(const std::uint8_t* low, const std::uint8_t* high, int step, std::size_t count, std::uint8_t* reach);
void reaches(const std::uint16_t* low, const std::uint16_t* high, int step, std::size_t count, std::uint16_t* reach);

}  // namespace bp::kernels
