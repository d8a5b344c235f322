#include "app/canvas/horizon_tool.h"

#include <cmath>
#include <numbers>
#include <utility>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {

bool HorizonTool::press(QPointF at) {
    from_ = to_ = at;
    return true;
}

std::optional<QRect> HorizonTool::drag(QPointF at) {
    to_ = at;
    return std::nullopt;
}

void HorizonTool::release() {
    const std::optional<QPointF> from = std::exchange(from_, std::nullopt);
    constexpr double least = 20;
    if (!from || distance(*from, to_) < least) return;
    const QPointF way = to_ - *from;
    double leans = std::atan2(way.y(), way.x()) * 180 / std::numbers::pi;
    // What it is nearest to: level or upright, whichever way it was drawn.
    leans -= 90 * std::round(leans / 90);
    drawn_(-leans);
}

void HorizonTool::paint(QPainter& painter) const {
    if (!from_) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().amber, 1.5)}) {
        painter.setPen(pen);
        painter.drawLine(*from_, to_);
    }
}

}  // namespace bp::app
