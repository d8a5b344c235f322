#include "align/find_stars.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "align/bridge.h"

namespace bp {
namespace {

constexpr double star_blur = 0.8;    // pixels: of a star as lenses show it
constexpr double ground_blur = 5.0;  // what is wider than this is no star
constexpr int ground_unit = 4;       // the ground is blurred on a picture that is smaller by this
constexpr int tile = 64;             // in which noise is measured
constexpr int cell = 8;              // in which noise counts as the same
constexpr float stands_out = 5.0F;   // deviations of noise
constexpr float belongs = 2.5F;      // to a star that stands out
constexpr float least_noise = 2e-4F;

// Where the samples of a row of `from` lie in one of `to` pixels: the left one of two, and the share of the right one.
struct Stretch {
    std::vector<int> left;
    std::vector<float> share;

    Stretch(int from, int to) : left(std::size_t(to)), share(std::size_t(to)) {
        for (int x = 0; x < to; ++x) {
            const double u = std::clamp((x + 0.5) * from / to - 0.5, 0.0, double(from - 1));
            const int i = std::min(int(u), std::max(0, from - 2));
            left[std::size_t(x)] = i;
            share[std::size_t(x)] = from > 1 ? float(u - i) : 0;
        }
    }
    // Between two rows that are one below the other.
    static void blend(const float* above, const float* below, float share, int count, float* out) {
        for (int x = 0; x < count; ++x) out[x] = above[x] + share * (below[x] - above[x]);
    }
};

const float* row_below(const cv::Mat& picture, int y) {
    return picture.ptr<float>(std::min(y + 1, picture.rows - 1));
}

// The picture less its ground.
cv::Mat spots_of(const cv::Mat& picture) {
    cv::Mat ground;
    const cv::Size small((picture.cols + ground_unit - 1) / ground_unit,
                         (picture.rows + ground_unit - 1) / ground_unit);
    cv::resize(picture, ground, small, 0, 0, cv::INTER_AREA);
    // A box has blurred by (unit^2 - 1) / 12 already.
    const double blur = std::sqrt(ground_blur * ground_blur - (ground_unit * ground_unit - 1) / 12.0) / ground_unit;
    cv::GaussianBlur(ground, ground, cv::Size(0, 0), blur);
    const Stretch across(small.width, picture.cols);
    const Stretch down(small.height, picture.rows);
    cv::Mat out(picture.size(), CV_32F);
    std::vector<float> between(std::size_t(small.width) + 1);
    cv::Mat fine;
    // In bands that stay in the cache; the blur sees the rows beside its band.
    for (int top = 0; top < picture.rows; top += tile) {
        const int bottom = std::min(top + tile, picture.rows);
        cv::GaussianBlur(picture.rowRange(top, bottom), fine, cv::Size(7, 7), star_blur);
        for (int y = top; y < bottom; ++y) {
            const int above = down.left[std::size_t(y)];
            Stretch::blend(ground.ptr<float>(above), row_below(ground, above), down.share[std::size_t(y)], small.width,
                           between.data());
            between.back() = between[between.size() - 2];
            const auto* in = fine.ptr<float>(y - top);
            auto* to = out.ptr<float>(y);
            for (int x = 0; x < picture.cols; ++x) {
                const float* at = between.data() + across.left[std::size_t(x)];
                to[x] = in[x] - (at[0] + across.share[std::size_t(x)] * (at[1] - at[0]));
            }
        }
    }
    return out;
}

// The noise of each tile: 1.4826 times the median distance from zero.
cv::Mat noise_of(const cv::Mat& spots) {
    constexpr int every = 3;
    cv::Mat out((spots.rows + tile - 1) / tile, (spots.cols + tile - 1) / tile, CV_32F);
    std::vector<float> values;
    for (int j = 0; j < out.rows; ++j)
        for (int i = 0; i < out.cols; ++i) {
            values.clear();
            for (int y = j * tile; y < std::min(spots.rows, (j + 1) * tile); y += every)
                for (int x = i * tile; x < std::min(spots.cols, (i + 1) * tile); x += every)
                    values.push_back(std::abs(spots.at<float>(y, x)));
            const auto middle = values.begin() + std::ptrdiff_t(values.size() / 2);
            std::nth_element(values.begin(), middle, values.end());
            out.at<float>(j, i) = std::max(1.4826F * *middle, least_noise);
        }
    return out;
}

// Pixels that hang together.
struct Spot {
    double light = 0, x = 0, y = 0;  // sums
    int left = 0, right = 0, top = 0, bottom = 0;
    int pixels = 0;
    bool out = false;  // some pixel stands out

    void add(const Spot& other) {
        light += other.light;
        x += other.x;
        y += other.y;
        left = std::min(left, other.left);
        right = std::max(right, other.right);
        top = std::min(top, other.top);
        bottom = std::max(bottom, other.bottom);
        pixels += other.pixels;
        out = out || other.out;
    }
};

// Collects spots from runs of pixels, row by row from the top.
class Spots {
  public:
    // Runs of a row come from left to right; those that touch a run of the row above, also at a corner, belong to it.
    void add(const Spot& run) {
        if (run.top != row_) {
            above_.swap(here_);
            if (run.top != row_ + 1) above_.clear();
            here_.clear();
            row_ = run.top;
            next_ = 0;
        }
        while (next_ < above_.size() && above_[next_].right < run.left - 1) ++next_;
        int mine = -1;
        for (std::size_t i = next_; i < above_.size() && above_[i].left <= run.right + 1; ++i) {
            const int other = root(above_[i].spot);
            if (mine < 0) {
                mine = other;
            } else if (other != mine) {
                found_[std::size_t(mine)].add(found_[std::size_t(other)]);
                parent_[std::size_t(other)] = mine;
            }
        }
        if (mine < 0) {
            mine = int(found_.size());
            found_.push_back(run);
            parent_.push_back(mine);
        } else {
            found_[std::size_t(mine)].add(run);
        }
        here_.push_back({run.left, run.right, mine});
    }

    template <class Take>
    void each(Take take) const {
        for (std::size_t i = 0; i < found_.size(); ++i)
            if (parent_[i] == int(i)) take(found_[i]);
    }

  private:
    struct Run {
        int left, right, spot;
    };
    int root(int i) const {
        while (parent_[std::size_t(i)] != i) i = parent_[std::size_t(i)];
        return i;
    }

    std::vector<Spot> found_;
    std::vector<int> parent_;
    std::vector<Run> above_, here_;
    std::size_t next_ = 0;
    int row_ = -2;
};

Spots spots_above(const cv::Mat& spots, const cv::Mat& noise) {
    const int cells = (spots.cols + cell - 1) / cell;
    const Stretch across(noise.cols, cells);
    const Stretch down(noise.rows, spots.rows);
    std::vector<float> between(std::size_t(noise.cols) + 1);
    Spots out;
    Spot run;
    for (int y = 0; y < spots.rows; ++y) {
        const int above = down.left[std::size_t(y)];
        Stretch::blend(noise.ptr<float>(above), row_below(noise, above), down.share[std::size_t(y)], noise.cols,
                       between.data());
        between.back() = between[between.size() - 2];
        const auto* row = spots.ptr<float>(y);
        for (int c = 0; c < cells; ++c) {
            const float* at = between.data() + across.left[std::size_t(c)];
            const float here = at[0] + across.share[std::size_t(c)] * (at[1] - at[0]);
            for (int x = c * cell; x < std::min(spots.cols, (c + 1) * cell); ++x) {
                if (row[x] > belongs * here) {
                    const double light = row[x];
                    if (run.pixels == 0) run.left = x;
                    run.right = x;
                    ++run.pixels;
                    run.light += light;
                    run.x += light * x;
                    run.y += light * y;
                    run.out = run.out || row[x] > stands_out * here;
                } else if (run.pixels > 0) {
                    run.top = run.bottom = y;
                    out.add(run);
                    run = {};
                }
            }
        }
        if (run.pixels > 0) {
            run.top = run.bottom = y;
            out.add(run);
            run = {};
        }
    }
    return out;
}

}  // namespace

std::vector<Star> find_stars(const RasterF& brightness, std::size_t most, double longest) {
    constexpr int border = 6;
    constexpr int fewest_pixels = 3;
    const double widest = longest + 10;
    const cv::Mat spots = spots_of(as_mat(brightness));
    std::vector<Star> out;
    spots_above(spots, noise_of(spots)).each([&](const Spot& spot) {
        const int width = spot.right - spot.left + 1;
        const int height = spot.bottom - spot.top + 1;
        if (!spot.out || spot.pixels < fewest_pixels || std::hypot(width, height) > widest) return;
        // Trails are straight and thin: what fills a large square is none.
        if (spot.pixels > 12 * (std::max(width, height) + 4)) return;
        const Point at{spot.x / spot.light, spot.y / spot.light};
        if (at.x < border || at.y < border || at.x > spots.cols - 1 - border || at.y > spots.rows - 1 - border) return;
        out.push_back({at, spot.light});
    });
    std::sort(out.begin(), out.end(), [](const Star& a, const Star& b) { return a.light > b.light; });
    if (out.size() > most) out.resize(most);
    return out;
}

}  // namespace bp
