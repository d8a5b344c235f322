// Per-sample median of rows.
#pragma once

#include <cstddef>

#include "kernels/rows.h"

namespace bp::kernels {

// out[i] = median of rows[0][i] .. rows[n-1][i]; 1 <= n <= 65535. Of an even number it is the mean of the two middle
// values, a half rounded up. 8-bit rows: of the values widened to 16 bits. `out` must not overlap a row. Vector code
// for what the machine has, chosen at run time (Highway); every choice gives the same samples. Pure; any thread.
//
// Up to 64 rows: Batcher's odd-even merge sort (Knuth, The Art of Computer Programming 3, 5.2.2, algorithm M) as a
// network with the comparators that the middle does not depend on left out. Beyond: the middle value is built bit by
// bit from the top, by counting how many rows lie below.
void median(Rows<std::uint8_t> rows, std::size_t samples, std::uint16_t* out);
void median(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);

// Both middle values, in the rows' own bits; of an odd number they are one.
void middles(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* low, std::uint8_t* high);
void middles(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* low, std::uint16_t* high);

// The lower of them alone.
void lower_middle(Rows<std::uint8_t> rows, std::size_t samples, std::uint8_t* out);
void lower_middle(Rows<std::uint16_t> rows, std::size_t samples, std::uint16_t* out);

}  // namespace bp::kernels
