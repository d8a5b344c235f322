// Masks on the picture: a fine diagonal hatch along the kept area with a bright edge.
#pragma once

#include <QImage>
#include <QTransform>

#include "image/mask.h"

namespace bp::app {

// An image of the screen pixels in `shown`, transparent where nothing is kept. `to_canvas`: from the screen to canvas
// pixels (edges, not centres).
QImage hatch_of(const Mask& mask, const QRect& shown, const QTransform& to_canvas);

}  // namespace bp::app
