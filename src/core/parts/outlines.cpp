#include "parts/outlines.h"

#include <cmath>
#include <opencv2/imgproc.hpp>

namespace bp {

std::vector<std::vector<Point>> outlines_of(const Mask& mask, int side) {
    std::vector<std::vector<Point>> out;
    const Rect bounds = mask.bounds();
    if (bounds.empty()) return out;
    const int level = level_within(mask.size(), side);
    Rect area = at_level(bounds, level);
    area = {area.left - 1, area.top - 1, area.width + 2, area.height + 2};
    cv::Mat kept(area.height, area.width, CV_8U);
    for (int y = 0; y < area.height; ++y)
        mask.read_row(level, area.top + y, area.left, area.width, kept.ptr<std::uint8_t>(y));
    kept = kept >= 128;
    std::vector<std::vector<cv::Point>> found;
    cv::findContours(kept, found, cv::RETR_CCOMP, cv::CHAIN_APPROX_SIMPLE);
    const double unit = std::ldexp(1.0, level);
    for (const auto& line : found) {
        std::vector<Point>& closed = out.emplace_back();
        for (const cv::Point& p : line)
            closed.push_back({(area.left + p.x + 0.5) * unit - 0.5, (area.top + p.y + 0.5) * unit - 0.5});
    }
    return out;
}

}  // namespace bp
