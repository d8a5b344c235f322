// How far a transform makes two pictures agree. Internal to the room.
#pragma once

#include <opencv2/core.hpp>

#include "image/flex.h"

namespace bp {

struct Agreement {
    double share = 0;        // of the blocks with texture that show the same
    double residual_px = 0;  // median of the shift that is left in these (one step of Lucas and Kanade, 1981)
    int blocks = 0;          // with texture
};

// Of two pictures in local contrast, block by block; `flex` may be null (bend.h).
Agreement agreement_of(const cv::Mat& reference, const cv::Mat& frame, const Matrix& to_frame, const Flex* flex);

}  // namespace bp
