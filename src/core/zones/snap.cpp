#include "zones/snap.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace bp {
namespace {

// The matrix must not outlive the raster and must not be written to.
cv::Mat as_mat(const Raster8& raster) {
    return {raster.height(), raster.width(), CV_8UC(raster.channels()), const_cast<std::uint8_t*>(raster.row(0))};
}

cv::Mat disc(int reach) {
    return cv::getStructuringElement(cv::MORPH_ELLIPSE, {2 * reach + 1, 2 * reach + 1});
}

// Stretched so that all but its darkest and brightest hundredth fills the range: in a dark picture colours would hardly
// tell apart.
cv::Mat stretched(const cv::Mat& picture) {
    std::array<long, 256> counts{};
    for (int y = 0; y < picture.rows; ++y)
        for (int x = 0; x < picture.cols * picture.channels(); ++x) ++counts[picture.ptr<std::uint8_t>(y)[x]];
    const long all = long(picture.total()) * picture.channels();
    const auto level_of = [&](double share) {
        long sum = 0;
        int v = 0;
        while (v < 255 && double(sum += counts[std::size_t(v)]) < share * double(all)) ++v;
        return v;
    };
    const int low = level_of(0.01);
    const int high = std::max(low + 8, level_of(0.99));
    cv::Mat out;
    picture.convertTo(out, CV_8U, 255.0 / (high - low), -255.0 * low / (high - low));
    return out;
}

// What pixels are told apart by: brightness, warmth and height in the picture. Height, because a sky is seldom of one
// colour from top to bottom, and what is dark high up may be bright beside the land.
cv::Mat features_of(const cv::Mat& picture) {
    constexpr double height_counts = 160;  // beside 255 of brightness
    cv::Mat out(picture.rows, picture.cols, CV_8UC3);
    const int channels = picture.channels();
    for (int y = 0; y < picture.rows; ++y)
        for (int x = 0; x < picture.cols; ++x) {
            const std::uint8_t* p = picture.ptr<std::uint8_t>(y) + x * channels;
            const int red = p[0];
            const int green = channels == 3 ? p[1] : red;
            const int blue = channels == 3 ? p[2] : red;
            out.at<cv::Vec3b>(y, x) = {std::uint8_t((red + green + blue) / 3), std::uint8_t(128 + (red - blue) / 2),
                                       std::uint8_t(height_counts * y / picture.rows)};
        }
    return out;
}

}  // namespace

Raster8 belief_of(const Raster8& rough, int reach) {
    cv::Mat sky, surely_sky, maybe_sky;
    cv::threshold(as_mat(rough), sky, 127, 255, cv::THRESH_BINARY);
    cv::erode(sky, surely_sky, disc(reach));
    cv::dilate(sky, maybe_sky, disc(reach));
    Raster8 out(rough.size(), 1);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x) {
            const bool is_sky = sky.at<std::uint8_t>(y, x) != 0;
            const bool sure = is_sky ? surely_sky.at<std::uint8_t>(y, x) != 0 : maybe_sky.at<std::uint8_t>(y, x) == 0;
            out.at(x, y, 0) = is_sky ? (sure ? std::uint8_t{255} : likely_sky) : (sure ? std::uint8_t{0} : likely_land);
        }
    return out;
}

Raster8 cut_along_edges(const Raster8& picture, const Raster8& belief) {
    constexpr int rounds = 4;
    cv::Mat labels(belief.height(), belief.width(), CV_8UC1);
    long sky = 0, land = 0;
    for (int y = 0; y < belief.height(); ++y)
        for (int x = 0; x < belief.width(); ++x) {
            const std::uint8_t b = belief.at(x, y, 0);
            labels.at<std::uint8_t>(y, x) = b == 255  ? cv::GC_FGD
                                            : b == 0  ? cv::GC_BGD
                                            : b < 128 ? cv::GC_PR_BGD
                                                      : cv::GC_PR_FGD;
            sky += b == 255 ? 1 : 0;
            land += b == 0 ? 1 : 0;
        }
    // The models of colour need some pixels each.
    constexpr long fewest = 64;
    if (sky >= fewest && land >= fewest && sky + land < long(labels.total())) {
        cv::Mat of_land, of_sky;
        cv::grabCut(features_of(stretched(as_mat(picture))), labels, {}, of_land, of_sky, rounds,
                    cv::GC_INIT_WITH_MASK);
    }
    Raster8 out(belief.size(), 1);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x) {
            const int label = labels.at<std::uint8_t>(y, x);
            out.at(x, y, 0) = label == cv::GC_FGD || label == cv::GC_PR_FGD ? 255 : 0;
        }
    return out;
}

Raster8 refined_by(const Raster8& guide, const Raster8& cut, int reach, Job& job) {
    constexpr int strip = 256;     // rows at a time, so that 32-bit copies of the whole are never held
    constexpr double noise = 6.0;  // of the guide: smaller differences are no edges
    constexpr float low = 0.15F;   // shares below and above are none and all
    constexpr float high = 0.85F;
    const int radius = std::max(1, reach / 2);
    const cv::Mat all_guide = as_mat(guide);
    const cv::Mat all_cut = as_mat(cut);
    Raster8 out = cut.clone();
    const auto refine = [&](int top) {
        const int bottom = std::min(top + strip, cut.height());
        const int from = std::max(0, top - 2 * reach - 2);
        const int to = std::min(cut.height(), bottom + 2 * reach + 2);
        const cv::Mat hard = all_cut.rowRange(from, to);
        const int sky = cv::countNonZero(hard);
        if (sky == 0 || sky == int(hard.total())) return;
        // Of every pixel, how far it is to what is not sky, and to what is.
        cv::Mat to_land, to_sky;
        cv::distanceTransform(hard, to_land, cv::DIST_L2, cv::DIST_MASK_PRECISE);
        cv::distanceTransform(hard == 0, to_sky, cv::DIST_L2, cv::DIST_MASK_PRECISE);
        cv::Mat p, g, mean_p, mean_g, mean_gp, mean_gg;
        hard.convertTo(p, CV_32F, 1 / 255.0);
        all_guide.rowRange(from, to).convertTo(g, CV_32F);
        const cv::Size box(2 * radius + 1, 2 * radius + 1);
        const auto mean_of = [&](const cv::Mat& in) {
            cv::Mat mean;
            cv::boxFilter(in, mean, CV_32F, box, {-1, -1}, true, cv::BORDER_REFLECT);
            return mean;
        };
        mean_p = mean_of(p);
        mean_g = mean_of(g);
        mean_gp = mean_of(g.mul(p));
        mean_gg = mean_of(g.mul(g));
        const cv::Mat variance = mean_gg - mean_g.mul(mean_g);
        cv::Mat slope;
        cv::divide(mean_gp - mean_g.mul(mean_p), variance + noise * noise, slope);
        const cv::Mat offset = mean_p - slope.mul(mean_g);
        const cv::Mat share = mean_of(slope).mul(g) + mean_of(offset);
        for (int y = top; y < bottom; ++y)
            for (int x = 0; x < cut.width(); ++x) {
                const int v = y - from;
                if (std::max(to_land.at<float>(v, x), to_sky.at<float>(v, x)) > float(reach)) continue;
                const float s = std::clamp((share.at<float>(v, x) - low) / (high - low), 0.0F, 1.0F);
                out.at(x, y, 0) = std::uint8_t(std::lround(s * 255));
            }
    };
    const int strips = (cut.height() + strip - 1) / strip;
    job.begin("Following edges", strips);
    // One after the other: several would hold as much as the whole.
    for (int n = 0; n < strips && !job.stopped(); ++n) {
        refine(n * strip);
        job.advance();
    }
    return out;
}

}  // namespace bp
