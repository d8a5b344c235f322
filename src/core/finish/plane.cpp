#include "finish/plane.h"

#include <algorithm>
#include <cmath>

#include "kernels/light_rows.h"
#include "kernels/weigh.h"

namespace bp {
namespace {

// The pixels around `wanted` across, in every row that is read for it, with the border of the plane going on.
Plane padded(const Plane& in, int reach, const Rect& wanted) {
    Plane out({wanted.left - reach, wanted.top - reach, wanted.width + 2 * reach, wanted.height + 2 * reach});
    const int first = std::max(out.area.left, in.area.left), last = std::min(out.area.right(), in.area.right());
    for (int y = out.area.top; y < out.area.bottom(); ++y) {
        const float* from = in.row(std::clamp(y, in.area.top, in.area.bottom() - 1));
        float* to = out.row(y);
        std::fill_n(to, first - out.area.left, from[first - in.area.left]);
        std::copy_n(from + (first - in.area.left), last - first, to + (first - out.area.left));
        std::fill_n(to + (last - out.area.left), out.area.right() - last, from[last - 1 - in.area.left]);
    }
    return out;
}

// Down, then across: both make a row from as many as there are places.
template <class Down, class Across>
Plane separable(const Plane& in, int count, int step, const Rect& wanted, const Down& combine_down,
                const Across& combine_across) {
    const int reach = count / 2 * step;
    const Rect needed{wanted.left - reach, wanted.top - reach, wanted.width + 2 * reach, wanted.height + 2 * reach};
    const bool inside = intersect(needed, in.area) == needed;
    const Plane beyond = inside ? Plane(Rect()) : padded(in, reach, wanted);
    const Plane& around = inside ? in : beyond;
    Plane out(wanted);
    std::vector<float> down(std::size_t(needed.width));
    std::vector<const float*> rows(std::size_t(count), nullptr);
    for (int y = wanted.top; y < wanted.bottom(); ++y) {
        for (int k = 0; k < count; ++k)
            rows[std::size_t(k)] = around.row(y - reach + k * step) + (needed.left - around.area.left);
        combine_down(rows, down.size(), down.data());
        for (int k = 0; k < count; ++k) rows[std::size_t(k)] = down.data() + std::ptrdiff_t(k) * step;
        combine_across(rows, std::size_t(wanted.width), out.row(y));
    }
    return out;
}

int floor_of(int a, int by) {
    return a >= 0 ? a / by : -((by - 1 - a) / by);
}

// Means of blocks of as many pixels each way, which lie where the canvas begins to count; where the plane ends, of
// those that are there. `blocks`: all of them are, as far as the plane goes.
Plane means(const Plane& in, int side, const Rect& blocks) {
    Plane out(blocks);
    std::vector<float> sums(std::size_t(in.area.width));
    for (int j = blocks.top; j < blocks.bottom(); ++j) {
        const int top = std::max(j * side, in.area.top), bottom = std::min((j + 1) * side, in.area.bottom());
        std::fill(sums.begin(), sums.end(), 0.0F);
        for (int y = top; y < bottom; ++y)
            for (std::size_t x = 0; x < sums.size(); ++x) sums[x] += in.row(y)[x];
        for (int i = blocks.left; i < blocks.right(); ++i) {
            const int left = std::max(i * side, in.area.left), right = std::min((i + 1) * side, in.area.right());
            float sum = 0;
            for (int x = left; x < right; ++x) sum += sums[std::size_t(x - in.area.left)];
            out.row(j)[i - blocks.left] = sum / float((right - left) * (bottom - top));
        }
    }
    return out;
}

// Where a pixel lies between the middles of two blocks.
struct Between {
    int first;
    float part;
};
Between between(int pixel, int side) {
    const int halves = 2 * pixel + 1 - side;  // of pixels, from the middle of block 0
    const int first = floor_of(halves, 2 * side);
    return {first, float(halves - 2 * side * first) / float(2 * side)};
}

}  // namespace

Plane tones_of(const Sheet& sheet, const std::array<float, 3>& luminance) {
    Plane out(sheet.area);
    for (int y = out.area.top; y < out.area.bottom(); ++y)
        kernels::tones_of(sheet.row(y), std::size_t(out.area.width), sheet.channels, luminance, out.row(y));
    return out;
}

Plane weighed(const Plane& in, std::span<const float> across, std::span<const float> down, const Rect& wanted) {
    const auto by = [](std::span<const float> weights) {
        return [weights](const std::vector<const float*>& rows, std::size_t samples, float* out) {
            kernels::weigh(rows, weights, samples, out);
        };
    };
    return separable(in, int(across.size()), 1, wanted, by(down), by(across));
}

Plane weighed(const Plane& in, std::span<const float> weights, int step, const Rect& wanted) {
    const auto combine = [&](const std::vector<const float*>& rows, std::size_t samples, float* out) {
        kernels::weigh(rows, weights, samples, out);
    };
    return separable(in, int(weights.size()), step, wanted, combine, combine);
}

Plane least_around(const Plane& in, int reach, const Rect& wanted) {
    return separable(in, 2 * reach + 1, 1, wanted, kernels::least, kernels::least);
}

Plane most_around(const Plane& in, int reach, const Rect& wanted) {
    return separable(in, 2 * reach + 1, 1, wanted, kernels::most, kernels::most);
}

BlockSoftening::BlockSoftening(double deviation) {
    constexpr double finest = 2.5;  // that a deviation among blocks is: the eye does not see them then
    while (deviation / (2 * side_) >= finest) side_ *= 2;
    if (side_ == 1) {
        weights_ = gaussian_weights(deviation);
        return;
    }
    // Means of blocks and the way between them spread, too: by a twelfth and a sixth of a block's square.
    constexpr double of_blocks = 0.25, far_enough = 2.5;
    const double left = deviation / side_;
    weights_ = gaussian_weights(std::sqrt(left * left - of_blocks), far_enough);
}

int BlockSoftening::reach() const {
    const int away = int(weights_.size()) / 2;
    return side_ == 1 ? away : side_ * away + 3 * side_ / 2;
}

Plane BlockSoftening::of(const Plane& in, const Rect& wanted) const {
    if (side_ == 1) return weighed(in, weights_, 1, wanted);
    const auto block = [&](int at) { return floor_of(at, side_); };
    const Rect there{block(in.area.left), block(in.area.top), block(in.area.right() - 1) + 1 - block(in.area.left),
                     block(in.area.bottom() - 1) + 1 - block(in.area.top)};
    const int left = between(wanted.left, side_).first, top = between(wanted.top, side_).first;
    const Rect used{left, top, between(wanted.right() - 1, side_).first + 2 - left,
                    between(wanted.bottom() - 1, side_).first + 2 - top};
    const int away = int(weights_.size()) / 2;
    const Plane soft = weighed(means(in, side_, intersect(bp::around(used, away, there), there)), weights_, 1, used);
    std::vector<Between> across;
    across.reserve(std::size_t(wanted.width));
    for (int x = wanted.left; x < wanted.right(); ++x) across.push_back(between(x, side_));
    Plane out(wanted);
    std::vector<float> row(std::size_t(used.width));
    for (int y = wanted.top; y < wanted.bottom(); ++y) {
        const Between down = between(y, side_);
        const float *above = soft.row(down.first), *below = soft.row(down.first + 1);
        for (std::size_t i = 0; i < row.size(); ++i) row[i] = above[i] + down.part * (below[i] - above[i]);
        float* to = out.row(y);
        for (const Between& at : across) {
            const float* pair = row.data() + (at.first - left);
            *to++ = pair[0] + at.part * (pair[1] - pair[0]);
        }
    }
    return out;
}

std::vector<float> gaussian_weights(double deviation, double reach_in_deviations) {
    return kernels::gaussian(deviation, std::max(1, int(std::ceil(reach_in_deviations * deviation))));
}

}  // namespace bp
