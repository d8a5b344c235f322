// How far a transform makes two pictures agree. Internal to the room.
#pragma once

#include <opencv2/core.hpp>
#include <vector>

#include "image/flex.h"
#include "kernels/landmarks.h"

namespace bp {

struct Agreement {
    double share = 0;        // of the blocks with texture that show the same
    double residual_px = 0;  // median of the shift that is left in these (one step of Lucas and Kanade, 1981)
    int blocks = 0;          // with texture
};

// A reference in local contrast as it is judged by: without noise, in blocks.
using Judged = std::vector<kernels::Landmarks>;
Judged judged(const cv::Mat& contrast);

// Of a frame in local contrast with it, block by block; `flex` may be null: the frame at to_frame(p + flex(p)) is held
// against the reference at p.
Agreement agreement_of(const Judged& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex);

}  // namespace bp
