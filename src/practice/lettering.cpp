#include "practice/lettering.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace bp::practice {

void letter(Canvas& canvas, const std::string& word, const Box& box, Rgb ink, double opacity) {
    constexpr int face = cv::FONT_HERSHEY_TRIPLEX;
    constexpr double size = 3;
    constexpr int thickness = 4;
    int below = 0;
    const cv::Size extent = cv::getTextSize(word, face, size, thickness, &below);
    cv::Mat plate(extent.height + below + 16, extent.width + 16, CV_8U, cv::Scalar(0));
    cv::putText(plate, word, cv::Point(8, extent.height + 8), face, size, cv::Scalar(255), thickness, cv::LINE_AA);
    const double scale = std::min((box.right - box.left) / plate.cols, (box.bottom - box.top) / plate.rows);
    const Point centre{(box.left + box.right) / 2, (box.top + box.bottom) / 2};
    // Shrunk once to the pixels of the canvas, so that small letters do not flicker away.
    const double least = 1.0 / std::min(plate.cols, plate.rows);
    const double to_pixels = std::clamp(scale * canvas.scale(), least, 1.0);
    cv::Mat small;
    cv::resize(plate, small, cv::Size(), to_pixels, to_pixels, cv::INTER_AREA);
    const double unit = scale / to_pixels;
    const Shape area = bar(centre.x - small.cols * unit / 2, centre.y - small.rows * unit / 2,
                           centre.x + small.cols * unit / 2, centre.y + small.rows * unit / 2);
    const auto cover = [&](Point p) {
        const double x = (p.x - area.box.left) / unit - 0.5;
        const double y = (p.y - area.box.top) / unit - 0.5;
        const auto pick = [&](int u, int v) {
            return u < 0 || v < 0 || u >= small.cols || v >= small.rows ? 0.0 : small.at<unsigned char>(v, u) / 255.0;
        };
        const int ix = int(std::floor(x));
        const int iy = int(std::floor(y));
        const double fx = x - ix;
        const double fy = y - iy;
        return (pick(ix, iy) * (1 - fx) + pick(ix + 1, iy) * fx) * (1 - fy) +
               (pick(ix, iy + 1) * (1 - fx) + pick(ix + 1, iy + 1) * fx) * fy;
    };
    canvas.each([&](Point p, Rgb old) {
        if (p.x < area.box.left || p.x > area.box.right || p.y < area.box.top || p.y > area.box.bottom) return old;
        return mix(old, ink, cover(p) * opacity);
    });
}

}  // namespace bp::practice
