#include "app/panels/tone_ribbon.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/looks/handles.h"
#include "app/looks/theme.h"
#include "even/tone.h"

namespace bp::app {
namespace {

constexpr double eye = 2.2;
constexpr double longest = 1.38;  // tones beyond white that are shown: as far as the peak can go
constexpr double thin = 1.5;      // half of the ribbon where nothing has its tone
constexpr double thick = 11;      // more where most has
// Where the three knots in the middle stand.
constexpr std::array<double, 5> stands{0, 0.2, 0.5, 0.78, 1};

}  // namespace

double Look::*ToneRibbon::value_of(Knot knot) {
    constexpr std::array<double Look::*, 5> values{&Look::floor, &Look::deep, &Look::middle, &Look::bright,
                                                   &Look::peak};
    return values[std::size_t(knot)];
}

ToneRibbon::ToneRibbon(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("tone_ribbon"));
    setLayoutDirection(Qt::LeftToRight);  // Tone runs one way in every language.
    setAccessibleName(tr("Tone ribbon"));
    setAccessibleDescription(tr("Its knots can be set by the numbers below it"));
    setToolTip(
        tr("The picture's tones from dark to bright. Slide Floor and Peak along it, pull Deep, Middle and Bright up or "
           "down; a double-click takes a knot back"));
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
}

void ToneRibbon::set_look(const Look& look) {
    if (held()) return;
    look_ = look;
    update();
}

void ToneRibbon::set_distribution(std::vector<float> shares) {
    shares_ = std::move(shares);
    update();
}

QRectF ToneRibbon::field() const {
    constexpr double side = knot_radius + 3;
    constexpr double edge = thick + 4;
    return QRectF(rect()).adjusted(side, edge, -side, -edge);
}

double ToneRibbon::x_of(double tone) const {
    return field().left() + field().width() * tone / longest;
}

double ToneRibbon::tone_at(double x) const {
    return (x - field().left()) / field().width() * longest;
}

QPointF ToneRibbon::at(double tone, double out) const {
    return {x_of(tone), field().bottom() - field().height() * std::clamp(out, 0.0, 1.0)};
}

QPointF ToneRibbon::place_of(Knot knot) const {
    if (knot == Knot::floor) return at(look_.floor / 100, 0);
    // The tone that comes out white, if nothing but the peak had a say.
    if (knot == Knot::peak) return at(std::pow(std::exp2(-look_.peak / 100), 1 / eye), 1);
    const double tone = stands[std::size_t(knot)];
    return at(tone, tone_curve(look_, tone));
}

int ToneRibbon::knot_at(QPointF p) const {
    int best = -1;
    double nearest = handle_reach;
    for (const Knot knot : knots) {
        const QPointF d = place_of(knot) - p;
        const double distance = std::hypot(d.x(), d.y());
        if (distance <= nearest) {
            nearest = distance;
            best = int(knot);
        }
    }
    return best;
}

void ToneRibbon::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = knot_at(event->position());
    if (held_ < 0) return;
    from_ = event->position();
    before_ = look_;
    emit held_changed(true);
    update();
}

void ToneRibbon::mouseMoveEvent(QMouseEvent* event) {
    if (held_ < 0) {
        near_ = knot_at(event->position());
        setCursor(near_ < 0                                               ? Qt::ArrowCursor
                  : near_ == int(Knot::floor) || near_ == int(Knot::peak) ? Qt::SizeHorCursor
                                                                          : Qt::SizeVerCursor);
        update();
        return;
    }
    const auto knot = Knot(held_);
    Look next = before_;
    const QPointF by = event->position() - from_;
    if (knot == Knot::floor) {
        next.floor = std::round(100 * std::max(0.0, before_.floor / 100 + by.x() / field().width() * longest));
    } else if (knot == Knot::peak) {
        const double began = std::pow(std::exp2(-before_.peak / 100), 1 / eye);
        const double tone = std::max(0.1, began + by.x() / field().width() * longest);
        next.peak = std::round(-100 * eye * std::log2(tone));
    } else {
        // A pull over the height of the field goes from nothing to the most.
        double& value = next.*value_of(knot);
        value = std::round(value - by.y() / field().height() * 200);
    }
    look_ = limited(next);
    update();
    emit tried(look_);
}

void ToneRibbon::let_go() {
    held_ = -1;
    emit held_changed(false);
    update();
}

void ToneRibbon::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton || held_ < 0) return;
    let_go();
    if (look_ != before_) emit settled(look_);
}

bool ToneRibbon::leave_drag() {
    if (held_ < 0) return false;
    look_ = before_;
    let_go();
    emit left();
    return true;
}

void ToneRibbon::mouseDoubleClickEvent(QMouseEvent* event) {
    const int knot = knot_at(event->position());
    if (knot < 0) return;
    look_.*value_of(Knot(knot)) = 0;
    update();
    emit settled(look_);
}

void ToneRibbon::leaveEvent(QEvent*) {
    near_ = -1;
    update();
}

void ToneRibbon::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setLayoutDirection(layoutDirection());
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF area = field();
    // As it is without a look: a straight line from black to white.
    painter.setPen(QPen(theme().line, 1, Qt::DashLine));
    painter.drawLine(at(0, 0), at(1, 1));
    painter.drawLine(QPointF(x_of(1), area.top() - thick), QPointF(x_of(1), area.bottom() + thick));
    const double gain = std::exp2(look_.exposure_ev / eye);
    const auto half = [&](double tone) {
        const double recorded = tone / gain;
        if (shares_.empty() || recorded > 1) return thin;
        const auto bin = std::size_t(recorded * double(shares_.size() - 1) + 0.5);
        return thin + thick * std::sqrt(double(shares_[std::min(bin, shares_.size() - 1)]));
    };
    QPainterPath upper, lower;
    constexpr int steps = 180;
    for (int i = 0; i <= steps; ++i) {
        const double tone = longest * i / steps;
        const QPointF p = at(tone, tone_curve(look_, tone));
        const double h = half(tone);
        i == 0 ? upper.moveTo(p - QPointF(0, h)) : upper.lineTo(p - QPointF(0, h));
        i == 0 ? lower.moveTo(p + QPointF(0, h)) : lower.lineTo(p + QPointF(0, h));
    }
    QPainterPath ribbon = upper;
    ribbon.connectPath(lower.toReversed());
    ribbon.closeSubpath();
    QLinearGradient shade(area.left(), 0, x_of(1), 0);
    shade.setColorAt(0, QColor(18, 18, 18));
    shade.setColorAt(1, QColor(240, 240, 238));
    painter.setPen(QPen(theme().quiet, 1));
    painter.setBrush(shade);
    painter.drawPath(ribbon);
    for (const Knot knot : knots) {
        const bool marked = int(knot) == held_ || (held_ < 0 && int(knot) == near_);
        const bool set = look_.*value_of(knot) != 0;
        painter.setBrush(theme().ground);
        painter.setPen(QPen(marked || set ? theme().amber : theme().text, 1.5));
        painter.drawEllipse(place_of(knot), knot_radius, knot_radius);
        if (!set) continue;
        painter.setBrush(theme().amber);
        painter.setPen(Qt::NoPen);
        painter.drawEllipse(place_of(knot), 2.5, 2.5);
    }
}

}  // namespace bp::app
