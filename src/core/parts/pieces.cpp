#include "parts/pieces.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace bp {

std::vector<Rect> pieces_of(const Raster8& mask, int least) {
    const Size size = mask.size();
    const cv::Mat all(size.height, size.width, CV_8U, const_cast<std::uint8_t*>(mask.data().data()));
    cv::Mat labels, statistics, middles;
    const int count = cv::connectedComponentsWithStats(all, labels, statistics, middles);
    std::vector<std::pair<int, Rect>> found;
    for (int i = 1; i < count; ++i) {
        const int area = statistics.at<int>(i, cv::CC_STAT_AREA);
        if (area >= least)
            found.emplace_back(
                area, Rect{statistics.at<int>(i, cv::CC_STAT_LEFT), statistics.at<int>(i, cv::CC_STAT_TOP),
                           statistics.at<int>(i, cv::CC_STAT_WIDTH), statistics.at<int>(i, cv::CC_STAT_HEIGHT)});
    }
    std::stable_sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<Rect> out;
    for (const auto& [area, box] : found) out.push_back(box);
    return out;
}

}  // namespace bp
