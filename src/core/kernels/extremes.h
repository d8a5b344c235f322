// Per-sample maximum and minimum of rows.
//
// All functions: rows are `samples` long and hold any values; `out` must not overlap a row unless said. Vector code for
// what the machine has, chosen at run time (Highway); every choice gives the same samples. Pure; any thread.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "kernels/rows.h"

namespace bp::kernels {

// out[i] = max over k of rows[k][i], and min; at least one row. 8-bit results widen to 16 bits: v becomes 257 v.
void maximum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);
void maximum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out);

// A table with an entry for every sample that a row can have, 65536 or 256, none larger than its sample as 16 bits.
struct Mapping {
    explicit Mapping(const std::vector<std::uint16_t>& table);
    const std::uint16_t* table;  // not owned
    std::uint16_t slope;         // table[v] <= v * slope / 65536 + 1, rounded down, of v as 16 bits
};
// out[i] = max(out[i], table[row[i]]). Samples that by the table's slope stay below are not looked up.
void raise_to_mapped(const std::uint16_t* row, const Mapping& mapping, std::size_t samples, std::uint16_t* out);
void raise_to_mapped(const std::uint8_t* row, const Mapping& mapping, std::size_t samples, std::uint16_t* out);

// out[i] = row[i] as 16 bits
void widen(const std::uint16_t* row, std::size_t samples, std::uint16_t* out);
void widen(const std::uint8_t* row, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
