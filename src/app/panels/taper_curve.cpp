#include "app/panels/taper_curve.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double by_key = 0.05;

Point inside(Point knot) {
    const auto held = [](double v) { return std::clamp(v, Taper::nearest_knot, 1 - Taper::nearest_knot); };
    return {held(knot.x), held(knot.y)};
}

}  // namespace

TaperCurve::TaperCurve(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("taper_curve"));
    setLayoutDirection(Qt::LeftToRight);  // Time runs one way in every language.
    setAccessibleName(tr("Shape of the taper"));
    setAccessibleDescription(tr("Arrow keys move the knot, Home makes the line straight"));
    setToolTip(
        tr("How the strength of frames rises from the trail's end. Pull the knot; a double-click makes the line "
           "straight"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    setFixedSize(sizeHint());
}

void TaperCurve::set_knot(Point knot) {
    if (held_) return;
    knot_ = knot;
    update();
}

QRectF TaperCurve::field() const {
    constexpr double side = knot_radius + 3;
    return QRectF(rect()).adjusted(side, side, -side, -side);
}

QPointF TaperCurve::at(double x, double y) const {
    const QRectF area = field();
    return {area.left() + x * area.width(), area.bottom() - y * area.height()};
}

void TaperCurve::settle(Point knot) {
    knot_ = knot;
    update();
    emit settled(knot_);
}

void TaperCurve::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = true;
    from_ = event->position();
    before_ = knot_;
    update();
}

void TaperCurve::mouseMoveEvent(QMouseEvent* event) {
    if (!held_) return;
    const QPointF by = event->position() - from_;
    knot_ = inside({before_.x + by.x() / field().width(), before_.y - by.y() / field().height()});
    update();
    emit tried(knot_);
}

void TaperCurve::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !held_) return;
    held_ = false;
    update();
    if (knot_ != before_) emit settled(knot_);
}

bool TaperCurve::leave_drag() {
    if (!held_) return false;
    held_ = false;
    knot_ = before_;
    update();
    emit left();
    return true;
}

void TaperCurve::mouseDoubleClickEvent(QMouseEvent*) {
    settle({0.5, 0.5});
}

void TaperCurve::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
        case Qt::Key_Left:
            return settle(inside({knot_.x - by_key, knot_.y}));
        case Qt::Key_Right:
            return settle(inside({knot_.x + by_key, knot_.y}));
        case Qt::Key_Up:
            return settle(inside({knot_.x, knot_.y + by_key}));
        case Qt::Key_Down:
            return settle(inside({knot_.x, knot_.y - by_key}));
        case Qt::Key_Home:
            return settle({0.5, 0.5});
        default:
            QWidget::keyPressEvent(event);
    }
}

void TaperCurve::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(hasFocus() ? theme().amber : theme().line, 1));
    painter.setBrush(theme().raised);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), space::rounding, space::rounding);
    const Taper whole{TaperEnd::old_one, 1, knot_};
    QPainterPath line(at(0, 0));
    constexpr int steps = 60;
    for (int i = 1; i <= steps; ++i) {
        const double x = double(i) / steps;
        line.lineTo(at(x, strength_at(whole, x)));
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().amber, 1.5));
    painter.drawPath(line);
    painter.setBrush(theme().ground);
    painter.setPen(QPen(held_ ? theme().amber : theme().text, 1.5));
    painter.drawEllipse(place_of_knot(), knot_radius, knot_radius);
}

}  // namespace bp::app
