#include "align/features.h"

#include <opencv2/calib3d.hpp>
#include <opencv2/features2d.hpp>

namespace bp {

Features features_of(const cv::Mat& brightness) {
    constexpr int most = 1500;
    cv::Mat narrow;
    brightness.convertTo(narrow, CV_8U, 255);
    Features out;
    cv::SIFT::create(most, 3, 0.02)->detectAndCompute(narrow, cv::noArray(), out.points, out.words);
    return out;
}

std::optional<Matrix> guess_by_features(const Features& reference, const Features& frame) {
    constexpr float clearly_nearer = 0.8F;
    constexpr double near_px = 3;
    constexpr int fewest = 12;
    if (reference.points.size() < 2 || frame.points.size() < 2) return std::nullopt;
    std::vector<std::vector<cv::DMatch>> matches;
    cv::BFMatcher(cv::NORM_L2).knnMatch(reference.words, frame.words, matches, 2);
    std::vector<cv::Point2f> from, to;
    for (const auto& pair : matches) {
        if (pair.size() < 2 || pair[0].distance > clearly_nearer * pair[1].distance) continue;
        from.push_back(reference.points[std::size_t(pair[0].queryIdx)].pt);
        to.push_back(frame.points[std::size_t(pair[0].trainIdx)].pt);
    }
    if (int(from.size()) < fewest) return std::nullopt;
    std::vector<unsigned char> agrees;
    // The library's samples are drawn from a state of its own that is the same at every call.
    const cv::Mat found = cv::estimateAffinePartial2D(from, to, agrees, cv::RANSAC, near_px);
    if (found.empty() || cv::countNonZero(agrees) < fewest) return std::nullopt;
    const auto at = [&](int row, int column) { return found.at<double>(row, column); };
    return Matrix{{at(0, 0), at(0, 1), at(0, 2), at(1, 0), at(1, 1), at(1, 2), 0, 0, 1}};
}

}  // namespace bp
