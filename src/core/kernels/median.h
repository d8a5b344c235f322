// Per-sample median of rows.
#pragma once

#include <cstddef>
#include <cstdint>
#include <span>

namespace bp::kernels {

// out[i] = median of rows[0][i] .. rows[n-1][i]; n >= 1. Of an even number it is the mean of the two middle values,
// a half rounded up. `out` must not overlap a row.
//
// Up to 64 rows: Batcher's odd-even merge sort (Knuth, The Art of Computer Programming 3, 5.2.2, algorithm M) as a
// network over blocks of samples, with the comparators that the middle does not depend on left out. Beyond: selection.
void median(std::span<const std::uint16_t* const> rows, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
