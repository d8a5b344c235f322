#include "align/descent.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstdint>
#include <functional>
#include <iterator>
#include <opencv2/imgproc.hpp>
#include <optional>
#include <span>
#include <vector>

#include "align/contrast.h"
#include "base/parallel.h"

namespace bp {
namespace {

constexpr int border = 4;  // pixels of the reference that are left out: their gradients are not whole
constexpr double least_overlap = 0.25;

using Samples = std::vector<float>;  // one for each landmark, padded
using Step = std::array<double, kernels::most_parameters>;

// The transform of a small step, in pixels about `middle`; `radius` is where parameters are measured.
Matrix change_of(const Step& p, Model model, Point middle, double radius) {
    if (model == Model::shift) return Matrix::shift(p[0], p[1]);
    if (model == Model::rigid) return Matrix::rigid(p[2] / radius, middle, p[0], p[1]);
    const Matrix to_unit{{1 / radius, 0, -middle.x / radius, 0, 1 / radius, -middle.y / radius, 0, 0, 1}};
    Matrix change;
    if (model == Model::similarity) {
        const double scale = 1 + p[3] / radius;
        const double c = scale * std::cos(p[2] / radius);
        const double s = scale * std::sin(p[2] / radius);
        change = {{c, -s, p[0] / radius, s, c, p[1] / radius, 0, 0, 1}};
    } else {
        change = {{1 + (p[3] + p[4]) / radius, (p[5] - p[2]) / radius, p[0] / radius, (p[5] + p[2]) / radius,
                   1 + (p[3] - p[4]) / radius, p[1] / radius, -p[6] / radius, -p[7] / radius, 1}};
    }
    return inverse(to_unit) * change * to_unit;
}

// Gain and offset that lead from what is seen to the landmarks' own values, and how well.
struct Tie {
    double n = 0;
    double gain = 0;
    double offset = 0;
    double correlation = -1;
};

Tie tie_of(const kernels::Landmarks& landmarks, const Samples& seen, const Samples& weights) {
    const kernels::TieSums sums = kernels::tie_sums(landmarks, seen.data(), weights.data());
    Tie out;
    out.n = sums.n;
    if (sums.w <= 0) return out;
    const double var_t = sums.tt - sums.t * sums.t / sums.w;
    const double var_i = sums.ii - sums.i * sums.i / sums.w;
    const double cov = sums.ti - sums.t * sums.i / sums.w;
    constexpr double flat = 1e-12;
    if (var_t < flat * sums.w || var_i < flat * sums.w) return out;
    out.gain = cov / var_i;
    out.offset = (sums.t - out.gain * sums.i) / sums.w;
    out.correlation = cov / std::sqrt(var_t * var_i);
    return out;
}

// Biweights of what is left between landmarks and frame.
void weigh(const kernels::Landmarks& landmarks, const Samples& seen, const Tie& tie, Samples& weights) {
    constexpr std::size_t every = 7;
    constexpr double to_deviation = 1.4826;
    constexpr double reach_in_deviations = 4.685;
    constexpr double least_deviation = 0.01;
    std::vector<double> sizes;
    for (std::size_t k = 0; k < landmarks.size(); k += every)
        if (!std::isnan(seen[k]))
            sizes.push_back(std::abs(double(landmarks.value()[k]) - tie.gain * double(seen[k]) - tie.offset));
    if (sizes.empty()) return;
    const auto middle = sizes.begin() + std::ptrdiff_t(sizes.size() / 2);
    std::nth_element(sizes.begin(), middle, sizes.end());
    const double reach = reach_in_deviations * std::max(*middle * to_deviation, least_deviation);
    kernels::biweights(landmarks, seen.data(), tie.gain, tie.offset, reach, weights.data());
}

std::size_t parameters_of(Model model) {
    switch (model) {
        case Model::shift:
            return 2;
        case Model::rigid:
            return 3;
        case Model::similarity:
            return 4;
        default:
            return kernels::most_parameters;
    }
}

// The step that moves the landmarks onto gain * seen + offset best, with both fitted along; nothing when the texture
// does not determine it.
std::optional<Step> solve(std::size_t parameters, const kernels::Landmarks& landmarks, const Samples& seen,
                          const Samples& weights, Point middle, double radius) {
    const kernels::NormalSums sums =
        kernels::normal_sums(parameters, landmarks, seen.data(), weights.data(), middle, radius);
    const int n = int(parameters) + 2;
    cv::Mat left(n, n, CV_64F);
    cv::Mat wanted(n, 1, CV_64F);
    for (int a = 0; a < n; ++a) {
        wanted.at<double>(a) = sums.right[std::size_t(a)];
        for (int b = 0; b < n; ++b)
            left.at<double>(a, b) = sums.square[std::size_t(std::min(a, b))][std::size_t(std::max(a, b))];
    }
    cv::Mat answer;
    if (!cv::solve(left, wanted, answer, cv::DECOMP_CHOLESKY)) return std::nullopt;
    Step step{};
    for (std::size_t a = 0; a < parameters; ++a) {
        step[a] = answer.at<double>(int(a));
        if (!std::isfinite(step[a])) return std::nullopt;
    }
    return step;
}

// What must be exceeded so that at most `most` of the values do, and no less than `least`, which is above zero. Values
// are counted in steps of 1/128 of themselves, as the bits of a float go, so that only those of one step are put in
// order.
float least_of_most(std::span<const float> values, float least, std::size_t most) {
    constexpr std::size_t steps = 4096;
    const auto bits = [](float v) { return std::bit_cast<std::uint32_t>(v) >> 16U; };
    const auto step_of = [&](float v) {
        return std::min<std::size_t>(bits(std::max(least, v)) - bits(least), steps - 1);
    };
    std::array<std::uint32_t, steps> counts{};
    for (const float v : values) ++counts[step_of(v)];
    std::size_t above = 0;
    std::size_t step = steps - 1;
    while (step > 0 && above + counts[step] <= most) above += counts[step--];
    std::vector<float> alike;
    std::copy_if(values.begin(), values.end(), std::back_inserter(alike),
                 [&](float v) { return v > least && step_of(v) == step; });
    if (above + alike.size() <= most) return least;
    const auto first_left = alike.begin() + std::ptrdiff_t(most - above);
    std::nth_element(alike.begin(), first_left, alike.end(), std::greater<>());
    return *first_left;
}

}  // namespace

kernels::Landmarks landmarks_of(const cv::Mat& contrast, const cv::Mat& trust, std::size_t most) {
    constexpr int columns = 16;
    constexpr int rows = 12;
    constexpr float least_change = 0.02F;
    cv::Mat dx, dy;
    cv::Sobel(contrast, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(contrast, dy, CV_32F, 0, 1, 3, 0.125);
    const std::size_t each = std::max<std::size_t>(16, most / (columns * rows));
    const int width = contrast.cols - 2 * border;
    const int height = contrast.rows - 2 * border;
    std::vector<std::vector<kernels::Landmark>> blocks(columns * rows);
    parallel_for(0, columns * rows, [&](int n) {
        const int left = border + width * (n % columns) / columns;
        const int right = border + width * (n % columns + 1) / columns;
        const int top = border + height * (n / columns) / rows;
        const int bottom = border + height * (n / columns + 1) / rows;
        // Squared change from left to right and down, none where nobody trusts the picture.
        std::vector<float> changes(std::size_t(std::max(0, right - left)) * std::size_t(std::max(0, bottom - top)));
        float* change = changes.data();
        for (int y = top; y < bottom; ++y, change += right - left) {
            const auto* a = dx.ptr<float>(y) + left;
            const auto* b = dy.ptr<float>(y) + left;
            for (int x = 0; x < right - left; ++x) change[x] = a[x] * a[x] + b[x] * b[x];
            if (trust.empty()) continue;
            const auto* trusted = trust.ptr<float>(y) + left;
            for (int x = 0; x < right - left; ++x) change[x] = trusted[x] >= 0.5F ? change[x] : 0.0F;
        }
        const float least = least_of_most(changes, least_change * least_change, each);
        // In the order in which they lie in memory, which is how they are looked up.
        std::vector<kernels::Landmark>& block = blocks[std::size_t(n)];
        block.reserve(each);
        change = changes.data();
        for (int y = top; y < bottom; ++y, change += right - left)
            for (int x = left; x < right; ++x)
                if (change[x - left] > least)
                    block.push_back(
                        {float(x), float(y), contrast.at<float>(y, x), dx.at<float>(y, x), dy.at<float>(y, x)});
    });
    std::vector<kernels::Landmark> out;
    for (const std::vector<kernels::Landmark>& block : blocks) out.insert(out.end(), block.begin(), block.end());
    return kernels::Landmarks(out);
}

Fit descend(const kernels::Landmarks& landmarks, cv::Size size, const cv::Mat& frame, const Matrix& start, Model model,
            int most_steps, double close_px) {
    const Point middle{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
    const double radius = size.width / 2.0;
    Samples seen(landmarks.padded());
    Samples weights(landmarks.padded(), 1.0F);
    Matrix to_frame = start;
    for (int i = 0;; ++i) {
        kernels::look_up(landmarks, sight_of(frame), to_frame, seen.data());
        const Tie tie = tie_of(landmarks, seen, weights);
        if (tie.n < least_overlap * double(landmarks.size()) || tie.n < 50 || tie.correlation <= 0) return {};
        weigh(landmarks, seen, tie, weights);
        const std::optional<Step> step = solve(parameters_of(model), landmarks, seen, weights, middle, radius);
        if (!step) return {};
        double moved = 0;
        for (const double s : *step) moved = std::max(moved, std::abs(s));
        to_frame = to_frame * inverse(change_of(*step, model, middle, radius));
        if (moved < close_px || i == most_steps) {
            const Samples all_alike(landmarks.padded(), 1.0F);
            return {to_frame, tie_of(landmarks, seen, all_alike).correlation};
        }
    }
}

}  // namespace bp
