#include "align/descent.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace bp {
namespace {

constexpr int border = 3;  // pixels of the reference that are left out: their gradients are not whole
constexpr double close_enough = 0.001;
constexpr double least_overlap = 0.25;

cv::Mat smooth(const cv::Mat& image) {
    cv::Mat out;
    cv::GaussianBlur(image, out, cv::Size(5, 5), 0);
    return out;
}

// Everything that a step needs, gathered in one pass over the overlap. T: reference, I: frame, J: how T changes with
// each parameter (shift x, shift y, turn about the middle).
struct Sums {
    double n = 0, t = 0, i = 0, tt = 0, ii = 0, ti = 0;
    std::array<double, 3> j{}, jt{}, ji{};
    std::array<std::array<double, 3>, 3> jj{};
};

struct Images {
    cv::Mat still, dx, dy, moving;
    Point middle;
    double radius;  // turns are measured in pixels at this distance, so that all parameters weigh alike
};

bool sample(const cv::Mat& image, Point p, double& value) {
    const int x = int(std::floor(p.x));
    const int y = int(std::floor(p.y));
    if (x < 0 || y < 0 || x + 1 >= image.cols || y + 1 >= image.rows) return false;
    const double u = p.x - x;
    const double v = p.y - y;
    const auto* top = image.ptr<float>(y) + x;
    const auto* bottom = image.ptr<float>(y + 1) + x;
    value = (double(top[0]) * (1 - u) + double(top[1]) * u) * (1 - v) +
            (double(bottom[0]) * (1 - u) + double(bottom[1]) * u) * v;
    return true;
}

void add_row(const Images& images, const Matrix& to_frame, int y, Sums& sums) {
    const auto* still = images.still.ptr<float>(y);
    const auto* dx = images.dx.ptr<float>(y);
    const auto* dy = images.dy.ptr<float>(y);
    for (int x = border; x < images.still.cols - border; ++x) {
        double i = 0;
        if (!sample(images.moving, to_frame({double(x), double(y)}), i)) continue;
        const double t = still[x];
        const double turn =
            (double(dy[x]) * (x - images.middle.x) - double(dx[x]) * (y - images.middle.y)) / images.radius;
        const std::array<double, 3> j{double(dx[x]), double(dy[x]), turn};
        sums.n += 1;
        sums.t += t;
        sums.i += i;
        sums.tt += t * t;
        sums.ii += i * i;
        sums.ti += t * i;
        for (std::size_t a = 0; a < 3; ++a) {
            sums.j[a] += j[a];
            sums.jt[a] += j[a] * t;
            sums.ji[a] += j[a] * i;
            for (std::size_t b = a; b < 3; ++b) sums.jj[a][b] += j[a] * j[b];
        }
    }
}

Sums sums_of(const Images& images, const Matrix& to_frame) {
    Sums sums;
    for (int y = border; y < images.still.rows - border; ++y) add_row(images, to_frame, y, sums);
    return sums;
}

double correlation_of(const Sums& s) {
    const double tt = s.tt - s.t * s.t / s.n;
    const double ii = s.ii - s.i * s.i / s.n;
    const double ti = s.ti - s.t * s.i / s.n;
    constexpr double flat = 1e-12;
    return tt < flat * s.n || ii < flat * s.n ? -1 : ti / std::sqrt(tt * ii);
}

// The parameters that move T onto gain * I + offset best; false when the texture does not determine them.
bool solve(const Sums& s, int parameters, std::array<double, 3>& step) {
    const double ii = s.ii - s.i * s.i / s.n;
    const double gain = (s.ti - s.t * s.i / s.n) / ii;
    const double offset = (s.t - gain * s.i) / s.n;
    cv::Mat hessian(parameters, parameters, CV_64F);
    cv::Mat right(parameters, 1, CV_64F);
    for (int a = 0; a < parameters; ++a) {
        const auto p = std::size_t(a);
        right.at<double>(a) = gain * s.ji[p] + offset * s.j[p] - s.jt[p];
        for (int b = 0; b < parameters; ++b)
            hessian.at<double>(a, b) = s.jj[std::size_t(std::min(a, b))][std::size_t(std::max(a, b))];
    }
    cv::Mat answer;
    if (!cv::solve(hessian, right, answer, cv::DECOMP_CHOLESKY)) return false;
    step = {0, 0, 0};
    for (int a = 0; a < parameters; ++a) step[std::size_t(a)] = answer.at<double>(a);
    return std::isfinite(step[0]) && std::isfinite(step[1]) && std::isfinite(step[2]);
}

}  // namespace

Fit descend(const cv::Mat& reference, const cv::Mat& frame, const Matrix& start, Model model, int most_steps) {
    Images images{smooth(reference),   {}, {}, smooth(frame), {reference.cols / 2.0, reference.rows / 2.0},
                  reference.cols / 2.0};
    cv::Sobel(images.still, images.dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(images.still, images.dy, CV_32F, 0, 1, 3, 0.125);
    const int parameters = model == Model::shift ? 2 : 3;
    Matrix to_frame = start;
    for (int i = 0;; ++i) {
        const Sums sums = sums_of(images, to_frame);
        if (sums.n < least_overlap * double(reference.total())) return {};
        const double correlation = correlation_of(sums);
        std::array<double, 3> step{};
        if (correlation <= 0 || !solve(sums, parameters, step)) return {};
        const double moved = std::max({std::abs(step[0]), std::abs(step[1]), std::abs(step[2])});
        if (moved < close_enough || i == most_steps) return {to_frame, correlation};
        const Matrix change = Matrix::rigid(step[2] / images.radius, images.middle, step[0], step[1]);
        to_frame = to_frame * inverse(change);
    }
}

}  // namespace bp
