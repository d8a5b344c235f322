// From rasters to what a screen shows.
#pragma once

#include <QImage>

#include "image/profile.h"
#include "image/raster.h"

namespace bp::app {

// 8-bit sRGB; samples are rounded as an 8-bit export rounds them.
QImage to_image(const Raster16& raster, const Profile& profile);

}  // namespace bp::app
