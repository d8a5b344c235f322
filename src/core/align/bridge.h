// Rasters seen as OpenCV matrices, without a copy. Internal to the room.
#pragma once

#include <opencv2/core.hpp>

#include "image/raster.h"

namespace bp {

// The matrix must not outlive the raster and must not be written to.
inline cv::Mat as_mat(const RasterF& raster) {
    return {raster.height(), raster.width(), CV_32FC1, const_cast<float*>(raster.row(0))};
}

}  // namespace bp
