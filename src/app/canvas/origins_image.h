// The map of origins as it is seen.
#pragma once

#include <QColor>
#include <QImage>

#include "engine/origins.h"

namespace bp::app {

// Neighbours in the run are told apart by brightness and by a pattern; what comes from the current frame has its own
// colour. Where the picture itself is dark, what is mostly noise, the map is darker.
QImage image_of(const Origins& origins, const Raster16& picture, const Pile& pile, int current, QColor own);

}  // namespace bp::app
