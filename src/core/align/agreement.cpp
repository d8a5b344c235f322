#include "align/agreement.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "align/bend.h"
#include "base/median.h"

namespace bp {
namespace {

constexpr int columns = 12;
constexpr int rows = 9;
// Least mean squared change, in the weaker direction, that makes a block's shift measurable.
constexpr double least_texture = 2e-3;
constexpr double shows_the_same = 0.6;  // correlation

struct Block {
    bool textured = false;
    bool same = false;
    double shift = 0;
};

Block look_at(const cv::Mat& still, const cv::Mat& moved, const cv::Mat& inside, const cv::Mat& dx, const cv::Mat& dy) {
    double n = 0, a = 0, b = 0, aa = 0, bb = 0, ab = 0;
    double xx = 0, xy = 0, yy = 0, xt = 0, yt = 0;
    for (int y = 0; y < still.rows; ++y)
        for (int x = 0; x < still.cols; ++x) {
            if (inside.at<unsigned char>(y, x) < 255) continue;
            const double s = still.at<float>(y, x);
            const double m = moved.at<float>(y, x);
            const double gx = dx.at<float>(y, x);
            const double gy = dy.at<float>(y, x);
            n += 1;
            a += s;
            b += m;
            aa += s * s;
            bb += m * m;
            ab += s * m;
            xx += gx * gx;
            xy += gx * gy;
            yy += gy * gy;
            xt += gx * (m - s);
            yt += gy * (m - s);
        }
    Block out;
    if (n < 0.7 * double(still.total())) return out;
    const double weaker = (xx + yy) / 2 - std::sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
    out.textured = weaker > least_texture * n;
    if (!out.textured) return out;
    const double spread = std::sqrt(std::max(0.0, (aa - a * a / n) * (bb - b * b / n)));
    out.same = spread > 0 && (ab - a * b / n) / spread > shows_the_same;
    const double det = xx * yy - xy * xy;
    out.shift = std::hypot((yy * xt - xy * yt) / det, (xx * yt - xy * xt) / det);
    return out;
}

}  // namespace

Agreement agreement_of(const cv::Mat& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex) {
    cv::Mat still, other, moved, inside, dx, dy;
    // Fine noise would pass for a difference.
    cv::GaussianBlur(reference, still, cv::Size(0, 0), 1.5);
    cv::GaussianBlur(frame, other, cv::Size(0, 0), 1.5);
    moved = seen_through(other, still.size(), to_frame, flex, &inside);
    cv::Sobel(still, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(still, dy, CV_32F, 0, 1, 3, 0.125);
    Agreement out;
    std::vector<double> shifts;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            const cv::Rect block(cv::Point(still.cols * i / columns, still.rows * j / rows),
                                 cv::Point(still.cols * (i + 1) / columns, still.rows * (j + 1) / rows));
            const Block found = look_at(still(block), moved(block), inside(block), dx(block), dy(block));
            out.blocks += found.textured ? 1 : 0;
            if (found.same) shifts.push_back(found.shift);
        }
    if (out.blocks == 0 || shifts.empty()) return out;
    out.share = double(shifts.size()) / out.blocks;
    out.residual_px = middle_of(shifts);
    return out;
}

}  // namespace bp
