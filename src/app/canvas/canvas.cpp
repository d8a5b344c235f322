#include "app/canvas/canvas.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/cover.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double most_zoom = 8;
constexpr double margin = 20;

}  // namespace

Canvas::Canvas(Studio& studio, Viewer& viewer, Comparison& comparison, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), comparison_(comparison) {
    setObjectName(QStringLiteral("canvas"));
    setAccessibleName(tr("Picture"));
    setAccessibleDescription(tr("Ctrl with the arrow keys moves a mark over the picture, Enter is the button there"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(320, 240);
    connect(&flicker_, &QTimer::timeout, this, [this] {
        second_in_turn_ = !second_in_turn_;
        update();
    });
    connect(&viewer, &Viewer::updated, this, qOverload<>(&QWidget::update));
    connect(&viewer, &Viewer::patched, this, [this](const Rect& area) { update(on_screen(area)); });
    connect(&viewer, &Viewer::area_changed, this, [this] {
        if (fitted_)
            fit();
        else
            ask();
    });
    connect(&viewer, &Viewer::view_changed, this, qOverload<>(&QWidget::update));
    connect(&comparison.viewer(), &Viewer::updated, this, qOverload<>(&QWidget::update));
    connect(&comparison, &Comparison::changed, this, [this] {
        ask();
        update();
    });
    connect(&studio.document(), &Document::opened, this, [this] {
        leave_drag();
        part_ = 0;
        fit();
    });
    connect(&studio.document(), &Document::changed, this, [this] {
        if (part_ != 0 && !find_part(studio_.pile(), part_)) set_active_part(0);
        // A stroke on what is no more as it was would bring that back.
        if (stroke_ && !(base_of_stroke() == stroke_base_)) leave_drag();
        update();
    });
}

double Canvas::fit_zoom() const {
    const Rect area = viewer_.area();
    if (area.empty()) return 1;
    const double fits = std::min((width() - 2 * margin) / area.width, (height() - 2 * margin) / area.height);
    return std::clamp(fits, 0.005, 1.0);
}

void Canvas::fit() {
    const Rect area = viewer_.area();
    fitted_ = true;
    zoom_ = fit_zoom();
    centre_ = {area.left + area.width / 2.0, area.top + area.height / 2.0};
    ask();
    emit zoom_changed();
    update();
}

void Canvas::zoom_to(double zoom, QPointF anchor) {
    const QPointF fixed = to_canvas(anchor);
    const double least = fit_zoom();
    zoom_ = std::clamp(zoom, least, most_zoom);
    fitted_ = zoom_ <= least * 1.0001;
    centre_ = fixed - (anchor - QPointF(width() / 2.0, height() / 2.0)) / zoom_;
    keep_inside();
    ask();
    emit zoom_changed();
    update();
}

void Canvas::zoom_by(double factor) {
    const bool pointed = rect().contains(pointer_.toPoint());
    zoom_to(zoom_ * factor, pointed ? pointer_ : QPointF(width() / 2.0, height() / 2.0));
}

void Canvas::keep_inside() {
    const Rect area = viewer_.area();
    const auto kept = [&](double c, double low, double length, double screen) {
        const double half = (screen / 2 - margin) / zoom_;
        if (length <= 2 * half) return low + length / 2;
        return std::clamp(c, low + half, low + length - half);
    };
    centre_ = {kept(centre_.x(), area.left, area.width, width()), kept(centre_.y(), area.top, area.height, height())};
}

void Canvas::ask() {
    if (viewer_.area().empty()) return;
    const QPointF a = to_canvas({0, 0});
    const QPointF b = to_canvas({double(width()), double(height())});
    const int left = int(std::floor(std::max(0.0, a.x())));
    const int top = int(std::floor(std::max(0.0, a.y())));
    const Rect visible{left, top, int(std::ceil(b.x())) - left, int(std::ceil(b.y())) - top};
    const Rect seen = intersect(visible, viewer_.area());
    viewer_.demand(seen, zoom_ * devicePixelRatioF());
    if (comparison_.on()) comparison_.viewer().demand(seen, zoom_ * devicePixelRatioF());
}

QPointF Canvas::to_screen(QPointF p) const {
    return (p - centre_) * zoom_ + QPointF(width() / 2.0, height() / 2.0);
}

QPointF Canvas::to_canvas(QPointF p) const {
    return (p - QPointF(width() / 2.0, height() / 2.0)) / zoom_ + centre_;
}

void Canvas::set_painting(PaintOn what) {
    if (what == painting_) return;
    leave_drag();
    painting_ = what;
    settle_cursor(pointer_);
    update();
    emit painting_changed();
}

void Canvas::set_tool(CanvasTool* tool) {
    leave_drag();
    tool_ = tool;
    settle_cursor(pointer_);
    update();
}

bool Canvas::leave_drag() {
    if (!stroke_ && !tool_works_ && !panning_ && !dividing_) return false;
    const bool tried = stroke_ && painting_ == PaintOn::parts;
    stroke_.reset();
    down_by_key_ = false;
    panning_ = dividing_ = false;
    if (std::exchange(tool_works_, false)) tool_->cancel();
    if (tried && viewer_.trying()) viewer_.leave_trial();
    settle_cursor(pointer_);
    update();
    return true;
}

bool Canvas::leave_tool() {
    if (!painting() && !tool_) return false;
    set_painting(PaintOn::nothing);
    emit tool_left();
    return true;
}

void Canvas::pan(QPointF way) {
    constexpr double step = 60;
    centre_ += step * way / zoom_;
    keep_inside();
    ask();
    update();
}

void Canvas::step_mark(QPointF way) {
    constexpr double step = 12;
    move_mark(step * way);
}

void Canvas::set_flicker(bool on) {
    constexpr int beat_ms = 350;
    second_in_turn_ = false;
    if (on)
        flicker_.start(beat_ms);
    else
        flicker_.stop();
    update();
}

void Canvas::settle_cursor(QPointF at) {
    if (on_divider(at)) {
        setCursor(Qt::SplitHCursor);
    } else if (painting()) {
        setCursor(Qt::BlankCursor);
    } else {
        const auto shape = tool_ ? tool_->cursor_at(at) : std::nullopt;
        setCursor(shape.value_or(Qt::ArrowCursor));
    }
}

void Canvas::set_brush(const Brush& brush) {
    brush_ = brush;
    brush_.size = std::clamp(brush_.size, 2.0, 2000.0);
    emit brush_changed();
    update();
}

void Canvas::set_show_clipping(bool on) {
    show_clipping_ = on;
    clipping_.clear();
    update();
}

void Canvas::set_show_pole(bool on) {
    show_pole_ = on;
    update();
}

void Canvas::set_show_mask(bool on) {
    show_mask_ = on;
    update();
}

void Canvas::set_active_part(int part) {
    if (part_ == part) return;
    part_ = part;
    emit active_part_changed(part);
    update();
}

// In Frame view painting works on the frame that is seen; in Result view on the part that is chosen.
int Canvas::part_to_paint() {
    const Pile& pile = studio_.pile();
    if (viewer_.view() == View::result) return find_part(pile, part_) ? part_ : 0;
    const Part* chosen = find_part(pile, part_);
    if (chosen && chosen->frame == studio_.current()) return part_;
    const auto same = std::find_if(pile.parts.rbegin(), pile.parts.rend(),
                                   [&](const Part& p) { return p.frame == studio_.current(); });
    return same == pile.parts.rend() ? 0 : same->id;
}

Mask Canvas::painted_mask() const {
    const Pile& pile = studio_.pile();
    if (painting_ == PaintOn::sky && pile.zones) return pile.zones->sky;
    if (painting_ == PaintOn::trust && !pile.trust.empty()) return pile.trust;
    return Mask(pile.size);
}

Mask Canvas::base_of_stroke() const {
    if (painting_ != PaintOn::parts) return painted_mask();
    const Part* part = find_part(studio_.pile(), stroke_part_);
    return part ? part->mask : Mask(studio_.pile().size);
}

void Canvas::begin_stroke(QPointF at) {
    if (painting_ != PaintOn::parts) {
        stroke_base_ = base_of_stroke();
        stroke_.emplace(stroke_base_, brush_);
        extend_stroke(at);
        return;
    }
    if (viewer_.view() == View::difference || viewer_.view() == View::cover) {
        studio_.say(tr("Switch to Frame to paint a part of it."));
        return;
    }
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    stroke_part_ = part_to_paint();
    stroke_new_part_ = stroke_part_ == 0;
    if (stroke_new_part_ && viewer_.view() == View::result) {
        studio_.say(tr("Flip to the frame whose part you want, and paint there."));
        return;
    }
    if (stroke_new_part_ && (!frame || !usable(*frame))) {
        studio_.say(tr("This frame cannot be used."), true);
        return;
    }
    stroke_frame_ = studio_.current();
    stroke_base_ = base_of_stroke();
    stroke_.emplace(stroke_base_, brush_);
    extend_stroke(at);
}

void Canvas::extend_stroke(QPointF at) {
    const QPointF p = to_canvas(at) - QPointF(0.5, 0.5);
    const Rect changed = stroke_->extend({p.x(), p.y()});
    if (painting_ == PaintOn::parts && !stroke_new_part_ && viewer_.view() == View::result)
        viewer_.try_out_mask(stroke_part_, stroke_->mask(), changed);
    else
        update(on_screen(changed));
}

void Canvas::end_stroke() {
    const Mask mask = stroke_->mask();
    stroke_.reset();
    if (stroke_new_part_ && painting_ == PaintOn::parts && !find_frame(studio_.pile(), stroke_frame_)) return;
    Pile next = studio_.pile();
    if (painting_ == PaintOn::trust) {
        studio_.document().edit(with_trust(std::move(next), mask), tr("Paint where aligning looks"));
        return;
    }
    if (painting_ == PaintOn::sky) {
        studio_.document().edit(with_zones(std::move(next), mask), brush_.keep ? tr("Paint sky") : tr("Paint land"));
        return;
    }
    int part = stroke_part_;
    if (stroke_new_part_) {
        auto made = with_new_part(std::move(next), stroke_frame_);
        next = std::move(made.first);
        part = made.second;
    }
    next = with_part_mask(std::move(next), part, mask);
    studio_.document().edit(std::move(next), brush_.keep ? tr("Keep") : tr("Give back"));
    set_active_part(part);
}

const Mask* Canvas::shown_mask() const {
    if (!painting() || !show_mask_) return nullptr;
    if (stroke_) return &stroke_->mask();
    const Pile& pile = studio_.pile();
    if (painting_ == PaintOn::trust) return pile.trust.empty() ? nullptr : &pile.trust;
    if (painting_ == PaintOn::sky) return pile.zones && !pile.zones->sky.empty() ? &pile.zones->sky : nullptr;
    if (viewer_.view() == View::difference || viewer_.view() == View::cover) return nullptr;
    if (viewer_.view() == View::result) {
        // The result itself shows what is kept; the hatch would hide it.
        return nullptr;
    }
    const Part* chosen = find_part(pile, part_);
    if (chosen && chosen->frame == studio_.current()) return &chosen->mask;
    for (const Part& part : pile.parts)
        if (part.frame == studio_.current()) return &part.mask;
    return nullptr;
}

QRect Canvas::on_screen(const Rect& area) const {
    const QPointF a = to_screen({double(area.left), double(area.top)});
    const QPointF b = to_screen({double(area.right()), double(area.bottom())});
    // Smoothing reaches a little further.
    const int reach = 2 + int(std::ceil(zoom_));
    return QRectF(a, b).toAlignedRect().adjusted(-reach, -reach, reach, reach);
}

QRect Canvas::brush_mark(QPointF at) const {
    constexpr double pen = 4;
    const double reach = std::max(brush_.size / 2 * zoom_, 3.0) + pen;
    return QRectF(at.x() - reach, at.y() - reach, 2 * reach, 2 * reach).toAlignedRect();
}

// Draws anew what follows the pointer.
void Canvas::moved_from(QPointF before) {
    if (painting()) {
        update(brush_mark(before));
        update(brush_mark(pointer_));
    }
    update(readout_drawn_);
    update(readout_place(readout()));
}

QString Canvas::readout() const {
    QString text = tr("%1%").arg(std::lround(zoom_ * 100));
    const QPointF p = to_canvas(pointer_);
    const int x = int(std::floor(p.x()));
    const int y = int(std::floor(p.y()));
    if (!intersect(viewer_.area(), {x, y, 1, 1}).empty() && pointer_.x() >= 0) {
        text += tr("   x %1  y %2").arg(x).arg(y);
        if (const auto colour = viewer_.colour_at(x, y))
            text += tr("   %1 %2 %3").arg(colour->red()).arg(colour->green()).arg(colour->blue());
    }
    if (viewer_.view() == View::cover && !intersect(whole(studio_.pile().size), {x, y, 1, 1}).empty()) {
        const auto all = merged_ids(studio_.pile()).size();
        const double share = cover_shares(studio_.pile(), {x, y, 1, 1}, 0).at(0, 0, 0) / 65535.0;
        text += tr("   reached by %1 of %2 frames").arg(std::lround(share * double(all))).arg(all);
    }
    if (viewer_.view() == View::frame) text += tr("   frame %1").arg(number_of(studio_.pile(), studio_.current()));
    if (viewer_.view() == View::difference)
        text += tr("   frame %1 against %2, %3 times")
                    .arg(number_of(studio_.pile(), studio_.current()))
                    .arg(number_of(studio_.pile(), viewer_.against() == Against::before
                                                       ? frame_before(studio_.pile(), studio_.current())
                                                       : studio_.pile().reference))
                    .arg(viewer_.gain());
    return text;
}

QRect Canvas::readout_place(const QString& text) const {
    const QRect box = QFontMetrics(face(type::small)).boundingRect(text).adjusted(-9, -5, 9, 5);
    return {QPoint(space::medium, height() - box.height() - space::medium), box.size()};
}

void Canvas::set_divider(double at) {
    divider_ = std::clamp(at, 0.02, 0.98);
    update();
}

void Canvas::set_flipped(bool on) {
    flipped_ = on;
    update();
}

bool Canvas::on_divider(QPointF at) const {
    constexpr double reach = 6;
    return comparison_.on() && !flickers() && std::abs(at.x() - divider_x()) <= reach;
}

void Canvas::resizeEvent(QResizeEvent*) {
    if (fitted_) {
        fit();
        return;
    }
    keep_inside();
    ask();
}

}  // namespace bp::app
