#include "align/find_stars.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "align/bridge.h"

namespace bp {
namespace {

constexpr double star_blur = 0.8;    // pixels: of a star as lenses show it
constexpr double ground_blur = 5.0;  // what is wider than this is no star
constexpr int tile = 64;             // in which noise is measured
constexpr double stands_out = 5.0;   // deviations of noise
constexpr double belongs = 2.5;      // to a star that stands out

// The noise of each tile, 1.4826 times the median distance from zero, as a picture of the same size.
cv::Mat noise_of(const cv::Mat& spots) {
    cv::Mat coarse((spots.rows + tile - 1) / tile, (spots.cols + tile - 1) / tile, CV_32F);
    std::vector<float> values;
    for (int j = 0; j < coarse.rows; ++j)
        for (int i = 0; i < coarse.cols; ++i) {
            values.clear();
            for (int y = j * tile; y < std::min(spots.rows, (j + 1) * tile); y += 2)
                for (int x = i * tile; x < std::min(spots.cols, (i + 1) * tile); x += 2)
                    values.push_back(std::abs(spots.at<float>(y, x)));
            const auto middle = values.begin() + std::ptrdiff_t(values.size() / 2);
            std::nth_element(values.begin(), middle, values.end());
            constexpr float least = 2e-4F;
            coarse.at<float>(j, i) = std::max(1.4826F * *middle, least);
        }
    cv::Mat out;
    cv::resize(coarse, out, spots.size(), 0, 0, cv::INTER_LINEAR);
    return out;
}

}  // namespace

std::vector<Star> find_stars(const RasterF& brightness, std::size_t most, double longest) {
    const cv::Mat picture = as_mat(brightness);
    cv::Mat fine, ground, spots;
    cv::GaussianBlur(picture, fine, cv::Size(0, 0), star_blur);
    cv::GaussianBlur(picture, ground, cv::Size(0, 0), ground_blur);
    spots = fine - ground;
    const cv::Mat noise = noise_of(spots);
    const cv::Mat near = spots > belongs * noise;
    cv::Mat labels, stats, centroids;
    const int count = cv::connectedComponentsWithStats(near, labels, stats, centroids, 8);
    struct Sum {
        double light = 0, x = 0, y = 0;
        bool out = false;
    };
    std::vector<Sum> sums(std::size_t(count), Sum{});
    for (int y = 0; y < spots.rows; ++y)
        for (int x = 0; x < spots.cols; ++x) {
            const int label = labels.at<int>(y, x);
            if (label == 0) continue;
            Sum& sum = sums[std::size_t(label)];
            const double light = spots.at<float>(y, x);
            sum.light += light;
            sum.x += light * x;
            sum.y += light * y;
            sum.out = sum.out || light > stands_out * double(noise.at<float>(y, x));
        }
    constexpr int border = 6;
    constexpr int fewest_pixels = 3;
    const double widest = longest + 10;
    std::vector<Star> out;
    for (int label = 1; label < count; ++label) {
        const Sum& sum = sums[std::size_t(label)];
        const int* s = stats.ptr<int>(label);
        const int width = s[cv::CC_STAT_WIDTH];
        const int height = s[cv::CC_STAT_HEIGHT];
        const int pixels = s[cv::CC_STAT_AREA];
        if (!sum.out || pixels < fewest_pixels || std::hypot(width, height) > widest) continue;
        // Trails are straight and thin: what fills a large square is none.
        if (pixels > 12 * (std::max(width, height) + 4)) continue;
        const Point at{sum.x / sum.light, sum.y / sum.light};
        if (at.x < border || at.y < border || at.x > spots.cols - 1 - border || at.y > spots.rows - 1 - border)
            continue;
        out.push_back({at, sum.light});
    }
    std::sort(out.begin(), out.end(), [](const Star& a, const Star& b) { return a.light > b.light; });
    if (out.size() > most) out.resize(most);
    return out;
}

}  // namespace bp
