#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <vector>

#include "align/align.h"
#include "align/bridge.h"

namespace bp {
namespace {

constexpr int columns = 8;
constexpr int rows = 6;
// Least mean squared gradient, in the weaker direction, that makes a block's shift measurable.
constexpr double least_texture = 2e-6;

cv::Mat smooth(const cv::Mat& image) {
    cv::Mat out;
    cv::GaussianBlur(image, out, cv::Size(0, 0), 1.5);
    return out;
}

// The shift that moves `moved` onto `still` best, to first order; negative when the block has too little texture.
double left_over(const cv::Mat& still, const cv::Mat& moved, const cv::Mat& dx, const cv::Mat& dy) {
    double xx = 0, xy = 0, yy = 0, xt = 0, yt = 0;
    for (int y = 0; y < still.rows; ++y)
        for (int x = 0; x < still.cols; ++x) {
            const double gx = dx.at<float>(y, x);
            const double gy = dy.at<float>(y, x);
            const double gt = double(moved.at<float>(y, x)) - double(still.at<float>(y, x));
            xx += gx * gx;
            xy += gx * gy;
            yy += gy * gy;
            xt += gx * gt;
            yt += gy * gt;
        }
    const double weaker = (xx + yy) / 2 - std::sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
    if (weaker < least_texture * double(still.total())) return -1;
    const double det = xx * yy - xy * xy;
    return std::hypot((yy * xt - xy * yt) / det, (xx * yt - xy * xt) / det);
}

}  // namespace

double residual_after(const RasterF& reference, const RasterF& frame, const Matrix& to_reference) {
    const cv::Mat still = smooth(as_mat(reference));
    const auto& m = to_reference.m;
    const cv::Mat warp = (cv::Mat_<double>(2, 3) << m[0], m[1], m[2], m[3], m[4], m[5]);
    cv::Mat moved;
    cv::warpAffine(smooth(as_mat(frame)), moved, warp, still.size(), cv::INTER_CUBIC, cv::BORDER_REPLICATE);
    cv::Mat dx;
    cv::Mat dy;
    cv::Sobel(still, dx, CV_32F, 1, 0, 3, 0.125);
    cv::Sobel(still, dy, CV_32F, 0, 1, 3, 0.125);
    std::vector<double> shifts;
    // The outer tenth is left alone: there the frame may end.
    const int left = still.cols / 10;
    const int top = still.rows / 10;
    const int width = (still.cols - 2 * left) / columns;
    const int height = (still.rows - 2 * top) / rows;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            const cv::Rect block(left + i * width, top + j * height, width, height);
            const double shift = left_over(still(block), moved(block), dx(block), dy(block));
            if (shift >= 0) shifts.push_back(shift);
        }
    if (shifts.empty()) return -1;
    const auto middle = shifts.begin() + std::ptrdiff_t(shifts.size() / 2);
    std::nth_element(shifts.begin(), middle, shifts.end());
    return *middle;
}

}  // namespace bp
