#include "align/agreement.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "align/contrast.h"
#include "base/median.h"

namespace bp {
namespace {

constexpr int columns = 12;
constexpr int rows = 9;
// Least mean squared change, in the weaker direction, that makes a block's shift measurable.
constexpr double least_texture = 2e-3;
constexpr double shows_the_same = 0.6;  // correlation
// Neighbours tell the same once noise is gone.
constexpr int every = 3;

// Fine noise would pass for a difference.
cv::Mat without_noise(const cv::Mat& contrast) {
    cv::Mat out;
    cv::GaussianBlur(contrast, out, cv::Size(9, 9), 1.5);
    return out;
}

struct Block {
    bool textured = false;
    bool same = false;
    double shift = 0;
};

kernels::Landmarks bent(const kernels::Landmarks& landmarks, const Flex& flex) {
    std::vector<kernels::Landmark> out;
    out.reserve(landmarks.size());
    for (std::size_t i = 0; i < landmarks.size(); ++i) {
        const Point p{landmarks.x()[i], landmarks.y()[i]};
        const Point off = flex.at(p);
        out.push_back(
            {float(p.x + off.x), float(p.y + off.y), landmarks.value()[i], landmarks.dx()[i], landmarks.dy()[i]});
    }
    return kernels::Landmarks(out);
}

Block look_at(const kernels::Landmarks& block, const cv::Mat& frame, const Matrix& to_frame) {
    constexpr double least_share = 0.7;
    std::vector<float> seen(block.padded());
    const std::vector<float> all_alike(block.padded(), 1.0F);
    kernels::look_up(block, sight_of(frame), to_frame, seen.data());
    const kernels::TieSums tie = kernels::tie_sums(block, seen.data(), all_alike.data());
    Block out;
    if (tie.n < least_share * double(block.size())) return out;
    const auto [square, right] = kernels::normal_sums(2, block, seen.data(), all_alike.data(), {}, 1);
    const double xx = square[0][0];
    const double xy = square[0][1];
    const double yy = square[1][1];
    const double weaker = (xx + yy) / 2 - std::sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
    out.textured = weaker > least_texture * tie.n;
    if (!out.textured) return out;
    const double spread = std::sqrt(std::max(0.0, (tie.tt - tie.t * tie.t / tie.n) * (tie.ii - tie.i * tie.i / tie.n)));
    out.same = spread > 0 && (tie.ti - tie.t * tie.i / tie.n) / spread > shows_the_same;
    // Change times what is seen, less change times the reference's own.
    const double xt = right[0] - square[0][2];
    const double yt = right[1] - square[1][2];
    const double det = xx * yy - xy * xy;
    out.shift = std::hypot((yy * xt - xy * yt) / det, (xx * yt - xy * xt) / det);
    return out;
}

}  // namespace

Judged judged(const cv::Mat& contrast) {
    const cv::Mat still = without_noise(contrast);
    cv::Mat dx, dy;
    cv::Sobel(still, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(still, dy, CV_32F, 0, 1, 3, 0.125);
    Judged out;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            std::vector<kernels::Landmark> block;
            for (int y = still.rows * j / rows; y < still.rows * (j + 1) / rows; y += every)
                for (int x = still.cols * i / columns; x < still.cols * (i + 1) / columns; x += every)
                    block.push_back(
                        {float(x), float(y), still.at<float>(y, x), dx.at<float>(y, x), dy.at<float>(y, x)});
            out.emplace_back(block);
        }
    return out;
}

Agreement agreement_of(const Judged& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex) {
    const cv::Mat quiet = without_noise(frame);
    Agreement out;
    std::vector<double> shifts;
    for (const kernels::Landmarks& block : reference) {
        const Block found = look_at(flex ? bent(block, *flex) : block, quiet, to_frame);
        out.blocks += found.textured ? 1 : 0;
        if (found.same) shifts.push_back(found.shift);
    }
    if (out.blocks == 0 || shifts.empty()) return out;
    out.share = double(shifts.size()) / out.blocks;
    out.residual_px = middle_of(shifts);
    return out;
}

}  // namespace bp
