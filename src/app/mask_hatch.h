// Masks on the picture: a fine diagonal hatch along the kept area with a bright edge.
#pragma once

#include <QImage>

#include "parts/mask.h"

namespace bp::app {

// An image of `pixels` size, transparent where nothing is kept, for the screen pixel (0, 0) at `origin` in canvas
// pixels (edges, not centres) and `zoom` screen pixels a canvas pixel.
QImage hatch_of(const Mask& mask, QSize pixels, Point origin, double zoom);

}  // namespace bp::app
