// Pictures as one plane of brightness, for measuring and aligning.
#pragma once

#include "image/profile.h"
#include "image/raster.h"

namespace bp {

// Brightness about as the eye sees it, 0 to 1, of a picture of 1 or 3 channels whose curve is given: the power 1/2.2 of
// light (LightCurve::eye_power), with the weights of Rec. ITU-R BT.709.
RasterF brightness_of(const Raster16& picture, const LightCurve& curve);

}  // namespace bp
