#include "app/canvas/place_shape_tool.h"

#include <cmath>
#include <utility>

#include "app/canvas/ellipse_outline.h"
#include "app/canvas/mask_hatch.h"
#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {

Point PlaceShapeTool::on_canvas(QPointF at) const {
    const QPointF p = canvas_.to_canvas(at) - QPointF(0.5, 0.5);
    return {p.x(), p.y()};
}

std::optional<DrawnShape> PlaceShapeTool::shown() const {
    return hold_ ? std::optional(now_) : kind_ ? std::nullopt : uses_.read();
}

std::optional<PlaceShapeTool::Hold> PlaceShapeTool::hold_at(const DrawnShape& shape, QPointF at) const {
    const QPointF from = on_screen(shape.from), to = on_screen(shape.to);
    if (distance(from, at) <= handle_reach) return Hold::from;
    if (distance(to, at) <= handle_reach) return Hold::to;
    if (distance((from + to) / 2, at) <= handle_reach) return Hold::whole;
    return std::nullopt;
}

bool PlaceShapeTool::press(QPointF at) {
    from_ = at;
    if (kind_) {
        before_ = now_ = {*kind_, on_canvas(at), on_canvas(at), 1};
        hold_ = Hold::to;
        return true;
    }
    const std::optional<DrawnShape> own = uses_.read();
    hold_ = own ? hold_at(*own, at) : std::nullopt;
    if (!hold_) return false;
    before_ = now_ = *own;
    return true;
}

std::optional<QRect> PlaceShapeTool::drag(QPointF at) {
    if (!hold_) return QRect();
    const QPointF way = (at - from_) / canvas_.zoom();
    const auto moved = [&](Point p) { return Point{p.x + way.x(), p.y + way.y()}; };
    now_ = before_;
    if (*hold_ != Hold::to) now_.from = moved(before_.from);
    if (*hold_ != Hold::from) now_.to = moved(before_.to);
    if (!kind_) uses_.try_out(now_);
    return std::nullopt;
}

void PlaceShapeTool::release() {
    if (!std::exchange(hold_, std::nullopt)) return;
    const bool anew = kind_.has_value();
    constexpr double least = 3;  // screen pixels: less is a click
    if (anew) {
        if (distance(on_screen(now_.from), on_screen(now_.to)) < least) return;
        kind_.reset();
        uses_.drawn(now_);
        return;
    }
    uses_.give_up();
    if (now_ != before_) uses_.pulled(now_);
}

void PlaceShapeTool::cancel() {
    if (std::exchange(hold_, std::nullopt) && !kind_) uses_.give_up();
}

std::optional<Qt::CursorShape> PlaceShapeTool::cursor_at(QPointF at) const {
    if (kind_) return Qt::CrossCursor;
    const std::optional<DrawnShape> own = uses_.read();
    if (own && hold_at(*own, at)) return Qt::SizeAllCursor;
    return std::nullopt;
}

void PlaceShapeTool::paint_below(QPainter& painter, const QRect& area) const {
    const Mask* mask = hold_ ? nullptr : uses_.hatched();
    if (!mask) return;
    painter.drawImage(area.topLeft(), hatch_of(*mask, area, canvas_.screen_to_canvas()));
}

void PlaceShapeTool::paint(QPainter& painter) const {
    const std::optional<DrawnShape> shape = shown();
    if (!shape) return;
    const QPointF from = on_screen(shape->from), to = on_screen(shape->to);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().hatch, 1.5)}) {
        painter.setPen(pen);
        if (shape->kind == ShapeKind::ellipse)
            painter.drawPolygon(ellipse_on_screen(canvas_, *shape));
        else
            painter.drawLine(from, to);
    }
    painter.setPen(QPen(theme().text, 1.5));
    // Whole at the amber knot, nothing at the dark one; by the small one in the middle all of it is moved.
    painter.setBrush(theme().amber);
    painter.drawEllipse(from, knot_radius, knot_radius);
    painter.setBrush(shape->kind == ShapeKind::ellipse ? theme().amber : theme().ground);
    painter.drawEllipse(to, knot_radius, knot_radius);
    painter.setBrush(theme().ground);
    painter.drawEllipse((from + to) / 2, knot_radius * 0.7, knot_radius * 0.7);
}

}  // namespace bp::app
