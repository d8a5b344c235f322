#include <algorithm>
#include <array>

#include "kernels/close_means.h"
#include "kernels/mean.h"
#include "kernels/spread.h"
#include "kernels/strays.h"

namespace bp::kernels {
namespace {

// close(begin, count, middle, reach) is true when it has told the means of a block.
template <class T, class Light, class Close>
void clipped_mean_of(Rows<T> rows, std::size_t samples, const Light* light, const LightCurve& curve, int step,
                     std::uint16_t* out, const Close& close) {
    LightSums sums;
    std::array<T, sum_block> middle{}, low{}, high{}, reach{}, apart{};
    std::array<std::uint32_t, sum_block> voters{};
    for (std::size_t begin = 0, here = 0; begin < samples; begin += here) {
        here = next_step(samples - begin);
        middle_and_spread(rows, begin, here, middle.data(), low.data(), high.data());
        reaches(low.data(), high.data(), step, here, reach.data());
        if (close(begin, here, middle.data(), reach.data())) continue;
        sum_light(rows, begin, here, curve, sums);
        voters.fill(std::uint32_t(rows.size()));
        for (const T* row : rows) {
            kernels::distances(row + begin, middle.data(), here, apart.data());
            take_back_strays(row + begin, apart.data(), reach.data(), here, light, sums, voters);
        }
        samples_of(sums, here, voters, curve, out + begin);
    }
}

}  // namespace

void clipped_mean(Rows<std::uint8_t> rows, std::size_t samples, const LightCurve& curve, int step, std::uint16_t* out) {
    CloseMeans close(rows, curve);
    clipped_mean_of(rows, samples, curve.table_of_8_bit(), curve, step, out,
                    [&](std::size_t begin, std::size_t count, const std::uint8_t* middle, const std::uint8_t* reach) {
                        return close.within(begin, count, middle, reach, out + begin);
                    });
}

void clipped_mean(Rows<std::uint16_t> rows, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out) {
    clipped_mean_of(rows, samples, curve.table(), curve, step, out, [](auto...) { return false; });
}

}  // namespace bp::kernels
