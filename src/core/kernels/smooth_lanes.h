// Rows smoothed in both directions, for the kernels that begin so. Included once for every target, like lanes.h.
#if defined(BP_KERNELS_SMOOTH_LANES_H) == defined(HWY_TARGET_TOGGLE)
#ifdef BP_KERNELS_SMOOTH_LANES_H
#undef BP_KERNELS_SMOOTH_LANES_H
#else
#define BP_KERNELS_SMOOTH_LANES_H
#endif

#include <array>
#include <cstddef>
#include <cstdlib>
#include <vector>

#include "kernels/lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {

// Vectors may run over the end of a row of work by less than this.
constexpr std::size_t slack = 128;

// The one of `count` pixels that is seen at i when the picture is mirrored at its outermost pixels, as often as it
// takes.
inline int mirrored(int i, int count) {
    if (count == 1) return 0;
    const int period = 2 * (count - 1);
    i = std::abs(i) % period;
    return i < count ? i : period - i;
}

// A picture after binomial weights over 5 x 5 pixels, row by row. What lies outside is mirrored at the outermost
// pixels.
class Smoothed {
  public:
    Smoothed(const float* in, int width, int height) : in_(in), width_(width), height_(height) {
        for (std::vector<float>& down : down_) down.resize(std::size_t(width) + 2 * edge + slack);
    }

    // Row y to `out`, which has `slack` beyond the width. Rows outside are mirrored too.
    void row(int y, float* out) {
        weigh_down<1>({in_row(y - 2), in_row(y - 1), in_row(y), in_row(y + 1), in_row(y + 2)});
        weigh_across(down_[0], out);
    }
    // Rows y and y + 1: with less loading than one by one.
    void two_rows(int y, float* out, float* next) {
        weigh_down<2>({in_row(y - 2), in_row(y - 1), in_row(y), in_row(y + 1), in_row(y + 2), in_row(y + 3)});
        weigh_across(down_[0], out);
        weigh_across(down_[1], next);
    }

  private:
    static constexpr std::size_t edge = 2;

    const float* in_row(int y) const { return in_ + std::size_t(mirrored(y, height_)) * std::size_t(width_); }

    // `rows` rows after the weights down the columns, to down_, with what is mirrored at their ends.
    template <std::size_t rows>
    void weigh_down(const std::array<const float*, rows + 4>& in) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        const auto width = std::size_t(width_);
        std::size_t x = 0;
        for (; x + lanes <= width; x += lanes) {
            std::array<hn::Vec<decltype(d)>, rows + 4> v;
            for (std::size_t i = 0; i < v.size(); ++i) v[i] = hn::LoadU(d, in[i] + x);
            for (std::size_t i = 0; i < rows; ++i)
                hn::StoreU(weighed(v[i], v[i + 1], v[i + 2], v[i + 3], v[i + 4]), d, down_[i].data() + edge + x);
        }
        for (; x < width; ++x)
            for (std::size_t i = 0; i < rows; ++i)
                down_[i][edge + x] =
                    (in[i][x] + in[i + 4][x]) / 16 + (in[i + 1][x] + in[i + 3][x]) / 4 + in[i + 2][x] * (6.0F / 16);
        for (std::size_t row = 0; row < rows; ++row) {
            float* down = down_[row].data() + edge;
            for (int i = 1; i <= int(edge); ++i) {
                down[-i] = down[mirrored(-i, width_)];
                down[width_ - 1 + i] = down[mirrored(width_ - 1 + i, width_)];
            }
        }
    }

    void weigh_across(const std::vector<float>& down, float* out) const {
        const hn::ScalableTag<float> d;
        for (std::size_t x = 0; x < std::size_t(width_); x += hn::Lanes(d)) {
            const float* at = down.data() + x;
            hn::StoreU(weighed(hn::LoadU(d, at), hn::LoadU(d, at + 1), hn::LoadU(d, at + 2), hn::LoadU(d, at + 3),
                               hn::LoadU(d, at + 4)),
                       d, out + x);
        }
    }

    template <class V>
    static HWY_INLINE V weighed(V a, V b, V c, V e, V f) {
        const hn::ScalableTag<float> d;
        const auto far = hn::Mul(hn::Add(a, f), hn::Set(d, 1.0F / 16));
        const auto near = hn::MulAdd(hn::Add(b, e), hn::Set(d, 4.0F / 16), far);
        return hn::MulAdd(c, hn::Set(d, 6.0F / 16), near);
    }

    const float* in_;
    int width_;
    int height_;
    std::array<std::vector<float>, 2> down_;  // rows after the weights down the columns
};

}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#endif
