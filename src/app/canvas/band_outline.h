// The outline of a straight band with round ends.
#pragma once

#include <QPainter>
#include <QtMath>
#include <cmath>

namespace bp::app {

// Around the line between two points, `radius` beside it; with the painter's pen.
inline void draw_band(QPainter& painter, QPointF from, QPointF to, double radius) {
    const QPointF way = to - from;
    const double length = std::hypot(way.x(), way.y());
    painter.save();
    painter.translate(from);
    painter.rotate(qRadiansToDegrees(std::atan2(way.y(), way.x())));
    painter.drawRoundedRect(QRectF(-radius, -radius, length + 2 * radius, 2 * radius), radius, radius);
    painter.restore();
}

}  // namespace bp::app
