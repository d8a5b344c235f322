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
          block_sums_(window + 1, row_of_blocks()),
          block_squares_(window + 1, row_of_blocks()),
          sums_(std::size_t(blocks_) + slack),
          squares_(std::size_t(blocks_) + slack),
          columns_(std::size_t(blocks_) + 2 * reach + slack),
          twos_(columns_.size()),
          fours_(columns_.size()),
          eights_(columns_.size()),
          means_(row_of_blocks()),
          square_means_(row_of_blocks()),
          share_(row_of_blocks()),
          mean_(row_of_blocks()),
          scale_(row_of_blocks()),
          rest_(slack) {
        for (Around& around : around_)
            around.mean = around.scale = std::vector<float>(std::size_t(blocks_) + 2 + slack);
        for (int i = 0; i < blocks_; ++i) share_[std::size_t(i)] = 1 / reached(i, width);
    }

    void run(float* out) {
        const int rows = (height_ + 1) / 2;
        for (int n = 0; n < rows + reach; ++n) {
            if (n < rows) {
                smooth(2 * n);
                smooth(2 * n + 1);
                sum_blocks(n);
            }
            move_window(n, rows);
            const int at = n - reach;
            if (at < 0) continue;
            look_around(at);
            if (at > 0) finish(2 * at - 1, around(at - 1), around(at), out);
            finish(2 * at, around(at), around(std::max(0, at - 1)), out);
            if (at == rows - 1 && 2 * at + 1 < height_) finish(2 * at + 1, around(at), around(at), out);
        }
    }

  private:
    static constexpr std::size_t rows_kept = 2 * (reach + 2);

    std::vector<float> row_of_blocks() const { return std::vector<float>(std::size_t(blocks_) + slack); }
    std::vector<float>& smooth_row(int y) { return smooth_[std::size_t(y) % rows_kept]; }
    Around& around(int n) { return around_[std::size_t(n) % around_.size()]; }

    // The last block of an odd row has one column, and that of an odd column one row.
    void smooth(int y) {
        std::vector<float>& out = smooth_row(y);
        if (y == height_) {
            std::fill(out.begin(), out.end(), 0.0F);
            return;
        }
        smoothed_.row(y, out.data());
        out[std::size_t(width_)] = 0;
    }

    void sum_blocks(int n) {
        const hn::ScalableTag<float> d;
        const float* top = smooth_row(2 * n).data();
        const float* bottom = smooth_row(2 * n + 1).data();
        float* sums = block_sums_[std::size_t(n % (window + 1))].data();
        float* squares = block_squares_[std::size_t(n % (window + 1))].data();
        for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(d)) {
            hn::Vec<decltype(d)> a, b, c, e;
            hn::LoadInterleaved2(d, top + 2 * i, a, b);
            hn::LoadInterleaved2(d, bottom + 2 * i, c, e);
            hn::StoreU(hn::Add(hn::Add(a, b), hn::Add(c, e)), d, sums + i);
            hn::StoreU(hn::MulAdd(a, a, hn::MulAdd(b, b, hn::MulAdd(c, c, hn::Mul(e, e)))), d, squares + i);
        }
    }

    // Row n of blocks comes into the sums down the columns, of `rows` that there are, and one leaves them. In double
    // precision: what is added is taken away again without a rest.
    void move_window(int n, int rows) {
        const bool comes = n < rows;
        const bool leaves = n >= window;
        for (const auto& [of_rows, sums] : {std::pair(&block_sums_, &sums_), std::pair(&block_squares_, &squares_)}) {
            const auto row = [&of_rows = *of_rows](int at) { return of_rows[std::size_t(at % (window + 1))].data(); };
            if (comes && leaves)
                add(*sums, [in = row(n), out = row(n - window)](auto load, std::size_t i) {
                    return hn::Sub(load(in + i), load(out + i));
                });
            else if (comes)
                add(*sums, [in = row(n)](auto load, std::size_t i) { return load(in + i); });
            else if (leaves)
                add(*sums, [out = row(n - window)](auto load, std::size_t i) { return hn::Neg(load(out + i)); });
        }
    }

    template <class Change>
    void add(std::vector<double>& sums, const Change& change_at) const {
        const hn::ScalableTag<double> d;
        const auto load = [](const float* from) {
            return hn::PromoteTo(hn::ScalableTag<double>(),
                                 hn::LoadU(hn::Rebind<float, hn::ScalableTag<double>>(), from));
        };
        for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(d))
            hn::StoreU(hn::Add(hn::LoadU(d, sums.data() + i), change_at(load, i)), d, sums.data() + i);
    }

    // Means of `window` columns each: from sums of 2, 4 and 8 of them.
    void across(const std::vector<double>& sums, float rows, float* out) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        {
            const hn::ScalableTag<double> wide;
            const hn::Rebind<float, decltype(wide)> narrow;
            for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(wide))
                hn::StoreU(hn::DemoteTo(narrow, hn::LoadU(wide, sums.data() + i)), narrow, columns_.data() + reach + i);
            std::fill_n(columns_.begin() + reach + blocks_, reach + 1, 0.0F);
        }
        const std::size_t padded = std::size_t(blocks_) + 2 * reach;
        const auto add = [&](const std::vector<float>& from, std::size_t apart, std::vector<float>& to) {
            for (std::size_t i = 0; i < padded - apart; i += lanes)
                hn::StoreU(hn::Add(hn::LoadU(d, from.data() + i), hn::LoadU(d, from.data() + i + apart)), d,
                           to.data() + i);
        };
        add(columns_, 1, twos_);
        add(twos_, 2, fours_);
        add(fours_, 4, eights_);
        const auto share = hn::Set(d, 1 / rows);
        for (std::size_t i = 0; i < std::size_t(blocks_); i += lanes) {
            const auto most = hn::Add(hn::LoadU(d, eights_.data() + i), hn::LoadU(d, fours_.data() + i + 8));
            const auto rest = hn::Add(hn::LoadU(d, twos_.data() + i + 12), hn::LoadU(d, columns_.data() + i + 14));
            hn::StoreU(hn::Mul(hn::Mul(hn::Add(most, rest), share), hn::LoadU(d, share_.data() + i)), d, out + i);
        }
    }

    void look_around(int n) {
        const float rows = reached(n, height_);
        across(sums_, rows, means_.data());
        across(squares_, rows, square_means_.data());
        Around& to = around(n);
        const hn::ScalableTag<float> d;
        const auto least = hn::Set(d, faint_ * faint_);
        const auto one = hn::Set(d, 1.0F);
        for (std::size_t i = 0; i < std::size_t(blocks_); i += hn::Lanes(d)) {
            const auto mean = hn::LoadU(d, means_.data() + i);
            const auto variance = hn::NegMulAdd(mean, mean, hn::LoadU(d, square_means_.data() + i));
            const auto spread = hn::Sqrt(hn::Add(hn::Max(variance, hn::Zero(d)), least));
            hn::StoreU(mean, d, to.mean.data() + 1 + i);
            hn::StoreU(hn::Div(one, spread), d, to.scale.data() + 1 + i);
        }
        for (std::vector<float>* row : {&to.mean, &to.scale}) {
            row->front() = (*row)[1];
            (*row)[std::size_t(blocks_) + 1] = (*row)[std::size_t(blocks_)];
        }
    }

    // A row of pixels, a quarter of a block from the middle of `near` towards that of `far`.
    void finish(int y, const Around& near, const Around& far, float* out) {
        const hn::ScalableTag<float> d;
        const std::size_t lanes = hn::Lanes(d);
        const auto quarter = hn::Set(d, 0.25F);
        const auto blend = [&](auto a, auto b) { return hn::MulAdd(hn::Sub(b, a), quarter, a); };
        const std::size_t padded = std::size_t(blocks_) + 2;
        for (std::size_t i = 0; i < padded; i += lanes) {
            hn::StoreU(blend(hn::LoadU(d, near.mean.data() + i), hn::LoadU(d, far.mean.data() + i)), d,
                       mean_.data() + i);
            hn::StoreU(blend(hn::LoadU(d, near.scale.data() + i), hn::LoadU(d, far.scale.data() + i)), d,
                       scale_.data() + i);
        }
        const float* smooth = smooth_row(y).data();
        const auto pixels = [&](std::size_t i, float* to) {
            const auto at = [&](const std::vector<float>& row, std::size_t offset) {
                return hn::LoadU(d, row.data() + i + offset);
            };
            hn::Vec<decltype(d)> left, right;
            hn::LoadInterleaved2(d, smooth + 2 * i, left, right);
            left = hn::Mul(hn::Sub(left, blend(at(mean_, 1), at(mean_, 0))), blend(at(scale_, 1), at(scale_, 0)));
            right = hn::Mul(hn::Sub(right, blend(at(mean_, 1), at(mean_, 2))), blend(at(scale_, 1), at(scale_, 2)));
            hn::StoreInterleaved2(left, right, d, to);
        };
        float* to = out + std::size_t(y) * std::size_t(width_);
        std::size_t i = 0;
        for (; 2 * (i + lanes) <= std::size_t(width_); i += lanes) pixels(i, to + 2 * i);
        if (2 * i >= std::size_t(width_)) return;
        pixels(i, rest_.data());
        std::copy_n(rest_.begin(), std::size_t(width_) - 2 * i, to + 2 * i);
    }

    Smoothed smoothed_;
    int width_;
    int height_;
    int blocks_;  // in a row
    float faint_;
    std::vector<std::vector<float>> smooth_;                      // the rows that are not finished
    std::vector<std::vector<float>> block_sums_, block_squares_;  // of the window, and of the row that left it last
    std::vector<double> sums_, squares_;                          // down the columns of the window
    std::vector<float> columns_, twos_, fours_, eights_;
    std::vector<float> means_, square_means_;
    std::vector<float> share_;  // of one pixel in a row of those that the window reaches
    std::array<Around, 2> around_;
    std::vector<float> mean_, scale_;  // of a row of pixels, for every block
    std::vector<float> rest_;          // the last pixels of a row, which do not fill a vector
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
