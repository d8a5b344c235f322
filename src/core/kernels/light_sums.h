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
using LightSums = std::array<std::uint64_t, sum_block>;

// light[v] for the values that rows have. Those of 8 bits as wide as the sums, so that adding one is one step.
using LightOf8Bit = std::array<std::uint64_t, 256>;
inline LightOf8Bit light_of_8_bit(const LightCurve& curve) {
    LightOf8Bit out{};
    for (std::size_t v = 0; v < out.size(); ++v) out[v] = curve.light(to_16(std::uint8_t(v)));
    return out;
}

// sums[i] = light of all rows at begin + i, for count <= sum_block samples.
void sum_light(Rows<std::uint8_t> rows, std::size_t begin, std::size_t count, const std::uint64_t* light,
               LightSums& sums);
void sum_light(Rows<std::uint16_t> rows, std::size_t begin, std::size_t count, const std::uint32_t* light,
               LightSums& sums);

}  // namespace bp::kernels
