// Masks on the picture: a fine diagonal hatch along the kept area with a bright edge.
#pragma once

#include <QImage>

#include "image/mask.h"

namespace bp::app {

// An image of the screen pixels in `shown`, transparent where nothing is kept. Screen pixel (0, 0) lies at `origin` in
// canvas pixels (edges, not centres), at `zoom` screen pixels a canvas pixel.
QImage hatch_of(const Mask& mask, const QRect& shown, Point origin, double zoom);

}  // namespace bp::app
