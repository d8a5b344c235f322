#include "kernels/mean.h"

#include <algorithm>

#include "kernels/light_sums.h"

namespace bp::kernels {
namespace {

template <class T, class Light>
void mean_of(Rows<T> rows, std::size_t samples, const Light* light, const LightCurve& curve, std::uint16_t* out) {
    LightSums sums;
    for (std::size_t begin = 0; begin < samples; begin += sum_block) {
        const std::size_t here = std::min(sum_block, samples - begin);
        sum_light(rows, begin, here, light, sums);
        for (std::size_t i = 0; i < here; ++i) out[begin + i] = curve.sample(double(sums[i]) / double(rows.size()));
    }
}

}  // namespace

void mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, samples, light_of_8_bit(curve).data(), curve, out);
}

void mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, samples, curve.table(), curve, out);
}

}  // namespace bp::kernels
