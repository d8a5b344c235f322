#include "app/canvas/place_tool.h"

#include <cmath>
#include <numbers>
#include <utility>

#include "align/moved.h"
#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr double ring = 92;  // screen pixels
constexpr double snap = 14;  // how near to its place the pivot jumps onto it
constexpr double knot_at = -std::numbers::pi / 4;

}  // namespace

QPointF PlaceTool::pivot_on_screen() const {
    return on_screen(pivot());
}

std::optional<PlaceTool::Hold> PlaceTool::hold_at(QPointF at) const {
    if (!subject_.works()) return std::nullopt;
    const QPointF pivot = pivot_on_screen();
    const QPointF knot = pivot + ring * QPointF(std::cos(knot_at), std::sin(knot_at));
    if (distance(at, knot) <= handle_reach + 2) return Hold::scale;
    if (subject_.pivot_moves() && distance(at, pivot) <= handle_reach) return Hold::pivot;
    if (std::abs(distance(at, pivot) - ring) <= handle_reach) return Hold::turn;
    return Hold::move;
}

bool PlaceTool::press(QPointF at) {
    hold_ = hold_at(at);
    if (!hold_ || *hold_ == Hold::move) {
        const QPointF on = canvas_.to_canvas(at);
        hold_ = subject_.take_up({on.x() - 0.5, on.y() - 0.5}) ? std::optional(Hold::move) : std::nullopt;
    }
    from_ = at;
    change_ = {};
    return hold_.has_value();
}

std::optional<QRect> PlaceTool::drag(QPointF at) {
    if (!hold_ || !subject_.works()) return std::nullopt;
    const QPointF pivot = pivot_on_screen();
    switch (*hold_) {
        case Hold::pivot: {
            const QPointF to = canvas_.to_canvas(at);
            pivot_ = Point{to.x() - 0.5, to.y() - 0.5};
            if (const auto there = subject_.pivot_snap(); there && distance(at, on_screen(*there)) <= snap)
                pivot_ = *there;
            return std::nullopt;
        }
        case Hold::turn: {
            const auto angle = [&](QPointF p) { return std::atan2(p.y() - pivot.y(), p.x() - pivot.x()); };
            change_ = turned_and_scaled(angle(at) - angle(from_), 1, this->pivot());
            break;
        }
        case Hold::scale:
            change_ = turned_and_scaled(0, std::max(0.1, distance(at, pivot) / distance(from_, pivot)), this->pivot());
            break;
        case Hold::move: {
            const QPointF way = (at - from_) / canvas_.zoom();
            const Point by = subject_.snapped({way.x(), way.y()}, handle_reach / canvas_.zoom());
            change_ = Matrix::shift(by.x, by.y);
            break;
        }
    }
    viewer_.try_out(subject_.moved(change_));
    return std::nullopt;
}

void PlaceTool::release() {
    const auto held = std::exchange(hold_, std::nullopt);
    if (!held || *held == Hold::pivot || change_.is_identity()) return;
    const auto way = *held == Hold::turn    ? PlaceSubject::Way::turn
                     : *held == Hold::scale ? PlaceSubject::Way::scale
                                            : PlaceSubject::Way::move;
    studio_.document().edit(subject_.moved(change_), subject_.words(way));
}

void PlaceTool::cancel() {
    hold_.reset();
    viewer_.leave_trial();
}

std::optional<Qt::CursorShape> PlaceTool::cursor_at(QPointF at) const {
    const auto hold = hold_at(at);
    if (!hold) return std::nullopt;
    switch (*hold) {
        case Hold::pivot:
            return Qt::CrossCursor;
        case Hold::turn:
            return Qt::PointingHandCursor;
        case Hold::scale:
            return Qt::SizeBDiagCursor;
        case Hold::move:
            break;
    }
    return Qt::SizeAllCursor;
}

void PlaceTool::paint(QPainter& painter) const {
    if (!subject_.works()) return;
    const QPointF pivot = pivot_on_screen();
    const QPointF knot = pivot + ring * QPointF(std::cos(knot_at), std::sin(knot_at));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    QPolygonF outline;
    for (const QPointF& corner : subject_.outline()) outline << on_screen({corner.x(), corner.y()});
    for (const QPen& pen : {QPen(theme().ground, 4), QPen(theme().amber, 1.5)}) {
        painter.setPen(pen);
        painter.drawPolygon(outline);
        painter.drawEllipse(pivot, ring, ring);
        painter.drawLine(pivot - QPointF(7, 0), pivot + QPointF(7, 0));
        painter.drawLine(pivot - QPointF(0, 7), pivot + QPointF(0, 7));
    }
    painter.setBrush(theme().ground);
    painter.drawEllipse(knot, 6, 6);
}

}  // namespace bp::app
