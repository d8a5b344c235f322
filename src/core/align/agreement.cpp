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
constexpr int every = 2;

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

Block look_at(const Judged& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex,
              const cv::Rect& where) {
    double total = 0, n = 0, a = 0, b = 0, aa = 0, bb = 0, ab = 0;
    double xx = 0, xy = 0, yy = 0, xt = 0, yt = 0;
    for (int y = where.y; y < where.y + where.height; y += every) {
        const auto* still_row = reference.still.ptr<float>(y);
        const auto* dx_row = reference.dx.ptr<float>(y);
        const auto* dy_row = reference.dy.ptr<float>(y);
        for (int x = where.x; x < where.x + where.width; x += every) {
            total += 1;
            Point p{double(x), double(y)};
            if (flex) {
                const Point bent = flex->at(p);
                p = {p.x + bent.x, p.y + bent.y};
            }
            const auto found = between_pixels(frame, to_frame(p));
            if (!found) continue;
            const double s = still_row[x];
            const double m = *found;
            const double gx = dx_row[x];
            const double gy = dy_row[x];
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
    }
    Block out;
    if (n < 0.7 * total) return out;
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

Judged judged(const cv::Mat& contrast) {
    Judged out;
    out.still = without_noise(contrast);
    cv::Sobel(out.still, out.dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(out.still, out.dy, CV_32F, 0, 1, 3, 0.125);
    return out;
}

Agreement agreement_of(const Judged& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex) {
    const cv::Size size = reference.still.size();
    const cv::Mat quiet = without_noise(frame);
    Agreement out;
    std::vector<double> shifts;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            const cv::Rect block(cv::Point(size.width * i / columns, size.height * j / rows),
                                 cv::Point(size.width * (i + 1) / columns, size.height * (j + 1) / rows));
            const Block found = look_at(reference, quiet, to_frame, flex, block);
            out.blocks += found.textured ? 1 : 0;
            if (found.same) shifts.push_back(found.shift);
        }
    if (out.blocks == 0 || shifts.empty()) return out;
    out.share = double(shifts.size()) / out.blocks;
    out.residual_px = middle_of(shifts);
    return out;
}

}  // namespace bp
