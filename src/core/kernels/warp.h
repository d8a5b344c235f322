// Resampling of rows under a plane transform.
#pragma once

#include <cstdint>

#include "image/geometry.h"

namespace bp::kernels {

// Pixels with begin <= x < end.
struct Span {
    int begin = 0;
    int end = 0;
    bool empty() const { return end <= begin; }
    friend bool operator==(const Span&, const Span&) = default;
};

// The pixels of output row y, within `limits`, whose place in the source lies between the centres of its outermost
// pixels. `to_source` maps output to source and must be affine; a row is then covered in one piece.
Span covered_span(const Matrix& to_source, Size source, int y, Span limits);

// First and last row, or column, (both inclusive, unclamped) of the source that warp_row reads for output row y over
// `span`.
struct Reach {
    int first = 0;
    int last = 0;
};
Reach rows_reached(const Matrix& to_source, int y, Span span);
Reach columns_reached(const Matrix& to_source, int y, Span span);

// Cubic convolution with a = -1/2 (Keys, "Cubic convolution interpolation for digital image processing", 1981), in
// 32-bit float, rounded and clamped once; 8-bit samples are taken as 257 times their value. rows[k] points at column
// held.column of source row held.row + k and must hold all that rows_reached and columns_reached name after clamping
// into the picture; the source continues past its edge with its outermost samples. Writes the pixels of `span` to out,
// which points at pixel span.begin. Places are computed from x and y alone, so any division into spans and bands gives
// the same samples.
struct Corner {
    int column = 0;
    int row = 0;
};
void warp_row(const std::uint16_t* const* rows, Corner held, Size source, int channels, const Matrix& to_source, int y,
              Span span, std::uint16_t* out);
void warp_row(const std::uint8_t* const* rows, Corner held, Size source, int channels, const Matrix& to_source, int y,
              Span span, std::uint16_t* out);

}  // namespace bp::kernels
