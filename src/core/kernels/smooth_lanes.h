// Rows smoothed in both directions, for the kernels that begin so. Included once for every target, like lanes.h.
#if defined(BP_KERNELS_SMOOTH_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_SMOOTH_LANES_H
#undef BP_KERNELS_SMOOTH_LANES_H
#else
#define BP_KERNELS_SMOOTH_LANES_H
#endif

#include <algorithm>
#include <cstddef>
#include <vector>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

// Vectors may run over the end of a row of work by less than this.
constexpr std::size_t slack = 128;

inline int mirrored(int i, int count) {
    if (count == 1) return 0;
    if (i < 0) i = -i;
    return i < count ? i : std::max(0, 2 * (count - 1) - i);
}

// A picture after binomial weights over 5 x 5 pixels, row by row. What lies outside is mirrored at the outermost
// pixels.
class Smoothed {
  public:
    Smoothed(const float* in, int width, int height)
        : in_(in), width_(width), height_(height), down_(std::size_t(width) + 2 * edge + slack) {}

    // Row y, or row 2 * (height - 1) - y beyond the last one, to `out`, which has `slack` beyond the width.
    void row(int y, float* out) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        const auto width = std::size_t(width_);
        y = mirrored(y, height_);
        const float* a = in_row(y - 2);
        const float* b = in_row(y - 1);
        const float* c = in_row(y);
        const float* e = in_row(y + 1);
        const float* f = in_row(y + 2);
        float* down = down_.data() + edge;
        std::size_t x = 0;
        const auto six = hn::Set(d, 6.0F / 16);
        const auto four = hn::Set(d, 4.0F / 16);
        const auto one = hn::Set(d, 1.0F / 16);
        for (; x + lanes <= width; x += lanes) {
            const auto far = hn::Mul(hn::Add(hn::LoadU(d, a + x), hn::LoadU(d, f + x)), one);
            const auto near = hn::MulAdd(hn::Add(hn::LoadU(d, b + x), hn::LoadU(d, e + x)), four, far);
            hn::StoreU(hn::MulAdd(hn::LoadU(d, c + x), six, near), d, down + x);
        }
        for (; x < width; ++x) down[x] = (a[x] + f[x]) / 16 + (b[x] + e[x]) / 4 + c[x] * (6.0F / 16);
        for (int i = 1; i <= int(edge); ++i) {
            down[-i] = down[mirrored(-i, width_)];
            down[width_ - 1 + i] = down[mirrored(width_ - 1 + i, width_)];
        }
        for (x = 0; x < width; x += lanes) {
            const float* at = down + x;
            const auto far = hn::Mul(hn::Add(hn::LoadU(d, at - 2), hn::LoadU(d, at + 2)), one);
            const auto near = hn::MulAdd(hn::Add(hn::LoadU(d, at - 1), hn::LoadU(d, at + 1)), four, far);
            hn::StoreU(hn::MulAdd(hn::LoadU(d, at), six, near), d, out + x);
        }
    }

  private:
    static constexpr std::size_t edge = 2;

    const float* in_row(int y) const { return in_ + std::size_t(mirrored(y, height_)) * std::size_t(width_); }

    const float* in_;
    int width_;
    int height_;
    std::vector<float> down_;  // a row after the weights down the columns
};

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
