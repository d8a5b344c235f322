// Pictures as local contrast. Internal to the room.
#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "kernels/landmarks.h"

namespace bp {

// What differs from its surroundings, in deviations of these: exposure and slow changes of light leave no trace. Flat
// surroundings count as if they had the contrast of faint noise.
cv::Mat local_contrast(const cv::Mat& brightness);

// The picture and its halves (means of 2 x 2 pixels, as at_level() counts) down to about `coarsest` pixels.
std::vector<cv::Mat> halves(const cv::Mat& picture, int coarsest);

// For looking things up in it, which must not outlive the picture.
kernels::Sight sight_of(const cv::Mat& picture);

}  // namespace bp
