// Resampling of rows.
#pragma once

#include <array>
#include <cstdint>

#include "kernels/source_map.h"

namespace bp::kernels {

// A windowed sinc over six samples (Lanczos, 3 lobes; Duchon, "Lanczos filtering in one and two dimensions", 1979)
// whose weights are set right for constants and ramps: it keeps what cubics soften. Weights of the samples at -2 to 3
// for a place `part` (0 to 1) after sample 0; at 0 and 1 they are one sample alone.
std::array<float, 6> lanczos_weights(float part);

struct Corner {
    int column = 0;
    int row = 0;
};

// The pixels of `span` in the row where `places` stands, in 32-bit float, rounded and clamped once; 8-bit samples are
// taken as 257 times their value. rows[k] points at column held.column of source row held.row + k and must hold all
// that places.rows() and columns() name, after clamping into the picture: the source continues past its edge with its
// outermost samples. Writes to out, which points at pixel span.begin. Any division into spans and bands gives the same
// samples.
void warp_row(const std::uint16_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
              std::uint16_t* out);
void warp_row(const std::uint8_t* const* rows, Corner held, int channels, const RowPlaces& places, Span span,
              std::uint16_t* out);

}  // namespace bp::kernels
