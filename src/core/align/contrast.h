// Pictures as local contrast. Internal to the room.
#pragma once

#include <opencv2/core.hpp>
#include <optional>
#include <vector>

#include "image/geometry.h"

namespace bp {

// What differs from its surroundings, in deviations of these: exposure and slow changes of light leave no trace. Flat
// surroundings count as if they had the contrast of faint noise.
cv::Mat local_contrast(const cv::Mat& brightness);

// The picture and its halves (means of 2 x 2 pixels, as at_level() counts) down to about `coarsest` pixels.
std::vector<cv::Mat> halves(const cv::Mat& picture, int coarsest);

// A picture at a place between four of its pixels; none outside it.
inline std::optional<double> between_pixels(const cv::Mat& picture, Point p) {
    if (!(p.x >= 0 && p.y >= 0 && p.x < picture.cols - 1 && p.y < picture.rows - 1)) return std::nullopt;
    const int x = int(p.x);
    const int y = int(p.y);
    const double u = p.x - x;
    const double v = p.y - y;
    const auto* top = picture.ptr<float>(y) + x;
    const auto* bottom = picture.ptr<float>(y + 1) + x;
    return (double(top[0]) * (1 - u) + double(top[1]) * u) * (1 - v) +
           (double(bottom[0]) * (1 - u) + double(bottom[1]) * u) * v;
}

}  // namespace bp
