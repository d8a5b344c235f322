// What is white or black in a picture, hatched.
#pragma once

#include <QColor>
#include <QImage>

namespace bp::app {

// Transparent but for a hatch that rises where a channel is at white, and one that falls where all are black.
QImage clipping_of(const QImage& picture, QColor hatch);

}  // namespace bp::app
