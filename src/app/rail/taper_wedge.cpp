#include "app/rail/taper_wedge.h"

#include <QPainterPath>
#include <algorithm>
#include <cmath>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double radius = 4.5;
constexpr double edge = radius + 2;
constexpr double least_bar = 6;  // so that the head of a single frame is seen

bool of_new_end(TaperWedge::Handle handle) {
    return handle == TaperWedge::Handle::new_corner || handle == TaperWedge::Handle::new_knot;
}

bool is_corner(TaperWedge::Handle handle) {
    return handle == TaperWedge::Handle::old_corner || handle == TaperWedge::Handle::new_corner;
}

}  // namespace

bool TaperWedge::seen(const Pile& pile, Zone zone) {
    const Method& method = method_of(pile, zone);
    return (method.taper.end != TaperEnd::none || method.head.on) && entry_of(method.mode).uses_strength &&
           merged_ids(pile, zone).size() > 1;
}

TaperWedge::TaperWedge(const Taper& taper, const Head& head, std::vector<double> middles, const QRectF& band)
    : taper_(taper), head_(head), middles_(std::move(middles)), band_(band.adjusted(0, edge, 0, -edge)) {}

// Frames lie where they were taken; between them the way is straight.
double TaperWedge::x_of(double run) const {
    const double place = std::clamp(run, 0.0, 1.0) * double(middles_.size() - 1);
    const auto before = std::min(std::size_t(place), middles_.size() - 2);
    return middles_[before] + (place - double(before)) * (middles_[before + 1] - middles_[before]);
}

double TaperWedge::run_at(double x) const {
    if (x <= middles_.front()) return 0;
    if (x >= middles_.back()) return 1;
    const auto after = std::size_t(std::upper_bound(middles_.begin(), middles_.end(), x) - middles_.begin());
    const double way = middles_[after] - middles_[after - 1];
    return (double(after - 1) + (way > 0 ? (x - middles_[after - 1]) / way : 0)) / double(middles_.size() - 1);
}

double TaperWedge::y_of(double strength) const {
    return band_.bottom() - strength * band_.height();
}

std::vector<TaperWedge::Handle> TaperWedge::handles() const {
    std::vector<Handle> out;
    for (const Handle handle : {Handle::old_corner, Handle::old_knot, Handle::new_corner, Handle::new_knot})
        if (taper_.end == TaperEnd::both || taper_.end == (of_new_end(handle) ? TaperEnd::new_one : TaperEnd::old_one))
            out.push_back(handle);
    return out;
}

QPointF TaperWedge::place_of(Handle handle) const {
    const double way = taper_.over * (is_corner(handle) ? 1 : taper_.knot.x);
    const double run = of_new_end(handle) ? 1 - way : way;
    return {x_of(run), y_of(is_corner(handle) ? 1 : taper_.knot.y)};
}

std::optional<TaperWedge::Handle> TaperWedge::at(QPointF p) const {
    std::optional<Handle> best;
    double nearest = handle_reach;
    for (const Handle handle : handles()) {
        const QPointF d = place_of(handle) - p;
        const double distance = std::hypot(d.x(), d.y());
        if (distance > nearest) continue;
        nearest = distance;
        best = handle;
    }
    return best;
}

Taper TaperWedge::pulled(Handle handle, QPointF to) const {
    Taper out = taper_;
    const double run = run_at(to.x());
    const double way = of_new_end(handle) ? 1 - run : run;
    if (is_corner(handle)) {
        out.over = std::clamp(way, Taper::shortest, 1.0);
        return out;
    }
    const auto inside = [](double v) { return std::clamp(v, Taper::nearest_knot, 1 - Taper::nearest_knot); };
    out.knot = {inside(way / taper_.over), inside((band_.bottom() - to.y()) / band_.height())};
    return out;
}

Taper TaperWedge::straightened(Handle handle) const {
    Taper out = taper_;
    if (!is_corner(handle)) out.knot = Taper().knot;
    return out;
}

// From half the way to the frame before to half the way to the frame after.
QRectF TaperWedge::place_of(OfTrail part) const {
    const std::size_t count = middles_.size();
    const auto between = [&](std::size_t a, std::size_t b) { return (middles_[a] + middles_[b]) / 2; };
    std::optional<double> left;
    double right = 0;
    for (std::size_t i = 0; i < count; ++i) {
        if (part_of_trail(head_, taper_.end, i, count) != part) continue;
        if (!left) left = i == 0 ? middles_[0] : between(i - 1, i);
        right = i + 1 == count ? middles_[i] : between(i, i + 1);
    }
    if (!left) return {};
    return {*left, band_.top(), right - *left, band_.height()};
}

void TaperWedge::paint(QPainter& painter, std::optional<Handle> marked) const {
    QPainterPath wedge(QPointF(middles_.front(), y_of(0)));
    constexpr int steps = 200;
    for (int i = 0; i <= steps; ++i) {
        const double run = double(i) / steps;
        wedge.lineTo(x_of(run), y_of(strength_at(taper_, run)));
    }
    QPainterPath line = wedge;
    wedge.lineTo(middles_.back(), y_of(0));
    wedge.closeSubpath();
    QColor fill = theme().amber;
    fill.setAlphaF(0.28F);
    painter.save();
    // The line is as wide as it is at its ends, too.
    painter.setClipRect(place_of(OfTrail::tail).adjusted(-1, -1, 1, 1), Qt::IntersectClip);
    painter.fillPath(wedge, fill);
    painter.setPen(QPen(theme().amber, 1.4));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(line);
    painter.restore();
    if (const QRectF apart = place_of(OfTrail::apart); !apart.isEmpty())
        painter.fillRect(apart, QBrush(theme().quiet, Qt::BDiagPattern));
    if (const QRectF head = place_of(OfTrail::head); head_.on) {
        const QRectF bar = head.width() > least_bar ? head : head.adjusted(-least_bar / 2, 0, least_bar / 2, 0);
        painter.fillRect(bar, fill);
        painter.setPen(QPen(theme().amber, 3));
        painter.drawLine(bar.topLeft(), bar.topRight());
    }
    for (const Handle handle : handles()) {
        painter.setBrush(theme().ground);
        painter.setPen(QPen(marked == handle ? theme().amber : theme().text, 1.4));
        painter.drawEllipse(place_of(handle), radius, radius);
    }
}

}  // namespace bp::app
