#include "app/canvas/shape_tool.h"

#include <cmath>
#include <utility>

#include "app/canvas/band_outline.h"
#include "app/canvas/ellipse_outline.h"
#include "app/canvas/mask_hatch.h"
#include "app/looks/theme.h"

namespace bp::app {

namespace {

// A line from where it is whole to where it is nothing, with a bar across at either end, thick at the first.
void draw_ramp(QPainter& painter, QPointF from, QPointF to) {
    constexpr double reach = 2000;  // to beyond the window
    const QPointF way = to - from;
    const double length = std::hypot(way.x(), way.y());
    if (length < 1) return;
    const QPointF across(-way.y() / length * reach, way.x() / length * reach);
    painter.drawLine(from, to);
    painter.drawLine(from - across, from + across);
    QPen dashed = painter.pen();
    dashed.setStyle(Qt::DashLine);
    painter.save();
    painter.setPen(dashed);
    painter.drawLine(to - across, to + across);
    painter.restore();
}

}  // namespace

Point ShapeTool::on_canvas(QPointF at) const {
    const QPointF p = canvas_.to_canvas(at) - QPointF(0.5, 0.5);
    return {p.x(), p.y()};
}

bool ShapeTool::press(QPointF at) {
    before_ = target_.begin();
    if (before_) shape_ = {kind_, on_canvas(at), on_canvas(at), canvas_.brush().size};
    return true;
}

std::optional<QRect> ShapeTool::drag(QPointF at) {
    if (!before_) return QRect();
    shape_.to = on_canvas(at);
    return std::nullopt;
}

void ShapeTool::release() {
    const std::optional<Mask> before = std::exchange(before_, std::nullopt);
    // What was drawn on is no more as it was when the drag began.
    if (!before || !(target_.read() == *before)) return;
    Brush keeping = canvas_.brush();
    keeping.keep = keeping.keep || keeps_ == Keeps::always;
    target_.write(with_shape(*before, shape_, keeping.keep), keeping);
}

void ShapeTool::cancel() {
    before_.reset();
}

void ShapeTool::paint_below(QPainter& painter, const QRect& shown) const {
    const Mask* mask = target_.hatched();
    if (!mask) return;
    painter.drawImage(shown.topLeft(), hatch_of(*mask, shown, canvas_.screen_to_canvas()));
}

void ShapeTool::paint(QPainter& painter) const {
    if (!before_) return;
    const QPointF from = canvas_.to_screen({shape_.from.x + 0.5, shape_.from.y + 0.5});
    const QPointF to = canvas_.to_screen({shape_.to.x + 0.5, shape_.to.y + 0.5});
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().hatch, 1.5)}) {
        painter.setPen(pen);
        if (shape_.kind == ShapeKind::ellipse)
            painter.drawPolygon(ellipse_on_screen(canvas_, shape_));
        else if (shape_.kind == ShapeKind::ramp)
            draw_ramp(painter, from, to);
        else
            draw_band(painter, from, to, shape_.width * canvas_.zoom() / 2);
    }
}

}  // namespace bp::app
