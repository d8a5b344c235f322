// Per-sample maximum and minimum of rows.
//
// All functions: rows are `samples` long and hold any values; `out` must not overlap a row unless said. Vector code for
// what the machine has, chosen at run time (Highway); every choice gives the same samples. Pure; any thread.
#pragma once

#include <cstddef>
#include <cstdint>

#include "kernels/rows.h"

namespace bp::kernels {

// out[i] = max over k of rows[k][i], and min; at least one row. 8-bit results widen to 16 bits: v becomes 257 v.
void maximum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);
void maximum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out);

// out[i] = max(out[i], table[row[i]]); `table` has an entry for every sample that a row can have, 65536 or 256
void raise_to_mapped(const std::uint16_t* row, const std::uint16_t* table, std::size_t samples, std::uint16_t* out);
void raise_to_mapped(const std::uint8_t* row, const std::uint16_t* table, std::size_t samples, std::uint16_t* out);

// out[i] = row[i] as 16 bits
void widen(const std::uint16_t* row, std::size_t samples, std::uint16_t* out);
void widen(const std::uint8_t* row, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
