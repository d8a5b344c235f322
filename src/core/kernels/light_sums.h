// Sums of light over rows, for the means. Internal to the room.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>

#include "image/profile.h"
#include "kernels/rows.h"

namespace bp::kernels {

// Samples that a step works on.
constexpr std::size_t sum_block = 512;
// How many of the samples that are left a step takes: the last two share what is left, because medians of few samples
// cost as much as of many.
constexpr std::size_t next_step(std::size_t left) {
    constexpr std::size_t unit = 128;
    if (left <= sum_block) return left;
    return left >= 2 * sum_block ? sum_block : (left / 2 + unit - 1) / unit * unit;
}
using LightSums = std::array<std::uint64_t, sum_block>;

// sums[i] = light of all rows at begin + i, for count <= sum_block samples.
void sum_light(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve, LightSums& sums);
void sum_light(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, const LightCurve& curve,
               LightSums& sums);

// out[i] = curve.sample(sums[i] / rows), or sums[i] / voters[i], for count <= sum_block samples; 1 to 65535 rows or
// voters.
void samples_of(const LightSums& sums, std::size_t count, std::uint32_t rows, const LightCurve& curve,
                std::uint16_t* out);
void samples_of(const LightSums& sums, std::size_t count, const std::array<std::uint32_t, sum_block>& voters,
                const LightCurve& curve, std::uint16_t* out);

// The segments of the curve that hold so much light; where it tells none, zeros.
void segments_of(const float* light, std::size_t count, const LightCurve& curve, LightCurve::Segment* out);

// out[i] = a[i] + 256 b[i]
void pair_up(const std::uint8_t* a, const std::uint8_t* b, std::size_t count, std::uint16_t* out);

}  // namespace bp::kernels
