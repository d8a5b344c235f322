#include "zones/suggest.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

#include "zones/snap.h"

namespace bp {
namespace {

constexpr int detail_px = 9;  // side of the square that a pixel is held against

cv::Mat as_mat(const RasterF& raster) {
    return {raster.height(), raster.width(), CV_32FC1, const_cast<float*>(raster.row(0))};
}

RasterF raster_of(const cv::Mat& mat) {
    RasterF out({mat.cols, mat.rows}, 1);
    for (int y = 0; y < mat.rows; ++y) std::copy_n(mat.ptr<float>(y), mat.cols, out.row(y));
    return out;
}

// Distance of every pixel to the nearest one of that belief.
cv::Mat distance_to(const Raster8& belief, std::uint8_t value) {
    cv::Mat apart(belief.height(), belief.width(), CV_8UC1);
    for (int y = 0; y < belief.height(); ++y)
        for (int x = 0; x < belief.width(); ++x) apart.at<std::uint8_t>(y, x) = belief.at(x, y, 0) == value ? 0 : 255;
    cv::Mat out;
    cv::distanceTransform(apart, out, cv::DIST_L2, cv::DIST_MASK_5);
    return out;
}

}  // namespace

RasterF fine_detail(const RasterF& brightness) {
    cv::Mat smooth;
    cv::boxFilter(as_mat(brightness), smooth, CV_32F, {detail_px, detail_px});
    return raster_of(as_mat(brightness) - smooth);
}

void Common::add(const RasterF& detail, const std::function<bool(int, int)>& reached) {
    for (int y = 0; y < sum_.height(); ++y)
        for (int x = 0; x < sum_.width(); ++x) {
            if (!reached(x, y)) continue;
            const float v = detail.at(x, y, 0);
            sum_.at(x, y, 0) += v;
            squares_.at(x, y, 0) += v * v;
            count_.at(x, y, 0) += 1;
        }
}

RasterF Common::sureness() const {
    constexpr float fewest = 3;
    constexpr float least_variance = 1e-7F;  // of samples that run from 0 to 1: frames without noise
    RasterF out(sum_.size(), 1);
    for (std::size_t i = 0; i < out.data().size(); ++i) {
        const float n = count_.data()[i];
        if (n < fewest) continue;
        const float mean = sum_.data()[i] / n;
        const float variance = std::max(least_variance, squares_.data()[i] / n - mean * mean);
        out.data()[i] = mean * mean * n / variance;
    }
    return out;
}

Raster8 belief_of_motion(const Common& as_sky, const Common& as_land) {
    constexpr float surely = 36;  // six deviations of a mean
    const RasterF turning = as_sky.sureness();
    const RasterF standing = as_land.sureness();
    Raster8 out(turning.size(), 1);
    long sky = 0, land = 0;
    for (std::size_t i = 0; i < out.data().size(); ++i) {
        const float t = turning.data()[i];
        const float s = standing.data()[i];
        out.data()[i] = t > surely && t > s ? 255 : s > surely && s > t ? 0 : 128;
        sky += out.data()[i] == 255 ? 1 : 0;
        land += out.data()[i] == 0 ? 1 : 0;
    }
    if (sky == 0 || land == 0) return {};
    const cv::Mat to_sky = distance_to(out, 255);
    const cv::Mat to_land = distance_to(out, 0);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x)
            if (out.at(x, y, 0) == 128)
                out.at(x, y, 0) = to_sky.at<float>(y, x) <= to_land.at<float>(y, x) ? likely_sky : likely_land;
    return out;
}

Raster8 without_islands(const Raster8& cut, double share) {
    Raster8 out = cut.clone();
    const auto least = int(share * cut.width() * cut.height());
    for (const std::uint8_t kind : {std::uint8_t{0}, std::uint8_t{255}}) {
        cv::Mat same(cut.height(), cut.width(), CV_8UC1);
        for (int y = 0; y < cut.height(); ++y)
            for (int x = 0; x < cut.width(); ++x) same.at<std::uint8_t>(y, x) = out.at(x, y, 0) == kind ? 255 : 0;
        cv::Mat labels, facts, middles;
        cv::connectedComponentsWithStats(same, labels, facts, middles, 4, CV_32S);
        for (int y = 0; y < cut.height(); ++y)
            for (int x = 0; x < cut.width(); ++x) {
                const int label = labels.at<int>(y, x);
                if (label > 0 && facts.at<int>(label, cv::CC_STAT_AREA) < least)
                    out.at(x, y, 0) = std::uint8_t(255 - kind);
            }
    }
    return out;
}

}  // namespace bp
