// What is dragged by the pointer: how near it is taken.
#pragma once

#include <QPointF>
#include <cmath>

namespace bp::app {

inline constexpr double handle_reach = 10;  // screen pixels
inline constexpr double knot_radius = 6;

inline double distance(QPointF a, QPointF b) {
    return std::hypot(a.x() - b.x(), a.y() - b.y());
}

}  // namespace bp::app
