// A first guess from features, where phase correlation does not lead anywhere. Internal to the room.
#pragma once

#include <opencv2/core.hpp>
#include <optional>
#include <vector>

#include "image/geometry.h"

namespace bp {

// Scale-invariant features (Lowe 2004) of a picture, 0 to 1, in pixels of it.
struct Features {
    std::vector<cv::KeyPoint> points;
    cv::Mat words;
};
Features features_of(const cv::Mat& brightness);

// The shift, turn and scale from reference to frame that most matches agree on (random samples; Fischler and Bolles,
// 1981). None when too few agree.
std::optional<Matrix> guess_by_features(const Features& reference, const Features& frame);

}  // namespace bp
