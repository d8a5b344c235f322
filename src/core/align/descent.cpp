#include "align/descent.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <opencv2/imgproc.hpp>

#include "align/contrast.h"
#include "base/parallel.h"

namespace bp {
namespace {

constexpr int border = 4;  // pixels of the reference that are left out: their gradients are not whole
constexpr double least_overlap = 0.25;

// Shift x, shift y, turn, scale, stretch, shear, and the two ways of tilting: each in pixels at the edge of the
// picture.
constexpr std::size_t most_parameters = 8;
using Step = std::array<double, most_parameters>;
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
        change.m = {c, -s, p[0] / radius, s, c, p[1] / radius, 0, 0, 1};
    } else {
        change.m = {1 + (p[3] + p[4]) / radius,
                    (p[5] - p[2]) / radius,
                    p[0] / radius,
                    (p[5] + p[2]) / radius,
                    1 + (p[3] - p[4]) / radius,
                    p[1] / radius,
                    -p[6] / radius,
                    -p[7] / radius,
                    1};
    }
    return inverse(to_unit) * change * to_unit;
}

Matrix normalised(Matrix m) {
    for (std::size_t i = 0; i < 9; ++i)
        if (i != 8) m.m[i] /= m.m[8];
    m.m[8] = 1;
    return m;
}

// What the frame shows at the landmarks; not a number where it does not reach.
void look(const std::vector<Landmark>& landmarks, const cv::Mat& frame, const Matrix& to_frame,
          std::vector<double>& seen) {
    const auto& m = to_frame.m;
    const bool tilted = m[6] != 0 || m[7] != 0;
    for (std::size_t i = 0; i < landmarks.size(); ++i) {
        const double x = landmarks[i].x;
        const double y = landmarks[i].y;
        const Point p = tilted ? to_frame({x, y}) : Point{m[0] * x + m[1] * y + m[2], m[3] * x + m[4] * y + m[5]};
        seen[i] = between_pixels(frame, p).value_or(std::nan(""));
    }
}

// Gain and offset that lead from what is seen to the landmarks' own values, and how well.
struct Tie {
    double n = 0;
    double gain = 0;
    double offset = 0;
    double correlation = -1;
};

Tie tie_of(const std::vector<Landmark>& landmarks, const std::vector<double>& seen,
           const std::vector<double>& weights) {
    double n = 0, w = 0, t = 0, i = 0, tt = 0, ii = 0, ti = 0;
    for (std::size_t k = 0; k < landmarks.size(); ++k) {
        if (std::isnan(seen[k])) continue;
        n += 1;
        const double weight = weights[k];
        const double a = landmarks[k].value;
        const double b = seen[k];
        w += weight;
        t += weight * a;
        i += weight * b;
        tt += weight * a * a;
        ii += weight * b * b;
        ti += weight * a * b;
    }
    Tie out;
    out.n = n;
    if (w <= 0) return out;
    const double var_t = tt - t * t / w;
    const double var_i = ii - i * i / w;
    const double cov = ti - t * i / w;
    constexpr double flat = 1e-12;
    if (var_t < flat * w || var_i < flat * w) return out;
    out.gain = cov / var_i;
    out.offset = (t - out.gain * i) / w;
    out.correlation = cov / std::sqrt(var_t * var_i);
    return out;
}

// Biweights of what is left between landmarks and frame.
void weigh(const std::vector<Landmark>& landmarks, const std::vector<double>& seen, const Tie& tie,
           std::vector<double>& weights) {
    constexpr std::size_t every = 7;
    constexpr double to_deviation = 1.4826;
    constexpr double reach_in_deviations = 4.685;
    constexpr double least_deviation = 0.01;
    std::vector<double> sizes;
    for (std::size_t k = 0; k < landmarks.size(); k += every)
        if (!std::isnan(seen[k]))
            sizes.push_back(std::abs(double(landmarks[k].value) - tie.gain * seen[k] - tie.offset));
    if (sizes.empty()) return;
    const auto middle = sizes.begin() + std::ptrdiff_t(sizes.size() / 2);
    std::nth_element(sizes.begin(), middle, sizes.end());
    const double reach = reach_in_deviations * std::max(*middle * to_deviation, least_deviation);
    for (std::size_t k = 0; k < landmarks.size(); ++k) {
        if (std::isnan(seen[k])) continue;
        const double u = (double(landmarks[k].value) - tie.gain * seen[k] - tie.offset) / reach;
        weights[k] = std::abs(u) < 1 ? (1 - u * u) * (1 - u * u) : 0;
    }
}

// The step that moves the landmarks onto gain * seen + offset best, with both fitted along; false when the texture does
// not determine it. The number of parameters is known when this is compiled: the sums then stay in registers.
template <std::size_t parameters>
bool solve(const std::vector<Landmark>& landmarks, const std::vector<double>& seen, const std::vector<double>& weights,
           Point middle, double radius, Step& step) {
    constexpr std::size_t unknowns = parameters + 2;
    std::array<std::array<double, unknowns>, unknowns> square{};
    std::array<double, unknowns> right{};
    std::array<double, unknowns> row{};
    for (std::size_t k = 0; k < landmarks.size(); ++k) {
        if (std::isnan(seen[k]) || weights[k] == 0) continue;
        const Landmark& l = landmarks[k];
        const double u = (double(l.x) - middle.x) / radius;
        const double v = (double(l.y) - middle.y) / radius;
        const double dx = l.dx;
        const double dy = l.dy;
        const double along = dx * u + dy * v;
        const std::array<double, most_parameters> all{
            dx, dy, dy * u - dx * v, along, dx * u - dy * v, dx * v + dy * u, along * u, along * v};
        // value + row . step = gain * seen + offset
        for (std::size_t a = 0; a < parameters; ++a) row[a] = all[a];
        row[parameters] = -seen[k];
        row[parameters + 1] = -1;
        for (std::size_t a = 0; a < unknowns; ++a) {
            const double weighted = weights[k] * row[a];
            right[a] -= weighted * double(l.value);
            for (std::size_t b = a; b < unknowns; ++b) square[a][b] += weighted * row[b];
        }
    }
    constexpr int n = int(unknowns);
    cv::Mat left(n, n, CV_64F);
    cv::Mat wanted(n, 1, CV_64F);
    for (int a = 0; a < n; ++a) {
        wanted.at<double>(a) = right[std::size_t(a)];
        for (int b = 0; b < n; ++b)
            left.at<double>(a, b) = square[std::size_t(std::min(a, b))][std::size_t(std::max(a, b))];
    }
    cv::Mat answer;
    if (!cv::solve(left, wanted, answer, cv::DECOMP_CHOLESKY)) return false;
    step = {};
    for (std::size_t a = 0; a < parameters; ++a) {
        step[a] = answer.at<double>(int(a));
        if (!std::isfinite(step[a])) return false;
    }
    return true;
}

using Solve = bool (*)(const std::vector<Landmark>&, const std::vector<double>&, const std::vector<double>&, Point,
                       double, Step&);

Solve solver_of(Model model) {
    switch (model) {
        case Model::shift:
            return solve<2>;
        case Model::rigid:
            return solve<3>;
        case Model::similarity:
            return solve<4>;
        default:
            return solve<most_parameters>;
    }
}

}  // namespace

std::vector<Landmark> landmarks_of(const cv::Mat& contrast, const cv::Mat& trust, std::size_t most) {
    constexpr int columns = 16;
    constexpr int rows = 12;
    constexpr float least_change = 0.02F;
    cv::Mat dx, dy;
    cv::Sobel(contrast, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(contrast, dy, CV_32F, 0, 1, 3, 0.125);
    const std::size_t each = std::max<std::size_t>(16, most / (columns * rows));
    const int width = contrast.cols - 2 * border;
    const int height = contrast.rows - 2 * border;
    std::vector<std::vector<Landmark>> blocks(columns * rows);
    parallel_for(0, columns * rows, [&](int n) {
        const int left = border + width * (n % columns) / columns;
        const int right = border + width * (n % columns + 1) / columns;
        const int top = border + height * (n / columns) / rows;
        const int bottom = border + height * (n / columns + 1) / rows;
        // Squared change where it counts, from left to right and down.
        std::vector<float> changes;
        const auto change = [&](int x, int y) {
            const float a = dx.at<float>(y, x);
            const float b = dy.at<float>(y, x);
            const bool trusted = trust.empty() || trust.at<float>(y, x) >= 0.5F;
            return trusted ? a * a + b * b : 0;
        };
        for (int y = top; y < bottom; ++y)
            for (int x = left; x < right; ++x)
                if (const float c = change(x, y); c > least_change * least_change) changes.push_back(c);
        float least = least_change * least_change;
        if (changes.size() > each) {
            const auto last = changes.begin() + std::ptrdiff_t(each);
            std::nth_element(changes.begin(), last, changes.end(), std::greater<>());
            least = *last;
        }
        // In the order in which they lie in memory, which is how they are looked up.
        std::vector<Landmark>& block = blocks[std::size_t(n)];
        for (int y = top; y < bottom; ++y)
            for (int x = left; x < right; ++x)
                if (change(x, y) > least)
                    block.push_back(
                        {float(x), float(y), contrast.at<float>(y, x), dx.at<float>(y, x), dy.at<float>(y, x)});
    });
    std::vector<Landmark> out;
    for (const std::vector<Landmark>& block : blocks) out.insert(out.end(), block.begin(), block.end());
    return out;
}

Fit descend(const std::vector<Landmark>& landmarks, cv::Size size, const cv::Mat& frame, const Matrix& start,
            Model model, int most_steps, double close_px) {
    const Point middle{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
    const double radius = size.width / 2.0;
    const Solve solve = solver_of(model);
    std::vector<double> seen(landmarks.size());
    std::vector<double> weights(landmarks.size(), 1);
    Matrix to_frame = start;
    for (int i = 0;; ++i) {
        look(landmarks, frame, to_frame, seen);
        Tie tie = tie_of(landmarks, seen, weights);
        if (tie.n < least_overlap * double(landmarks.size()) || tie.n < 50 || tie.correlation <= 0) return {};
        weigh(landmarks, seen, tie, weights);
        Step step{};
        if (!solve(landmarks, seen, weights, middle, radius, step)) return {};
        double moved = 0;
        for (const double s : step) moved = std::max(moved, std::abs(s));
        if (moved < close_px || i == most_steps) {
            const std::vector<double> all_alike(landmarks.size(), 1);
            return {to_frame, tie_of(landmarks, seen, all_alike).correlation};
        }
        to_frame = normalised(to_frame * inverse(change_of(step, model, middle, radius)));
    }
}

}  // namespace bp
