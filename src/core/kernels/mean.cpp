#include "kernels/mean.h"

#include <algorithm>

#include "kernels/light_sums.h"

namespace bp::kernels {
namespace {

template <class T>
void mean_of(Rows<T> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    LightSums sums;
    for (std::size_t begin = 0; begin < samples; begin += sum_block) {
        const std::size_t here = std::min(sum_block, samples - begin);
        sum_light(rows, begin, here, curve, sums);
        samples_of(sums, here, std::uint32_t(rows.size()), curve, out + begin);
    }
}

}  // namespace

void mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, samples, curve, out);
}

void mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, samples, curve, out);
}

}  // namespace bp::kernels
