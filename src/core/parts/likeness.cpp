#include "parts/likeness.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace bp {

Raster8 likeness(const Raster16& picture, int x, int y, double reach, bool everywhere) {
    constexpr int about = 1;  // pixels to either side
    const Size size = picture.size();
    Raster8 out(size, 1);
    if (x < 0 || y < 0 || x >= size.width || y >= size.height) return out;
    std::array<double, 3> spot{};
    int count = 0;
    for (int v = std::max(0, y - about); v <= std::min(size.height - 1, y + about); ++v)
        for (int u = std::max(0, x - about); u <= std::min(size.width - 1, x + about); ++u) {
            ++count;
            for (int c = 0; c < picture.channels(); ++c) spot[std::size_t(c)] += picture.at(u, v, c);
        }
    cv::Mat like(size.height, size.width, CV_8U);
    for (int v = 0; v < size.height; ++v)
        for (int u = 0; u < size.width; ++u) {
            bool alike = true;
            for (int c = 0; c < picture.channels(); ++c)
                alike = alike && std::abs(picture.at(u, v, c) - spot[std::size_t(c)] / count) <= reach * 65535;
            like.at<std::uint8_t>(v, u) = alike ? 255 : 0;
        }
    // The place itself is always like itself, whatever noise its one pixel has.
    like.at<std::uint8_t>(y, x) = 255;
    cv::Mat labels;
    if (!everywhere) cv::connectedComponents(like, labels);
    for (int v = 0; v < size.height; ++v)
        for (int u = 0; u < size.width; ++u)
            if (like.at<std::uint8_t>(v, u) && (everywhere || labels.at<int>(v, u) == labels.at<int>(y, x)))
                out.at(u, v, 0) = 255;
    return out;
}

}  // namespace bp
