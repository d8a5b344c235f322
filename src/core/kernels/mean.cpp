#include "kernels/mean.h"

#include <algorithm>

#include "kernels/close_means.h"
#include "kernels/light_sums.h"

namespace bp::kernels {
namespace {

// close(begin, count) is true when it has told the means of a block.
template <class T, class Close>
void mean_of(Rows<T> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out, const Close& close) {
    LightSums sums;
    for (std::size_t begin = 0, here = 0; begin < samples; begin += here) {
        here = next_step(samples - begin);
        if (close(begin, here)) continue;
        sum_light(rows, begin, here, curve, sums);
        samples_of(sums, here, std::uint32_t(rows.size()), curve, out + begin);
    }
}

}  // namespace

void mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    CloseMeans close(rows, curve);
    mean_of(rows, samples, curve, out,
            [&](std::size_t begin, std::size_t count) { return close.all(begin, count, out + begin); });
}

void mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out) {
    mean_of(rows, samples, curve, out, [](std::size_t, std::size_t) { return false; });
}

}  // namespace bp::kernels
