// Fine alignment by least squares. Internal to the room.
#pragma once

#include <opencv2/core.hpp>

#include "align/align.h"

namespace bp {

struct Fit {
    Matrix to_frame;          // reference pixel to frame pixel
    double correlation = -1;  // of the two under the transform; below 0 when they do not overlap or have no texture
};

// Improves `start` by inverse compositional Gauss-Newton steps (Baker and Matthews, "Lucas-Kanade 20 years on", 2004),
// with gain and offset of the brightness fitted along, so that a change of light does not pull. Single-channel float
// images; places are computed in double precision (a warp that rounds them to fractions of a pixel would show in the
// answer). Stops when a step moves nothing by more than about a thousandth of a pixel.
Fit descend(const cv::Mat& reference, const cv::Mat& frame, const Matrix& start, Model model, int most_steps);

}  // namespace bp
