#include "app/canvas/place_tool.h"

#include <cmath>
#include <numbers>
#include <utility>

#include "align/moved.h"
#include "app/looks/theme.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double ring = 92;  // screen pixels
constexpr double reach = 9;  // how near to a handle it is taken
constexpr double snap = 14;  // how near to the pole the pivot jumps onto it
constexpr double knot_at = -std::numbers::pi / 4;

double distance(QPointF a, QPointF b) {
    return std::hypot(a.x() - b.x(), a.y() - b.y());
}

}  // namespace

Point PlaceTool::pivot() const {
    const Size size = studio_.pile().size;
    return pivot_.value_or(pole_in(studio_.pile()).value_or(Point{(size.width - 1) / 2.0, (size.height - 1) / 2.0}));
}

QPointF PlaceTool::pivot_on_screen() const {
    const Point p = pivot();
    return canvas_.to_screen({p.x + 0.5, p.y + 0.5});
}

bool PlaceTool::works() const {
    const Pile& pile = studio_.pile();
    const Frame* frame = find_frame(pile, studio_.current());
    return !viewer_.of_all() && frame && usable(*frame) && frame->id != pile.reference && frame->role != Role::dark;
}

std::optional<PlaceTool::Hold> PlaceTool::hold_at(QPointF at) const {
    if (!works()) return std::nullopt;
    const QPointF pivot = pivot_on_screen();
    const QPointF knot = pivot + ring * QPointF(std::cos(knot_at), std::sin(knot_at));
    if (distance(at, knot) <= reach + 2) return Hold::scale;
    if (distance(at, pivot) <= reach) return Hold::pivot;
    if (std::abs(distance(at, pivot) - ring) <= reach) return Hold::turn;
    return Hold::move;
}

bool PlaceTool::press(QPointF at) {
    hold_ = hold_at(at);
    from_ = at;
    change_ = {};
    return hold_.has_value();
}

std::optional<QRect> PlaceTool::drag(QPointF at) {
    if (!hold_ || !works()) return std::nullopt;
    const QPointF pivot = pivot_on_screen();
    switch (*hold_) {
        case Hold::pivot: {
            const QPointF to = canvas_.to_canvas(at);
            pivot_ = Point{to.x() - 0.5, to.y() - 0.5};
            if (const auto pole = pole_in(studio_.pile());
                pole && distance(at, canvas_.to_screen({pole->x + 0.5, pole->y + 0.5})) <= snap)
                pivot_ = *pole;
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
            const QPointF by = (at - from_) / canvas_.zoom();
            change_ = Matrix::shift(by.x(), by.y());
            break;
        }
    }
    viewer_.try_out(with_moved_by_hand(studio_.pile(), studio_.current(), change_, studio_.zone()));
    return std::nullopt;
}

void PlaceTool::release() {
    const auto held = std::exchange(hold_, std::nullopt);
    if (!held || *held == Hold::pivot || change_.is_identity()) return;
    const Pile& pile = studio_.pile();
    const int number = number_of(pile, studio_.current());
    const QString what = *held == Hold::turn    ? QObject::tr("Turn frame %1")
                         : *held == Hold::scale ? QObject::tr("Scale frame %1")
                                                : QObject::tr("Move frame %1");
    studio_.document().edit(with_moved_by_hand(pile, studio_.current(), change_, studio_.zone()), what.arg(number));
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
    if (!works()) return;
    const QPointF pivot = pivot_on_screen();
    const QPointF knot = pivot + ring * QPointF(std::cos(knot_at), std::sin(knot_at));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 4), QPen(theme().amber, 1.5)}) {
        painter.setPen(pen);
        painter.drawEllipse(pivot, ring, ring);
        painter.drawLine(pivot - QPointF(7, 0), pivot + QPointF(7, 0));
        painter.drawLine(pivot - QPointF(0, 7), pivot + QPointF(0, 7));
    }
    painter.setBrush(theme().ground);
    painter.drawEllipse(knot, 6, 6);
}

}  // namespace bp::app
