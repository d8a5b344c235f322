#include "app/canvas/paint_tool.h"

#include <algorithm>
#include <cmath>

#include "app/canvas/canvas.h"
#include "app/canvas/mask_hatch.h"
#include "app/looks/theme.h"

namespace bp::app {

void PaintTool::set_brush(const Brush& brush) {
    constexpr double least = 2, most = 2000;
    brush_ = brush;
    brush_.size = std::clamp(brush_.size, least, most);
}

bool PaintTool::press(QPointF at) {
    const std::optional<Mask> mask = target_->begin();
    if (!mask) return true;
    before_ = *mask;
    // The other end of a pen gives back.
    stroke_of_ = brush_;
    if (canvas_.pen_erases()) stroke_of_.keep = !stroke_of_.keep;
    stroke_.emplace(before_, stroke_of_);
    canvas_.update(extend(at));
    return true;
}

QRect PaintTool::extend(QPointF at) {
    const QPointF p = canvas_.to_canvas(at) - QPointF(0.5, 0.5);
    const Rect changed = stroke_->extend({p.x(), p.y()}, canvas_.pen_pressure());
    return target_->try_out(stroke_->mask(), changed) ? QRect() : canvas_.on_screen(changed);
}

std::optional<QRect> PaintTool::drag(QPointF at) {
    return stroke_ ? extend(at) : QRect();
}

void PaintTool::release() {
    if (!stroke_) return;
    const Mask mask = stroke_->mask();
    stroke_.reset();
    target_->write(mask, stroke_of_);
}

void PaintTool::cancel() {
    if (!stroke_) return;
    stroke_.reset();
    target_->give_up();
}

void PaintTool::paint_below(QPainter& painter, const QRect& shown) const {
    const Mask* mask = stroke_ ? &stroke_->mask() : target_->hatched();
    if (!mask || !show_mask_) return;
    painter.drawImage(shown.topLeft(), hatch_of(*mask, shown, canvas_.screen_to_canvas()));
}

void PaintTool::paint(QPainter& painter) const {
    const QPointF at = canvas_.pointer();
    if (at.x() < 0) return;
    painter.setRenderHint(QPainter::Antialiasing);
    const double radius = brush_.size / 2 * canvas_.zoom();
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(QColor(0, 0, 0, 150), 3));
    painter.drawEllipse(at, radius, radius);
    painter.setPen(
        QPen(brush_.keep ? theme().hatch : QColor(Qt::white), 1.2, brush_.keep ? Qt::SolidLine : Qt::DashLine));
    painter.drawEllipse(at, radius, radius);
    painter.drawLine(at - QPointF(3, 0), at + QPointF(3, 0));
    if (brush_.keep) painter.drawLine(at - QPointF(0, 3), at + QPointF(0, 3));
}

QRect PaintTool::mark_at(QPointF at) const {
    constexpr double pen = 4;
    const double reach = std::max(brush_.size / 2 * canvas_.zoom(), 3.0) + pen;
    return QRectF(at.x() - reach, at.y() - reach, 2 * reach, 2 * reach).toAlignedRect();
}

}  // namespace bp::app
