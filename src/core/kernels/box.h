// Making pictures smaller by whole numbers.
#pragma once

#include <cstdint>
#include <span>

namespace bp::kernels {

// Means over boxes of unit x unit samples of a channel, rounded to the nearest, in 16 bits; 8-bit samples are taken as
// 257 times their value. `rows` are the box's rows: fewer than `unit` at the lower edge; the last box of a row may be
// narrower. `width` pixels come in, (width + unit - 1) / unit go out. Pure; any thread.
void box_row(std::span<const std::uint8_t* const> rows, int width, int channels, int unit, std::uint16_t* out);
void box_row(std::span<const std::uint16_t* const> rows, int width, int channels, int unit, std::uint16_t* out);

}  // namespace bp::kernels
