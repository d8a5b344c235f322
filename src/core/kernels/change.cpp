#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/change.cpp"
#include "kernels/change.h"

#include <hwy/foreach_target.h>

#include <array>
#include <cstddef>
#include <numeric>
#include <vector>

#include "kernels/smooth_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// A row with a pixel before and one beyond it.
class EdgedRow {
  public:
    explicit EdgedRow(int width) : width_(width), of_(std::size_t(width) + 2 + slack) {}

    float* first() { return of_.data() + 1; }
    void mirror_ends() {
        first()[-1] = first()[mirrored(-1, width_)];
        first()[width_] = first()[mirrored(width_, width_)];
    }

  private:
    int width_;
    std::vector<float> of_;
};

double change(const float* in, int width, int height) {
    const hn::ScalableTag<float> d;
    const auto lanes = std::ptrdiff_t(hn::Lanes(d));
    Smoothed smoothed(in, width, height);
    std::array<EdgedRow, 3> rows{EdgedRow(width), EdgedRow(width), EdgedRow(width)};
    const auto row_at = [&](int y) { return rows[std::size_t(y + 3) % 3].first(); };
    const auto bring = [&](int y) {
        smoothed.row(y, row_at(y));
        rows[std::size_t(y + 3) % 3].mirror_ends();
    };
    bring(-1);
    bring(0);
    // Of each column, so that the order of sums is the same for all vectors.
    std::vector<float> sums(std::size_t(width) + slack);
    for (int y = 0; y < height; ++y) {
        bring(y + 1);
        const float* above = row_at(y - 1);
        const float* here = row_at(y);
        const float* below = row_at(y + 1);
        const auto sum_at = [&](std::ptrdiff_t x) {
            return hn::MulAdd(hn::LoadU(d, here + x), hn::Set(d, 2.0F),
                              hn::Add(hn::LoadU(d, above + x), hn::LoadU(d, below + x)));
        };
        const auto difference_at = [&](std::ptrdiff_t x) {
            return hn::Sub(hn::LoadU(d, below + x), hn::LoadU(d, above + x));
        };
        for (std::ptrdiff_t x = 0; x < width; x += lanes) {
            const auto right = hn::Sub(sum_at(x + 1), sum_at(x - 1));
            const auto down =
                hn::MulAdd(difference_at(x), hn::Set(d, 2.0F), hn::Add(difference_at(x - 1), difference_at(x + 1)));
            const auto sum = hn::LoadU(d, sums.data() + x);
            hn::StoreU(hn::MulAdd(right, right, hn::MulAdd(down, down, sum)), d, sums.data() + x);
        }
    }
    constexpr double sobel_weights = 8;
    return std::accumulate(sums.begin(), sums.begin() + width, 0.0) / (sobel_weights * sobel_weights);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(change);

double squared_change(const float* in, int width, int height) {
    return HWY_DYNAMIC_DISPATCH(change)(in, width, height);
}

}  // namespace bp::kernels
#endif
