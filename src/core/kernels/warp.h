// Resampling of rows.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>

#include "kernels/source_map.h"

namespace bp::kernels {

// A windowed sinc over six samples (Lanczos, 3 lobes; Duchon, "Lanczos filtering in one and two dimensions", 1979)
// whose weights are set right for constants and ramps: it keeps what cubics soften. Weights of the samples at -2 to 3
// for a place `part` (0 to 1) after sample 0; at 0 and 1 they are one sample alone.
std::array<float, 6> lanczos_weights(float part);

// Source rows at hand: rows[k] points at column area.left of source row area.top + k.
template <class T>
struct RowsAtHand {
    const T* const* rows = nullptr;
    Rect area;
};

// Where canvas rows go: `samples` points at canvas column `left` of the first, the others follow `stride` samples
// apart.
struct WarpTarget {
    std::uint16_t* samples = nullptr;
    std::size_t stride = 0;
    int left = 0;
};

// Makes canvas rows y, y + 1, ..., of each the pixels that `spans` names, in 32-bit float, rounded and clamped once;
// 8-bit samples are taken as 257 times their value. `source` must hold all that places.rows() and columns() name of
// these spans, after clamping into the picture: the source continues past its edge with its outermost samples. Any
// division into bands, spans and areas gives the same samples. Moves `places`.
void warp_rows(const RowsAtHand<std::uint16_t>& source, int channels, RowPlaces& places, int y,
               std::span<const Span> spans, const WarpTarget& out);
void warp_rows(const RowsAtHand<std::uint8_t>& source, int channels, RowPlaces& places, int y,
               std::span<const Span> spans, const WarpTarget& out);

// The same pixels made no brighter than the brightest of the four samples by four around their places: where a light is
// sharp, the sinc overshoots. The source and what it must hold are as above. Moves `places`.
void hold_to_source(const RowsAtHand<std::uint16_t>& source, int channels, RowPlaces& places, int y,
                    std::span<const Span> spans, const WarpTarget& out);
void hold_to_source(const RowsAtHand<std::uint8_t>& source, int channels, RowPlaces& places, int y,
                    std::span<const Span> spans, const WarpTarget& out);

}  // namespace bp::kernels
