#include "app/canvas/band_handles.h"

#include <algorithm>

#include "app/canvas/band_outline.h"
#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {

QPointF BandHandles::across() const {
    const double length = std::max(1e-9, distance(from, to));
    return {-(to - from).y() / length, (to - from).x() / length};
}

QPointF BandHandles::side() const {
    // Never so near to the line that it could not be told from it.
    constexpr double nearest = 12;
    return (from + to) / 2 + across() * std::max(nearest, radius);
}

std::optional<BandHandles::Hold> BandHandles::hold_at(QPointF at) const {
    if (distance(at, from) <= handle_reach) return Hold::from;
    if (distance(at, to) <= handle_reach) return Hold::to;
    if (distance(at, side()) <= handle_reach) return Hold::width;
    return std::nullopt;
}

void BandHandles::paint(QPainter& painter, bool held) const {
    if (held)
        for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().amber, 1.5)}) {
            painter.setPen(pen);
            draw_band(painter, from, to, radius);
        }
    painter.setBrush(theme().ground);
    painter.setPen(QPen(theme().amber, 1.5));
    constexpr double knot = 4.5;
    painter.drawEllipse(from, knot, knot);
    painter.drawEllipse(to, knot, knot);
    painter.drawRect(QRectF(side() - QPointF(knot, knot), QSizeF(2 * knot, 2 * knot)));
}

}  // namespace bp::app
