#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "kernels/contrast.cpp"
#include "kernels/contrast.h"

#include <hwy/foreach_target.h>

#include <algorithm>
#include <array>
#include <cstddef>
#include <utility>
#include <vector>

#include "kernels/smooth_lanes.h"

HWY_BEFORE_NAMESPACE();
namespace bp::kernels::HWY_NAMESPACE {
namespace {

// Surroundings are taken over blocks of 2 x 2 pixels: a quarter of the sums.
constexpr int reach = 7;  // blocks
constexpr int window = 2 * reach + 1;
// How many of `count` pixels the window around block `at` reaches.
float reached(int at, int count) {
    return float(std::min(count, 2 * (at + reach + 1)) - std::max(0, 2 * (at - reach)));
}

// Sums of a quantity over the window around each block of a row: rows come into it and leave it as it goes down.
class WindowSums {
  public:
    explicit WindowSums(int blocks)
        : blocks_(std::size_t(blocks)),
          rows_(window + 1, std::vector<float>(blocks_ + slack)),
          down_(blocks_ + slack),
          columns_(blocks_ + 2 * reach + slack),
          threes_(columns_.size()) {}

    // Where the quantity of row n of blocks goes before it comes in. Rows stay until they have left the window.
    float* row(int n) { return rows_[std::size_t(n % (window + 1))].data(); }

    // Row n comes in, if there is one among `rows`, and row n - window leaves.
    void move(int n, int rows) {
        const bool comes = n < rows;
        const bool leaves = n >= window;
        if (comes && leaves)
            add([in = row(n), out = row(n - window)](std::size_t i)
                    HWY_ATTR { return hn::Sub(wide(in + i), wide(out + i)); });
        else if (comes)
            add([in = row(n)](std::size_t i) HWY_ATTR { return wide(in + i); });
        else if (leaves)
            add([out = row(n - window)](std::size_t i) HWY_ATTR { return hn::Neg(wide(out + i)); });
        // Fifteen columns are five times three.
        const hn::ScalableTag<float> d;
        for (std::size_t i = 0; i < blocks_ + 2 * reach - 2; i += hn::Lanes(d)) {
            const float* from = columns_.data() + i;
            hn::StoreU(hn::Add(hn::Add(hn::LoadU(d, from), hn::LoadU(d, from + 1)), hn::LoadU(d, from + 2)), d,
                       threes_.data() + i);
        }
    }

    // Over the windows around blocks i, i + 1, ...
    HWY_INLINE hn::Vec<hn::ScalableTag<float>> at(std::size_t i) const {
        const hn::ScalableTag<float> d;
        const float* from = threes_.data() + i;
        static_assert(window == 15);
        return hn::Add(hn::Add(hn::Add(hn::LoadU(d, from), hn::LoadU(d, from + 3)),
                               hn::Add(hn::LoadU(d, from + 6), hn::LoadU(d, from + 9))),
                       hn::LoadU(d, from + 12));
    }

  private:
    using Wide = hn::ScalableTag<double>;
    using Narrow = hn::Rebind<float, Wide>;

    static HWY_INLINE hn::Vec<Wide> wide(const float* from) { return hn::PromoteTo(Wide(), hn::LoadU(Narrow(), from)); }

    // To the sums down the columns, in double precision: what is added is taken away again without a rest.
    template <class Change>
    void add(const Change& change_at) {
        for (std::size_t i = 0; i < blocks_; i += hn::Lanes(Wide())) {
            const auto sum = hn::Add(hn::LoadU(Wide(), down_.data() + i), change_at(i));
            hn::StoreU(sum, Wide(), down_.data() + i);
            hn::StoreU(hn::DemoteTo(Narrow(), sum), Narrow(), columns_.data() + reach + i);
        }
        std::fill_n(columns_.begin() + std::ptrdiff_t(reach + blocks_), reach, 0.0F);
    }

    std::size_t blocks_;
    std::vector<std::vector<float>> rows_;  // of the window, and the row that left it last
    std::vector<double> down_;              // sums down the columns of the window
    std::vector<float> columns_;            // the same, with nothing on either side
    std::vector<float> threes_;             // sums of each column and the next two
};

// What surrounds the blocks of a row: their mean, and one over their deviation. Each row begins one block before the
// picture and ends one beyond.
struct Around {
    std::vector<float> mean, scale;
};

class Contrast {
  public:
    Contrast(const float* in, int width, int height, float faint)
        : smoothed_(in, width, height),
          width_(width),
          height_(height),
          blocks_((width + 1) / 2),
          faint_(faint),
          smooth_(rows_kept, std::vector<float>(std::size_t(width) + slack)),
          samples_(blocks_),
          squares_(blocks_),
          share_(std::size_t(blocks_) + slack),
          no_row_(std::size_t(width) + slack),
          rest_(slack) {
        for (Around& around : around_)
            around.mean = around.scale = std::vector<float>(std::size_t(blocks_) + 2 + slack);
        for (int i = 0; i < blocks_; ++i) share_[std::size_t(i)] = 1 / reached(i, width);
    }

    void run(float* out) {
        const int rows = (height_ + 1) / 2;
        for (int n = 0; n < rows + reach; ++n) {
            if (n < rows) {
                smooth(n);
                sum_blocks(n);
            }
            samples_.move(n, rows);
            squares_.move(n, rows);
            const int at = n - reach;
            if (at < 0) continue;
            look_around(at);
            finish(2 * at - 1, around(std::max(0, at - 1)), around(at), out);
            if (at == rows - 1 && 2 * at + 1 < height_) finish(2 * at + 1, around(at), around(at), out);
        }
    }

  private:
    static constexpr std::size_t rows_kept = 2 * (reach + 2);

    std::vector<float>& smooth_row(int y) { return smooth_[std::size_t(y) % rows_kept]; }
    Around& around(int n) { return around_[std::size_t(n) % around_.size()]; }

    // The two rows of row n of blocks. The last block of an odd row has one column, and that of an odd column one row.
    void smooth(int n) {
        std::vector<float>& top = smooth_row(2 * n);
        std::vector<float>& bottom = smooth_row(2 * n + 1);
        smoothed_.two_rows(2 * n, top.data(), bottom.data());
        if (2 * n + 1 == height_) std::fill(bottom.begin(), bottom.end(), 0.0F);
        top[std::size_t(width_)] = bottom[std::size_t(width_)] = 0;
    }

    void sum_blocks(int n) {
        const hn::ScalableTag<float> d;
        const float* top = smooth_row(2 * n).data();
        const float* bottom = smooth_row(2 * n + 1).data();
        float* sums = samples_.row(n);
        float* squares = squares_.row(n);
        for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(d)) {
            hn::Vec<decltype(d)> a, b, c, e;
            hn::LoadInterleaved2(d, top + 2 * i, a, b);
            hn::LoadInterleaved2(d, bottom + 2 * i, c, e);
            hn::StoreU(hn::Add(hn::Add(a, b), hn::Add(c, e)), d, sums + i);
            hn::StoreU(hn::MulAdd(a, a, hn::MulAdd(b, b, hn::MulAdd(c, c, hn::Mul(e, e)))), d, squares + i);
        }
    }

    void look_around(int n) {
        Around& to = around(n);
        const hn::ScalableTag<float> d;
        const auto rows_share = hn::Set(d, 1 / reached(n, height_));
        const auto least = hn::Set(d, faint_ * faint_);
        const auto one = hn::Set(d, 1.0F);
        for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(d)) {
            const auto share = hn::Mul(rows_share, hn::LoadU(d, share_.data() + i));
            const auto mean = hn::Mul(samples_.at(i), share);
            const auto variance = hn::NegMulAdd(mean, mean, hn::Mul(squares_.at(i), share));
            const auto spread = hn::Sqrt(hn::Add(hn::Max(variance, hn::Zero(d)), least));
            hn::StoreU(mean, d, to.mean.data() + 1 + i);
            hn::StoreU(hn::Div(one, spread), d, to.scale.data() + 1 + i);
        }
        for (std::vector<float>* row : {&to.mean, &to.scale}) {
            row->front() = (*row)[1];
            (*row)[std::size_t(blocks_) + 1] = (*row)[std::size_t(blocks_)];
        }
    }

    using Vector = hn::Vec<hn::ScalableTag<float>>;

    // A quarter of the way from a to b.
    static HWY_INLINE Vector quarter(Vector a, Vector b) {
        return hn::MulAdd(hn::Sub(b, a), hn::Set(hn::ScalableTag<float>(), 0.25F), a);
    }

    // Of blocks i, i + 1, ..., at their left and at their right column of pixels.
    struct Sides {
        Vector left, right;
    };
    static HWY_INLINE Sides sides(const std::vector<float>& row, std::size_t i) {
        const hn::ScalableTag<float> d;
        const auto own = hn::LoadU(d, row.data() + i + 1);
        return {quarter(own, hn::LoadU(d, row.data() + i)), quarter(own, hn::LoadU(d, row.data() + i + 2))};
    }

    static HWY_INLINE void finish_pixels(const float* smooth, const Sides& mean, const Sides& far_mean,
                                         const Sides& scale, const Sides& far_scale, float* to) {
        const hn::ScalableTag<float> d;
        Vector left, right;
        hn::LoadInterleaved2(d, smooth, left, right);
        left = hn::Mul(hn::Sub(left, quarter(mean.left, far_mean.left)), quarter(scale.left, far_scale.left));
        right = hn::Mul(hn::Sub(right, quarter(mean.right, far_mean.right)), quarter(scale.right, far_scale.right));
        hn::StoreInterleaved2(left, right, d, to);
    }

    // Rows y and y + 1 of pixels, as far as there are such, of which the first lies a quarter of a block below the
    // middle of `above`, and the second as much above that of `below`.
    void finish(int y, const Around& above, const Around& below, float* out) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        const auto width = std::size_t(width_);
        const float* smooth = smooth_row(std::max(0, y)).data();
        const float* smooth_next = smooth_row(y + 1).data();
        float* to = y < 0 ? no_row_.data() : out + std::size_t(y) * width;
        float* to_next = y + 1 < height_ ? out + std::size_t(y + 1) * width : no_row_.data();
        const auto pixels = [&](std::size_t i, float* first, float* next) HWY_ATTR {
            const Sides mean = sides(above.mean, i);
            const Sides next_mean = sides(below.mean, i);
            const Sides scale = sides(above.scale, i);
            const Sides next_scale = sides(below.scale, i);
            finish_pixels(smooth + 2 * i, mean, next_mean, scale, next_scale, first);
            finish_pixels(smooth_next + 2 * i, next_mean, mean, next_scale, scale, next);
        };
        std::size_t i = 0;
        for (; 2 * (i + lanes) <= width; i += lanes) pixels(i, to + 2 * i, to_next + 2 * i);
        if (2 * i >= width) return;
        pixels(i, rest_.data(), rest_.data() + 2 * lanes);
        std::copy_n(rest_.data(), width - 2 * i, to + 2 * i);
        std::copy_n(rest_.data() + 2 * lanes, width - 2 * i, to_next + 2 * i);
    }

    Smoothed smoothed_;
    int width_;
    int height_;
    int blocks_;  // in a row
    float faint_;
    std::vector<std::vector<float>> smooth_;  // the rows that are not finished
    WindowSums samples_, squares_;
    std::vector<float> share_;  // of one pixel in a row of those that the window reaches
    std::array<Around, 2> around_;
    std::vector<float> no_row_;  // takes what lies above and below the picture
    std::vector<float> rest_;    // the last pixels of two rows, which do not fill a vector
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
