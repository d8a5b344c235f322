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

// light[v] for the values that 8-bit rows have.
inline std::array<std::uint32_t, 256> light_of_8_bit(const LightCurve& curve) {
    std::array<std::uint32_t, 256> out{};
    for (std::size_t v = 0; v < out.size(); ++v) out[v] = curve.light(to_16(std::uint8_t(v)));
    return out;
}

// sums[i] = light of all rows at begin + i, for count <= sum_block samples.
//
// Looking light up in a table is bound by loads: plain code, four rows at a time so that a sum is loaded and stored
// once for four. Measured, it is faster than the gathers of vector code.
template <class T>
void sum_light(Rows<T> rows, std::size_t begin, std::size_t count, const std::uint32_t* light, LightSums& sums) {
    sums.fill(0);
    std::size_t k = 0;
    for (; k + 4 <= rows.size(); k += 4) {
        const T* a = rows[k] + begin;
        const T* b = rows[k + 1] + begin;
        const T* c = rows[k + 2] + begin;
        const T* d = rows[k + 3] + begin;
        for (std::size_t i = 0; i < count; ++i)
            sums[i] += (std::uint64_t(light[a[i]]) + light[b[i]]) + (std::uint64_t(light[c[i]]) + light[d[i]]);
    }
    for (; k < rows.size(); ++k)
        for (std::size_t i = 0; i < count; ++i) sums[i] += light[rows[k][begin + i]];
}

}  // namespace bp::kernels
