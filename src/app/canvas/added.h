// What one picture has more than another, hatched.
#pragma once

#include <QImage>

#include "image/raster.h"

namespace bp::app {

// Draws a hatch over the pixels in which the two differ; `image` is the first of them.
void hatch_added(QImage& image, const Raster16& with, const Raster16& without, QColor hatch);

}  // namespace bp::app
