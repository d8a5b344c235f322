#include "app/canvas/streak_tool.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "app/looks/handles.h"
#include "app/looks/theme.h"

namespace bp::app {
namespace {

double to_segment(QPointF p, QPointF a, QPointF b) {
    const QPointF way = b - a;
    const double length = std::max(1e-9, QPointF::dotProduct(way, way));
    const double t = std::clamp(QPointF::dotProduct(p - a, way) / length, 0.0, 1.0);
    return distance(p, a + t * way);
}

}  // namespace

const Frame* StreakTool::frame() const {
    if (viewer_.view() != View::frame || !studio_.document().open()) return nullptr;
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    return frame && usable(*frame) && frame->role == Role::scene ? frame : nullptr;
}

Point StreakTool::on_frame(const Frame& frame, QPointF screen) const {
    const QPointF p = canvas_.to_canvas(screen);
    return placement(studio_.pile(), frame, studio_.zone()).to_frame({p.x() - 0.5, p.y() - 0.5});
}

QPointF StreakTool::on_screen(const Frame& frame, Point at) const {
    const Point p = placement(studio_.pile(), frame, studio_.zone()).to_canvas(at);
    return canvas_.to_screen({p.x + 0.5, p.y + 0.5});
}

std::optional<StreakAt> StreakTool::chosen() const {
    return chosen_ && find_streak(studio_.pile(), *chosen_) ? chosen_ : std::nullopt;
}

void StreakTool::choose(std::optional<StreakAt> at) {
    chosen_ = at;
    canvas_.update();
}

void StreakTool::set_drawing(bool on) {
    drawing_ = on;
    begun_.reset();
    canvas_.update();
}

BandHandles StreakTool::handles_of(const Frame& frame, const Line& line) const {
    return {on_screen(frame, line.from), on_screen(frame, line.to), band_of(line).width / 2 * canvas_.zoom()};
}

std::optional<StreakTool::Hold> StreakTool::hold_at(QPointF at) const {
    const Frame* of = frame();
    const std::optional<StreakAt> held = chosen();
    if (!of || !held || held->frame != of->id || drawing_) return std::nullopt;
    return handles_of(*of, find_streak(studio_.pile(), *held)->line).hold_at(at);
}

std::optional<StreakAt> StreakTool::streak_under(QPointF at) const {
    const Frame* of = frame();
    if (!of) return std::nullopt;
    std::optional<StreakAt> out;
    double best = handle_reach;
    for (std::size_t i = 0; i < of->streaks.size(); ++i) {
        const Line& line = of->streaks[i].line;
        const double d = to_segment(at, on_screen(*of, line.from), on_screen(*of, line.to));
        if (d >= best) continue;
        best = d;
        out = {of->id, int(i)};
    }
    return out;
}

void StreakTool::draw(QPointF at) {
    const Frame* of = frame();
    if (!of) {
        studio_.say(tr("Switch to Frame to draw a streak: it is drawn in the frame that has it."));
        return;
    }
    const Point p = on_frame(*of, at);
    if (!begun_ || begun_in_ != of->id) {
        begun_ = p;
        begun_in_ = of->id;
        return;
    }
    // Twice in one place is no line.
    if (distance(on_screen(*of, *begun_), at) < handle_reach) return;
    constexpr double usual_width = 4;
    FrameStreak streak;
    streak.kind = StreakKind::satellite;
    streak.line = {*std::exchange(begun_, std::nullopt), p};
    streak.line.width_px = usual_width;
    streak.line.confidence = 1;
    streak.left_out = true;
    const auto place = int(of->streaks.size());
    const int id = of->id;
    drawing_ = false;
    studio_.document().edit(with_drawn_streak(studio_.pile(), id, streak), tr("Draw a streak"));
    chosen_ = {id, place};
    emit drawing_ended();
    emit chosen_on_picture();
}

bool StreakTool::press(QPointF at) {
    if (drawing_) {
        draw(at);
        return true;
    }
    hold_ = hold_at(at);
    if (hold_) {
        before_ = now_ = find_streak(studio_.pile(), *chosen())->line;
        from_ = at;
        return true;
    }
    const std::optional<StreakAt> under = streak_under(at);
    if (!under) return false;
    chosen_ = under;
    emit chosen_on_picture();
    return true;
}

Line StreakTool::pulled(const Frame& frame, QPointF to) const {
    Line out = before_;
    // By as much as the pointer went: a handle is not always held in its middle.
    const auto moved = [&](Point end) { return on_frame(frame, on_screen(frame, end) + to - from_); };
    switch (*hold_) {
        case Hold::from:
            out.from = moved(before_.from);
            break;
        case Hold::to:
            out.to = moved(before_.to);
            break;
        case Hold::width:
            // A band is as wide as two widths of its line and its glow: its half grows with the pointer.
            out.width_px =
                std::max(1.0, before_.width_px + QPointF::dotProduct(to - from_, handles_of(frame, before_).across()) /
                                                     canvas_.zoom());
            break;
    }
    return out;
}

std::optional<QRect> StreakTool::drag(QPointF at) {
    const Frame* of = frame();
    if (hold_ && of) now_ = pulled(*of, at);
    return std::nullopt;
}

void StreakTool::release() {
    const bool held = std::exchange(hold_, std::nullopt).has_value();
    const std::optional<StreakAt> at = chosen();
    // It may have gone, or changed, while it was held.
    if (!held || !at || now_ == before_ || find_streak(studio_.pile(), *at)->line != before_) return;
    studio_.document().edit(with_streak_line(studio_.pile(), *at, now_), tr("Pull a streak"));
}

void StreakTool::cancel() {
    hold_.reset();
}

std::optional<Qt::CursorShape> StreakTool::cursor_at(QPointF at) const {
    if (drawing_) return Qt::CrossCursor;
    if (hold_at(at)) return Qt::SizeAllCursor;
    if (streak_under(at)) return Qt::PointingHandCursor;
    return std::nullopt;
}

QRect StreakTool::mark_at(QPointF at) const {
    const Frame* of = frame();
    if (!drawing_ || !begun_ || !of || begun_in_ != of->id) return {};
    constexpr int beside = 4;
    return QRectF(on_screen(*of, *begun_), at).normalized().toAlignedRect().adjusted(-beside, -beside, beside, beside);
}

void StreakTool::paint(QPainter& painter) const {
    const Frame* of = frame();
    if (!of) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    if (drawing_) {
        if (!begun_ || begun_in_ != of->id) return;
        const QPointF first = on_screen(*of, *begun_);
        for (const QPen& pen : {QPen(theme().ground, 3.5), QPen(theme().amber, 1.5)}) {
            painter.setPen(pen);
            painter.drawLine(first, canvas_.pointer());
        }
        return;
    }
    const std::optional<StreakAt> held = chosen();
    if (!held || held->frame != of->id) return;
    const Line line = hold_ ? now_ : find_streak(studio_.pile(), *held)->line;
    handles_of(*of, line).paint(painter, hold_.has_value());
}

}  // namespace bp::app
