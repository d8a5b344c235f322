// Pictures as one plane of brightness, for measuring and aligning.
#pragma once

#include "image/raster.h"

namespace bp {

// Brightness of encoded samples, 0 to 1, of a picture of 1 or 3 channels: weights of Rec. ITU-R BT.709.
RasterF brightness_of(const Raster16& picture);

}  // namespace bp
