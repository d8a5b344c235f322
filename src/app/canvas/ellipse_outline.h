// An ellipse in a box of the canvas, as it is seen: the picture may be turned.
#pragma once

#include <QPolygonF>
#include <cmath>
#include <numbers>

#include "app/canvas/canvas.h"
#include "parts/shapes.h"

namespace bp::app {

inline QPolygonF ellipse_on_screen(const Canvas& canvas, const DrawnShape& shape) {
    constexpr int corners = 96;
    const double x = (shape.from.x + shape.to.x + 1) / 2, y = (shape.from.y + shape.to.y + 1) / 2;
    QPolygonF out;
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * std::numbers::pi * i / corners;
        out << canvas.to_screen({x + (shape.to.x - shape.from.x) / 2 * std::cos(angle),
                                 y + (shape.to.y - shape.from.y) / 2 * std::sin(angle)});
    }
    return out;
}

}  // namespace bp::app
