// Per-sample means of rows, in light.
//
// Light is summed in integers and rounded once, so neither order nor grouping of the rows changes a bit. 8-bit rows: of
// the values widened to 16 bits. `out` must not overlap a row. Pure; any thread.
#pragma once

#include <cstddef>
#include <cstdint>

#include "image/profile.h"
#include "kernels/rows.h"

namespace bp::kernels {

// out[i] = the sample nearest to the mean light of rows[0][i] .. rows[n-1][i]; n >= 1.
void mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out);
void mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out);

// The same without what stands apart: a value counts when it lies within `clip_reach` of the rows' median (of an even
// number the lower of the two middle values), both as they stand. 1 <= n <= 65535. `step` is the distance between
// neighbouring values of the frames, 257 when one has 8 bits.
void clipped_mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, int step, std::uint16_t* out);
void clipped_mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, int step, std::uint16_t* out);

// Three standard deviations, taken from the median of the distances to the median (times 1.4826 for a normal
// distribution; Hampel, "The influence curve and its role in robust estimation", 1974), and never less than one and a
// half steps, so that values which differ by rounding alone all count.
constexpr int clip_reach(int median_distance, int step) {
    const int three_deviations = int((std::int64_t(median_distance) * 44478 + 5000) / 10000);
    const int rounding = (3 * step + 1) / 2;
    return three_deviations > rounding ? three_deviations : rounding;
}

}  // namespace bp::kernels
