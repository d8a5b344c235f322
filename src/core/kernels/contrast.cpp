#include "kernels/contrast.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/contrast.cpp"
#include <hwy/foreach_target.h>
// after foreach_target.h
#include <hwy/highway.h>

#include <algorithm>
#include <cstddef>
#include <vector>

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

namespace hn = hwy::HWY_NAMESPACE;

constexpr int reach = 15;
constexpr int window = 2 * reach + 1;
// Vectors may run over the end of a row of work by less than this.
constexpr std::size_t slack = 64;

int mirrored(int i, int count) {
    if (count == 1) return 0;
    if (i < 0) i = -i;
    return i < count ? i : std::max(0, 2 * (count - 1) - i);
}

class Contrast {
  public:
    Contrast(const float* in, int width, int height, float faint)
        : in_(in),
          width_(width),
          height_(height),
          faint_(faint),
          down_(std::size_t(width) + 2 * edge + slack),
          smooth_(window + 1, std::vector<float>(std::size_t(width) + slack)),
          sums_(std::size_t(width) + slack),
          squares_(std::size_t(width) + slack),
          columns_(std::size_t(width) + 2 * reach + slack),
          twos_(columns_.size()),
          fours_(columns_.size()),
          eights_(columns_.size()),
          sixteens_(columns_.size()),
          means_(std::size_t(width) + slack),
          square_means_(std::size_t(width) + slack),
          share_(std::size_t(width) + slack),
          row_(std::size_t(width) + slack) {
        for (int x = 0; x < width; ++x)
            share_[std::size_t(x)] = 1.0F / float(std::min(width - 1, x + reach) - std::max(0, x - reach) + 1);
    }

    void run(float* out) {
        for (int y = 0; y < height_ + reach; ++y) {
            if (y < height_) {
                smooth(y);
                count<true>(smooth_row(y));
            }
            if (y >= window) count<false>(smooth_row(y - window));
            if (y >= reach) finish(y - reach, out + std::size_t(y - reach) * std::size_t(width_));
        }
    }

  private:
    static constexpr std::size_t edge = 2;

    std::vector<float>& smooth_row(int y) { return smooth_[std::size_t(y % (window + 1))]; }
    const float* in_row(int y) const { return in_ + std::size_t(mirrored(y, height_)) * std::size_t(width_); }

    void smooth(int y) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        const auto width = std::size_t(width_);
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
        float* out = smooth_row(y).data();
        for (x = 0; x < width; x += lanes) {
            const float* at = down + x;
            const auto far = hn::Mul(hn::Add(hn::LoadU(d, at - 2), hn::LoadU(d, at + 2)), one);
            const auto near = hn::MulAdd(hn::Add(hn::LoadU(d, at - 1), hn::LoadU(d, at + 1)), four, far);
            hn::StoreU(hn::MulAdd(hn::LoadU(d, at), six, near), d, out + x);
        }
    }

    // Sums down the columns, in double precision: what is added is taken away again without a rest.
    template <bool in>
    void count(const std::vector<float>& row) {
        const hn::ScalableTag<double> d;
        const hn::Rebind<float, decltype(d)> narrow;
        for (std::size_t x = 0; x < std::size_t(width_); x += hn::Lanes(d)) {
            const auto v = hn::PromoteTo(d, hn::LoadU(narrow, row.data() + x));
            const auto sum = hn::LoadU(d, sums_.data() + x);
            const auto square = hn::LoadU(d, squares_.data() + x);
            hn::StoreU(in ? hn::Add(sum, v) : hn::Sub(sum, v), d, sums_.data() + x);
            hn::StoreU(in ? hn::MulAdd(v, v, square) : hn::NegMulAdd(v, v, square), d, squares_.data() + x);
        }
    }

    // Means of `window` columns each: from sums of 2, 4, 8 and 16 of them.
    void across(const std::vector<double>& sums, float rows, float* out) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        {
            const hn::ScalableTag<double> wide;
            const hn::Rebind<float, decltype(wide)> narrow;
            for (std::size_t x = 0; x < std::size_t(width_); x += hn::Lanes(wide))
                hn::StoreU(hn::DemoteTo(narrow, hn::LoadU(wide, sums.data() + x)), narrow, columns_.data() + reach + x);
            std::fill_n(columns_.begin() + reach + width_, reach + 1, 0.0F);
        }
        const std::size_t padded = std::size_t(width_) + 2 * reach;
        const auto add = [&](const std::vector<float>& from, std::size_t apart, std::vector<float>& to) {
            for (std::size_t x = 0; x < padded - apart; x += lanes)
                hn::StoreU(hn::Add(hn::LoadU(d, from.data() + x), hn::LoadU(d, from.data() + x + apart)), d,
                           to.data() + x);
        };
        add(columns_, 1, twos_);
        add(twos_, 2, fours_);
        add(fours_, 4, eights_);
        add(eights_, 8, sixteens_);
        const auto share = hn::Set(d, 1 / rows);
        for (std::size_t x = 0; x < std::size_t(width_); x += lanes) {
            const auto most = hn::Add(hn::LoadU(d, sixteens_.data() + x), hn::LoadU(d, eights_.data() + x + 16));
            const auto rest = hn::Add(hn::LoadU(d, fours_.data() + x + 24), hn::LoadU(d, twos_.data() + x + 28));
            const auto sum = hn::Add(hn::Add(most, rest), hn::LoadU(d, columns_.data() + x + 30));
            hn::StoreU(hn::Mul(hn::Mul(sum, share), hn::LoadU(d, share_.data() + x)), d, out + x);
        }
    }

    void finish(int y, float* out) {
        const auto rows = float(std::min(height_ - 1, y + reach) - std::max(0, y - reach) + 1);
        across(sums_, rows, means_.data());
        across(squares_, rows, square_means_.data());
        const hn::ScalableTag<float> d;
        const auto least = hn::Set(d, faint_ * faint_);
        const float* smooth = smooth_row(y).data();
        for (std::size_t x = 0; x < std::size_t(width_); x += hn::Lanes(d)) {
            const auto mean = hn::LoadU(d, means_.data() + x);
            const auto variance = hn::NegMulAdd(mean, mean, hn::LoadU(d, square_means_.data() + x));
            const auto spread = hn::Sqrt(hn::Add(hn::Max(variance, hn::Zero(d)), least));
            hn::StoreU(hn::Div(hn::Sub(hn::LoadU(d, smooth + x), mean), spread), d, row_.data() + x);
        }
        std::copy_n(row_.begin(), width_, out);
    }

    const float* in_;
    int width_;
    int height_;
    float faint_;
    std::vector<float> down_;                 // a row after the weights down the columns
    std::vector<std::vector<float>> smooth_;  // the rows of the window, and the one that left it last
    std::vector<double> sums_, squares_;      // down the columns of the window
    std::vector<float> columns_, twos_, fours_, eights_, sixteens_;
    std::vector<float> means_, square_means_;
    std::vector<float> share_;  // of one column among those that the window reaches
    std::vector<float> row_;
};

void contrast(const float* in, int width, int height, float faint, float* out) {
    Contrast(in, width, height, faint).run(out);
}

}  // namespace
}  // namespace bp::kernels::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace bp::kernels {

HWY_EXPORT(contrast);

void local_contrast(const float* in, int width, int height, float faint, float* out) {
    HWY_DYNAMIC_DISPATCH(contrast)(in, width, height, faint, out);
}

}  // namespace bp::kernels
#endif
