// Per-sample maximum and minimum of rows.
//
// All functions: rows are `samples` long, any 16-bit values; `out` may be one of the rows' own memory only where said.
#pragma once

#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// out[i] = max(out[i], row[i])
void raise_to(const std::uint16_t* row, std::size_t samples, std::uint16_t* out);
// out[i] = min(out[i], row[i])
void lower_to(const std::uint16_t* row, std::size_t samples, std::uint16_t* out);
// out[i] = max(out[i], table[row[i]]); `table` has 65536 entries
void raise_to_mapped(const std::uint16_t* row, const std::uint16_t* table, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
