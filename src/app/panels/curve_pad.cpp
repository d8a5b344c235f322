#include "app/panels/curve_pad.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/looks/handles.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr double by_key = 0.01;
constexpr double by_large_key = 0.05;

}  // namespace

CurvePad::CurvePad(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("curve_pad"));
    setLayoutDirection(Qt::LeftToRight);  // Tone runs one way in every language.
    setAccessibleName(tr("Curve"));
    setToolTip(
        tr("From dark on the left to bright on the right: as bright as the curve is high. Click on the line for "
           "a point, pull it; a double-click takes it away. By keys: Insert adds a point, Page Up and Page Down "
           "choose one, arrows move it, Delete takes it away"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setFixedHeight(sizeHint().height());
    say_chosen();
}

void CurvePad::set_curve(const Curve& curve) {
    if (held_ || curve_ == curve) return;
    curve_ = curve;
    if (chosen_ >= int(curve_.points.size())) chosen_ = -1;
    say_chosen();
    update();
}

void CurvePad::set_distribution(std::vector<float> shares) {
    shares_ = std::move(shares);
    update();
}

QRectF CurvePad::field() const {
    constexpr double side = knot_radius + 3;
    return QRectF(rect()).adjusted(side, side, -side, -side);
}

QPointF CurvePad::place_of(Point point) const {
    const QRectF area = field();
    return {area.left() + point.x * area.width(), area.bottom() - point.y * area.height()};
}

Point CurvePad::tone_at(QPointF at) const {
    const QRectF area = field();
    return {std::clamp((at.x() - area.left()) / area.width(), 0.0, 1.0),
            std::clamp((area.bottom() - at.y()) / area.height(), 0.0, 1.0)};
}

int CurvePad::point_near(QPointF at) const {
    for (std::size_t i = 0; i < curve_.points.size(); ++i)
        if (distance(place_of(curve_.points[i]), at) <= handle_reach) return int(i);
    return -1;
}

void CurvePad::choose(int point) {
    chosen_ = point;
    say_chosen();
    update();
}

void CurvePad::say_chosen() {
    if (chosen_ < 0) {
        setAccessibleDescription(
            tr("%n point(s). Insert adds one, Page Up and Page Down choose one", nullptr, int(curve_.points.size())));
        return;
    }
    const Point& p = curve_.points[std::size_t(chosen_)];
    setAccessibleDescription(tr("Point %1 of %2: tone %3 becomes %4")
                                 .arg(chosen_ + 1)
                                 .arg(curve_.points.size())
                                 .arg(number_in_words(100 * p.x, 0))
                                 .arg(number_in_words(100 * p.y, 0)));
}

void CurvePad::move_chosen(Point to) {
    auto& points = curve_.points;
    const auto i = std::size_t(chosen_);
    const double left = i > 0 ? points[i - 1].x + Curve::nearest : 0;
    const double right = i + 1 < points.size() ? points[i + 1].x - Curve::nearest : 1;
    const double below = i > 0 ? points[i - 1].y : 0;
    const double above = i + 1 < points.size() ? points[i + 1].y : 1;
    points[i] = {std::clamp(to.x, left, std::max(left, right)), std::clamp(to.y, below, std::max(below, above))};
    say_chosen();
    update();
}

void CurvePad::take_away(int point) {
    curve_.points.erase(curve_.points.begin() + point);
    choose(-1);
    emit settled(curve_);
}

void CurvePad::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    before_ = curve_;
    int point = point_near(event->position());
    if (point < 0 && curve_.points.size() < Curve::most_points) {
        const Point at = tone_at(event->position());
        // Near the line: a click elsewhere means nothing yet.
        const QPointF on_line = place_of({at.x, std::clamp(curve_at(curve_, at.x), 0.0, 1.0)});
        if (distance(on_line, event->position()) > 2 * handle_reach) return;
        const auto after =
            std::find_if(curve_.points.begin(), curve_.points.end(), [&](const Point& p) { return p.x > at.x; });
        point = int(after - curve_.points.begin());
        curve_.points.insert(after, Point{at.x, curve_at(curve_, at.x)});
    }
    if (point < 0) return;
    held_ = true;
    choose(point);
}

void CurvePad::mouseMoveEvent(QMouseEvent* event) {
    if (!held_) return;
    move_chosen(tone_at(event->position()));
    emit tried(tidied(curve_));
}

void CurvePad::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || !held_) return;
    held_ = false;
    update();
    if (!(curve_ == before_)) emit settled(tidied(curve_));
}

void CurvePad::mouseDoubleClickEvent(QMouseEvent* event) {
    held_ = false;
    const int point = point_near(event->position());
    if (point >= 0) take_away(point);
}

bool CurvePad::leave_drag() {
    if (!held_) return false;
    held_ = false;
    curve_ = before_;
    choose(-1);
    emit left();
    return true;
}

// Keys that mean something elsewhere in the window, too.
bool CurvePad::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Delete || key == Qt::Key_Backspace || key == Qt::Key_Insert) {
            event->accept();
            return true;
        }
    }
    return QWidget::event(event);
}

void CurvePad::keyPressEvent(QKeyEvent* event) {
    const int count = int(curve_.points.size());
    const double step = event->modifiers() & Qt::ShiftModifier ? by_large_key : by_key;
    QPointF by;
    switch (event->key()) {
        case Qt::Key_PageUp:
        case Qt::Key_PageDown: {
            const int way = event->key() == Qt::Key_PageUp ? 1 : -1;
            if (count > 0) choose(chosen_ < 0 ? (way > 0 ? 0 : count - 1) : (chosen_ + way + count) % count);
            return;
        }
        case Qt::Key_Insert: {
            // In the middle of the widest gap.
            if (count >= int(Curve::most_points)) return;
            double before = 0, widest = 0, at = 0.5;
            std::size_t place = 0;
            for (std::size_t i = 0; i <= curve_.points.size(); ++i) {
                const double next = i < curve_.points.size() ? curve_.points[i].x : 1;
                if (next - before > widest) {
                    widest = next - before;
                    at = (next + before) / 2;
                    place = i;
                }
                before = next;
            }
            curve_.points.insert(curve_.points.begin() + std::ptrdiff_t(place), Point{at, curve_at(curve_, at)});
            choose(int(place));
            emit settled(tidied(curve_));
            return;
        }
        case Qt::Key_Delete:
        case Qt::Key_Backspace:
            if (chosen_ >= 0) take_away(chosen_);
            return;
        case Qt::Key_Left:
            by = {-step, 0};
            break;
        case Qt::Key_Right:
            by = {step, 0};
            break;
        case Qt::Key_Up:
            by = {0, step};
            break;
        case Qt::Key_Down:
            by = {0, -step};
            break;
        default:
            QWidget::keyPressEvent(event);
            return;
    }
    if (chosen_ < 0) {
        QWidget::keyPressEvent(event);
        return;
    }
    const Point now = curve_.points[std::size_t(chosen_)];
    move_chosen({now.x + by.x(), now.y + by.y()});
    emit settled(tidied(curve_));
}

void CurvePad::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(hasFocus() ? theme().amber : theme().line, 1));
    painter.setBrush(theme().raised);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), space::rounding, space::rounding);
    const QRectF area = field();
    if (!shares_.empty()) {
        QPainterPath soft(area.bottomLeft());
        for (std::size_t i = 0; i < shares_.size(); ++i)
            soft.lineTo(place_of({double(i) / double(shares_.size() - 1), 0.6 * double(shares_[i])}));
        soft.lineTo(area.bottomRight());
        painter.fillPath(soft, theme().line);
    }
    painter.setPen(QPen(theme().line, 1));
    for (const double at : {0.25, 0.5, 0.75}) {
        painter.drawLine(place_of({at, 0}), place_of({at, 1}));
        painter.drawLine(place_of({0, at}), place_of({1, at}));
    }
    QPainterPath line;
    constexpr int steps = 160;
    for (int i = 0; i <= steps; ++i) {
        const double x = double(i) / steps;
        const QPointF at = place_of({x, std::clamp(curve_at(curve_, x), 0.0, 1.0)});
        if (i == 0)
            line.moveTo(at);
        else
            line.lineTo(at);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme().amber, 1.5));
    painter.drawPath(line);
    for (std::size_t i = 0; i < curve_.points.size(); ++i) {
        painter.setBrush(int(i) == chosen_ ? theme().amber : theme().ground);
        painter.setPen(QPen(theme().text, 1.5));
        painter.drawEllipse(place_of(curve_.points[i]), knot_radius, knot_radius);
    }
}

}  // namespace bp::app
