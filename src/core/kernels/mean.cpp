#include "kernels/mean.h"

#include <algorithm>
#include <array>

namespace bp::kernels {

void mean(std::span<const std::uint16_t* const> rows, std::size_t samples, const LightCurve& curve,
          std::uint16_t* out) {
    constexpr std::size_t block = 512;
    const std::uint32_t* light = curve.table();
    const double count = double(rows.size());
    std::array<std::uint64_t, block> sums{};
    for (std::size_t begin = 0; begin < samples; begin += block) {
        const std::size_t here = std::min(block, samples - begin);
        sums.fill(0);
        for (const std::uint16_t* row : rows)
            for (std::size_t i = 0; i < here; ++i) sums[i] += light[row[begin + i]];
        for (std::size_t i = 0; i < here; ++i) out[begin + i] = curve.sample(double(sums[i]) / count);
    }
}

}  // namespace bp::kernels
