#include "app/canvas/mending_tool.h"

#include <cmath>
#include <utility>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double step_px = 4;   // screen pixels between two points of a line
constexpr double least_px = 5;  // less is a spot

}  // namespace

Point MendingTool::on_canvas(QPointF at) const {
    const QPointF p = canvas_.to_canvas(at) - QPointF(0.5, 0.5);
    return {p.x(), p.y()};
}

const Mended* MendingTool::at(Point p) const {
    const double near = 3 / canvas_.zoom();
    const Mended* out = nullptr;
    for (const Mended& one : uses_.all())
        if (distance_to(one, p) <= near) out = &one;
    return out;
}

const Mended* MendingTool::chosen() const {
    for (const Mended& one : uses_.all())
        if (one.id == uses_.chosen()) return &one;
    return nullptr;
}

bool MendingTool::press(QPointF at_screen) {
    from_ = at_screen;
    const Point p = on_canvas(at_screen);
    const Mended* own = chosen();
    if (own && own->way.size() == 1 && own->source == MendFrom::around) {
        const Point source{own->way[0].x + own->from.x, own->way[0].y + own->from.y};
        if (distance(on_screen(source), at_screen) <= std::max(handle_reach, own->width_px / 2 * canvas_.zoom())) {
            before_ = now_ = *own;
            hold_ = Hold::source;
            return true;
        }
    }
    if (const Mended* there = at(p)) {
        before_ = now_ = *there;
        hold_ = Hold::place;
        uses_.choose(there->id);
        return true;
    }
    way_ = {p};
    hold_ = Hold::drawing;
    return true;
}

std::optional<QRect> MendingTool::drag(QPointF at_screen) {
    if (!hold_) return QRect();
    if (*hold_ == Hold::drawing) {
        if (distance(on_screen(way_.back()), at_screen) >= step_px && way_.size() < Mended::most_points)
            way_.push_back(on_canvas(at_screen));
        return std::nullopt;
    }
    const QPointF by = (at_screen - from_) / canvas_.zoom();
    now_ = before_;
    if (*hold_ == Hold::source)
        now_.from = {before_.from.x + by.x(), before_.from.y + by.y()};
    else
        for (Point& p : now_.way) p = {p.x + by.x(), p.y + by.y()};
    uses_.try_out(now_);
    return std::nullopt;
}

void MendingTool::release() {
    const std::optional<Hold> held = std::exchange(hold_, std::nullopt);
    if (!held) return;
    if (*held == Hold::drawing) {
        std::vector<Point> way = std::exchange(way_, {});
        if (distance(on_screen(way.front()), on_screen(way.back())) < least_px && way.size() < 4) way.resize(1);
        uses_.drawn(std::move(way));
        return;
    }
    uses_.give_up();
    if (now_ != before_) uses_.moved(now_);
}

void MendingTool::cancel() {
    if (hold_ && *hold_ != Hold::drawing) uses_.give_up();
    hold_.reset();
    way_.clear();
}

void MendingTool::paint_one(QPainter& painter, const Mended& one, bool strong) const {
    const double radius = std::max(2.0, one.width_px / 2 * canvas_.zoom());
    for (const QPen& pen : {QPen(theme().ground, 3), QPen(strong ? theme().amber : theme().hatch, 1.2)}) {
        painter.setPen(pen);
        if (one.way.size() == 1) {
            painter.drawEllipse(on_screen(one.way[0]), radius, radius);
            if (!strong || one.source != MendFrom::around) continue;
            const QPointF source = on_screen({one.way[0].x + one.from.x, one.way[0].y + one.from.y});
            QPen dashed = pen;
            dashed.setStyle(Qt::DashLine);
            painter.setPen(dashed);
            painter.drawEllipse(source, radius, radius);
            continue;
        }
        QPolygonF line;
        for (const Point& p : one.way) line << on_screen(p);
        painter.drawPolyline(line);
    }
}

void MendingTool::paint(QPainter& painter) const {
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    const bool moves = hold_ && *hold_ != Hold::drawing;
    for (const Mended& one : uses_.all()) {
        const bool is_chosen = one.id == uses_.chosen();
        paint_one(painter, moves && one.id == now_.id ? now_ : one, is_chosen);
    }
    if (hold_ == Hold::drawing) {
        Mended drawn;
        drawn.way = way_;
        drawn.width_px = canvas_.brush().size;
        paint_one(painter, drawn, true);
    }
}

}  // namespace bp::app
