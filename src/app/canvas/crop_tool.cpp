#include "app/canvas/crop_tool.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "app/looks/handles.h"
#include "app/looks/theme.h"
#include "engine/cover.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

// One axis of a crop whose lower, upper or both ends move by `by`, inside `canvas`.
std::pair<int, int> moved(int begin, int end, int which, int by, kernels::Span canvas) {
    // A crop that was typed narrower stays as it is; it only is not made narrower still.
    const int width = std::min(CropTool::least, end - begin);
    if (which < 0) return {std::clamp(begin + by, canvas.begin, end - width), end};
    if (which > 0) return {begin, std::clamp(end + by, begin + width, canvas.end)};
    const int kept = std::clamp(by, canvas.begin - begin, canvas.end - end);
    return {begin + kept, end + kept};
}

}  // namespace

Rect CropTool::crop() const {
    return now_.value_or(output_area(studio_.pile()));
}

QRectF CropTool::on_screen() const {
    const Rect area = crop();
    return {canvas_.shown_to_screen({double(area.left), double(area.top)}),
            canvas_.shown_to_screen({double(area.right()), double(area.bottom())})};
}

std::optional<CropTool::Hold> CropTool::hold_at(QPointF at) const {
    if (viewer_.view() != View::cover || !studio_.document().open()) return std::nullopt;
    const QRectF box = on_screen();
    if (!box.adjusted(-handle_reach, -handle_reach, handle_reach, handle_reach).contains(at)) return std::nullopt;
    const auto side = [](double p, double low, double high) {
        return std::abs(p - low) <= handle_reach ? -1 : std::abs(p - high) <= handle_reach ? 1 : 0;
    };
    return Hold{side(at.x(), box.left(), box.right()), side(at.y(), box.top(), box.bottom())};
}

bool CropTool::press(QPointF at) {
    hold_ = hold_at(at);
    from_ = at;
    before_ = crop();
    return hold_.has_value();
}

std::optional<QRect> CropTool::drag(QPointF at) {
    if (!hold_) return std::nullopt;
    const QPointF by = (at - from_) / canvas_.zoom();
    const Rect canvas = canvas_of(studio_.pile());
    const bool whole_crop = hold_->across == 0 && hold_->down == 0;
    Rect next = before_;
    if (hold_->across != 0 || whole_crop) {
        const auto [left, right] = moved(before_.left, before_.right(), hold_->across, int(std::lround(by.x())),
                                         {canvas.left, canvas.right()});
        next.left = left;
        next.width = right - left;
    }
    if (hold_->down != 0 || whole_crop) {
        const auto [top, bottom] =
            moved(before_.top, before_.bottom(), hold_->down, int(std::lround(by.y())), {canvas.top, canvas.bottom()});
        next.top = top;
        next.height = bottom - top;
    }
    now_ = ratio_ && !whole_crop ? in_ratio(next, canvas) : next;
    return std::nullopt;
}

Rect CropTool::in_ratio(const Rect& pulled, const Rect& canvas) const {
    // How far one axis can go from what stays of it.
    const auto room = [](int hold, int begin, int end, kernels::Span all) {
        if (hold < 0) return end - all.begin;
        if (hold > 0) return all.end - begin;
        return std::min(begin + end - 2 * all.begin, 2 * all.end - begin - end);
    };
    const double across = room(hold_->across, before_.left, before_.right(), {canvas.left, canvas.right()});
    const double down = room(hold_->down, before_.top, before_.bottom(), {canvas.top, canvas.bottom()});
    const double wanted = hold_->across == 0 ? pulled.height * *ratio_
                          : hold_->down == 0 ? pulled.width
                                             : std::max(double(pulled.width), pulled.height * *ratio_);
    const double width = std::max(1.0, std::min({wanted, across, down * *ratio_}));
    const int w = std::max(1, int(std::lround(width))), h = std::max(1, int(std::lround(width / *ratio_)));
    const auto begin = [](int hold, int first, int end, int length) {
        return hold < 0 ? end - length : hold > 0 ? first : (first + end - length) / 2;
    };
    return intersect({begin(hold_->across, before_.left, before_.right(), w),
                      begin(hold_->down, before_.top, before_.bottom(), h), w, h},
                     canvas);
}

void CropTool::release() {
    hold_.reset();
    const auto chosen = std::exchange(now_, std::nullopt);
    if (chosen && *chosen != before_) studio_.document().edit(with_crop(studio_.pile(), chosen), QObject::tr("Crop"));
}

void CropTool::cancel() {
    hold_.reset();
    now_.reset();
}

std::optional<Qt::CursorShape> CropTool::cursor_at(QPointF at) const {
    const auto hold = hold_at(at);
    if (!hold) return std::nullopt;
    if (hold->across == 0 && hold->down == 0) return Qt::SizeAllCursor;
    if (hold->down == 0) return Qt::SizeHorCursor;
    if (hold->across == 0) return Qt::SizeVerCursor;
    return hold->across == hold->down ? Qt::SizeFDiagCursor : Qt::SizeBDiagCursor;
}

void CropTool::paint(QPainter& painter) const {
    if (viewer_.view() != View::cover || !studio_.document().open()) return;
    const QRectF box = on_screen();
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setBrush(Qt::NoBrush);
    for (const QPen& pen : {QPen(theme().ground, 3), QPen(theme().amber, 1)}) {
        painter.setPen(pen);
        painter.drawRect(box);
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(theme().ground);
    painter.setPen(QPen(theme().amber, 1.5));
    for (const double x : {box.left(), box.center().x(), box.right()})
        for (const double y : {box.top(), box.center().y(), box.bottom()})
            if (QPointF(x, y) != box.center()) painter.drawEllipse(QPointF(x, y), 4.5, 4.5);
}

}  // namespace bp::app
