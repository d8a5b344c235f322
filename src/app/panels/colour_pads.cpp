#include "app/panels/colour_pads.h"

#include <QConicalGradient>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double inner = 0.62;  // where the second knot of the ring runs, in radii

void draw_knot(QPainter& painter, QPointF at, bool set) {
    painter.setBrush(theme().ground);
    painter.setPen(QPen(set ? theme().amber : theme().text, 1.5));
    painter.drawEllipse(at, knot_radius, knot_radius);
    if (!set) return;
    painter.setBrush(theme().amber);
    painter.setPen(Qt::NoPen);
    painter.drawEllipse(at, 2.5, 2.5);
}

double degrees_of(QPointF p) {
    const double angle = std::atan2(-p.y(), p.x()) * 180 / std::numbers::pi;
    return angle < 0 ? angle + 360 : angle;
}

}  // namespace

ColourPad::ColourPad(QWidget* parent) : QWidget(parent) {
    setFixedSize(sizeHint());
}

void ColourPad::set_look(const Look& look) {
    if (held_ != 0) return;
    look_ = look;
    update();
}

QRectF ColourPad::square() const {
    constexpr double edge = knot_radius + 2;
    return QRectF(rect()).adjusted(edge, edge, -edge, -edge);
}

bool ColourPad::leave_drag() {
    if (std::exchange(held_, 0) == 0) return false;
    look_ = before_;
    update();
    emit left();
    return true;
}

void ColourPad::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = part_at(event->position());
    before_ = look_;
    from_ = event->position();
    update();
}

void ColourPad::mouseMoveEvent(QMouseEvent* event) {
    if (held_ == 0) return;
    look_ = limited(dragged(before_, held_, from_, event->position()));
    update();
    emit tried(look_);
}

void ColourPad::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || std::exchange(held_, 0) == 0) return;
    update();
    if (look_ != before_) emit settled(look_);
}

void ColourPad::mouseDoubleClickEvent(QMouseEvent* event) {
    const int part = part_at(event->position());
    if (part == 0) return;
    look_ = taken_back(look_, part);
    update();
    emit settled(look_);
}

CastPad::CastPad(QWidget* parent) : ColourPad(parent) {
    setObjectName(QStringLiteral("cast_pad"));
    setAccessibleName(tr("Cast of light"));
    setAccessibleDescription(tr("Can be set by the numbers below it"));
    setToolTip(
        tr("Drag the knot: to the right warmer, to the left cooler, up towards magenta, down towards green; a "
           "double-click takes it back"));
}

QPointF CastPad::knot() const {
    const QRectF s = square();
    return s.center() + QPointF(look_.warmth / 100 * s.width() / 2, -look_.green_to_magenta / 100 * s.height() / 2);
}

int CastPad::part_at(QPointF at) const {
    return distance(at, knot()) <= handle_reach ? 1 : 0;
}

Look CastPad::dragged(const Look& before, int, QPointF from, QPointF to) const {
    const QRectF s = square();
    Look out = before;
    out.warmth = std::round(before.warmth + 200 * (to.x() - from.x()) / s.width());
    out.green_to_magenta = std::round(before.green_to_magenta - 200 * (to.y() - from.y()) / s.height());
    return out;
}

Look CastPad::taken_back(const Look& look, int) const {
    Look out = look;
    out.warmth = out.green_to_magenta = 0;
    return out;
}

void CastPad::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF s = square();
    QLinearGradient across(s.topLeft(), s.topRight());
    across.setColorAt(0, QColor(96, 124, 158));
    across.setColorAt(0.5, QColor(122, 122, 120));
    across.setColorAt(1, QColor(172, 132, 84));
    QLinearGradient down(s.topLeft(), s.bottomLeft());
    down.setColorAt(0, QColor(168, 80, 150, 120));
    down.setColorAt(0.5, QColor(120, 120, 120, 0));
    down.setColorAt(1, QColor(84, 150, 84, 120));
    painter.setOpacity(isEnabled() ? 1 : 0.3);
    painter.setPen(QPen(theme().line, 1));
    painter.setBrush(across);
    painter.drawRoundedRect(s, 4, 4);
    painter.setBrush(down);
    painter.drawRoundedRect(s, 4, 4);
    painter.setPen(QPen(QColor(255, 255, 255, 70), 1));
    painter.drawLine(QPointF(s.center().x(), s.top()), QPointF(s.center().x(), s.bottom()));
    painter.drawLine(QPointF(s.left(), s.center().y()), QPointF(s.right(), s.center().y()));
    draw_knot(painter, knot(), look_.warmth != 0 || look_.green_to_magenta != 0);
}

HueRing::HueRing(QWidget* parent) : ColourPad(parent) {
    setObjectName(QStringLiteral("hue_ring"));
    setAccessibleName(tr("Range of hues"));
    setAccessibleDescription(tr("Can be set by the numbers below it"));
    setToolTip(
        tr("The knot on the ring chooses a range of colours; the one inside turns them. A double-click takes it back"));
}

QPointF HueRing::on_ring(double degrees, double share) const {
    const double angle = degrees * std::numbers::pi / 180;
    const double radius = square().width() / 2 * share;
    return square().center() + radius * QPointF(std::cos(angle), -std::sin(angle));
}

QPointF HueRing::range_knot() const {
    return on_ring(look_.hue_at, 1);
}

QPointF HueRing::turn_knot() const {
    return on_ring(look_.hue_at + look_.hue_turn, inner);
}

int HueRing::part_at(QPointF at) const {
    if (distance(at, turn_knot()) <= handle_reach) return 2;
    return distance(at, range_knot()) <= handle_reach ? 1 : 0;
}

Look HueRing::dragged(const Look& before, int part, QPointF, QPointF to) const {
    const double here = degrees_of(to - square().center());
    Look out = before;
    if (part == 1) {
        out.hue_at = std::round(here);
        return out;
    }
    double turn = here - before.hue_at;
    while (turn > 180) turn -= 360;
    while (turn < -180) turn += 360;
    out.hue_turn = std::round(turn);
    return out;
}

Look HueRing::taken_back(const Look& look, int) const {
    Look out = look;
    out.hue_turn = 0;
    return out;
}

void HueRing::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setOpacity(isEnabled() ? 1 : 0.3);
    const QPointF middle = square().center();
    QConicalGradient hues(middle, 0);
    for (int i = 0; i <= 12; ++i) hues.setColorAt(i / 12.0, QColor::fromHsv(i * 30 % 360, 140, 190));
    painter.setPen(QPen(QBrush(hues), 7, Qt::SolidLine, Qt::FlatCap));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(middle, square().width() / 2, square().width() / 2);
    // As far as the range goes.
    constexpr int width_degrees = 60;
    constexpr int as_the_painter_counts = 16;
    const double radius = square().width() / 2 * inner;
    painter.setPen(QPen(theme().line, 2));
    painter.drawArc(QRectF(middle.x() - radius, middle.y() - radius, 2 * radius, 2 * radius),
                    int(std::lround((look_.hue_at - width_degrees) * as_the_painter_counts)),
                    2 * width_degrees * as_the_painter_counts);
    painter.setPen(QPen(look_.hue_turn != 0 ? theme().amber : theme().quiet, 1.5));
    painter.drawLine(range_knot(), turn_knot());
    draw_knot(painter, range_knot(), look_.hue_turn != 0);
    draw_knot(painter, turn_knot(), look_.hue_turn != 0);
}

}  // namespace bp::app
