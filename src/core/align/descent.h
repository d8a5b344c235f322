// Fine alignment by least squares. Internal to the room.
#pragma once

#include <opencv2/core.hpp>

#include "align/align.h"
#include "kernels/landmarks.h"

namespace bp {

// The places with the most change in every block of the picture, `most` in all, where `trust` (the same size; may be
// empty) is at least a half.
kernels::Landmarks landmarks_of(const cv::Mat& contrast, const cv::Mat& trust, std::size_t most);

struct Fit {
    Matrix to_frame;          // reference pixel to frame pixel
    double correlation = -1;  // of the two at the landmarks before the last step; below 0 when they do not overlap or
                              // have no texture
};

// Improves `start` by inverse compositional Gauss-Newton steps (Baker and Matthews, "Lucas-Kanade 20 years on", 2004)
// at the landmarks of a reference of `size`, with gain and offset fitted along and biweights against what moves.
// `frame` is local contrast. Places are computed in double precision. Stops after a step that moves nothing by more
// than `close_px`.
Fit descend(const kernels::Landmarks& landmarks, cv::Size size, const cv::Mat& frame, const Matrix& start, Model model,
            int most_steps, double close_px);

}  // namespace bp
