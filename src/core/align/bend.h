// Bending one picture onto another. Internal to the room.
#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "image/flex.h"

namespace bp {

// The smooth shifts of reference pixels after which `to_frame` leads to what shows the same in the frame: the frame at
// to_frame(p + flex(p)) looks like the reference at p. Both as local contrast, from fine to coarse. Least squares over
// the pixels around each node of a grid (Lucas and Kanade, 1981) with all nodes tied to their neighbours (Horn and
// Schunck, "Determining optical flow", 1981), from coarse to fine, with biweights against what moves. Shifts are
// bounded to a thirtieth of the picture, and neighbours never cross.
SharedFlex bend_onto(const std::vector<cv::Mat>& reference, const std::vector<cv::Mat>& frame, const Matrix& to_frame);

}  // namespace bp
