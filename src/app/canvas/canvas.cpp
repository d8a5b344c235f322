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
constexpr double margin = 12;

}  // namespace

Canvas::Canvas(Studio& studio, Viewer& viewer, Comparison& comparison, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), comparison_(comparison) {
    setObjectName(QStringLiteral("canvas"));
    setLayoutDirection(Qt::LeftToRight);  // A picture is not mirrored by the language.
    setAccessibleName(tr("Picture"));
    setAccessibleDescription(tr("Ctrl with the arrow keys moves a mark over the picture, Enter is the button there"));
    setMouseTracking(true);
    setAttribute(Qt::WA_OpaquePaintEvent);  // what lies behind is not painted first
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(320, 240);
    zoom_button_ = new QToolButton(this);
    zoom_button_->setObjectName(QStringLiteral("zoom"));
    zoom_button_->setAccessibleName(tr("Size of the picture"));
    zoom_button_->setToolTip(tr("How large the picture is shown: all of it, pixel by pixel, or as typed"));
    zoom_button_->setFocusPolicy(Qt::TabFocus);
    zoom_button_->setProperty("over", true);
    const auto say_zoom = [this] {
        zoom_button_->setText(tr("%1%").arg(std::lround(100 * zoom_ / pixel_by_pixel())));
        zoom_button_->adjustSize();
        zoom_button_->move(space::medium, height() - zoom_button_->height() - space::small);
    };
    connect(this, &Canvas::zoom_changed, this, say_zoom);
    say_zoom();
    connect(&flicker_, &QTimer::timeout, this, [this] {
        second_in_turn_ = !second_in_turn_;
        update();
    });
    connect(&viewer, &Viewer::updated, this, qOverload<>(&QWidget::update));
    connect(&viewer, &Viewer::patched, this, [this](const Rect& area) { update(shown_on_screen(area)); });
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
        fit();
    });
    connect(&studio, &Studio::selection_changed, this, [this] {
        update(readout_drawn_);
        update(readout_place(readout()));
    });
    connect(&studio.document(), &Document::changed, this, [this] {
        // A stroke on what is no more as it was would bring that back.
        if (painting() && paint_.overtaken()) leave_drag();
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
    const QPointF fixed = screen_to_shown(anchor);
    const double least = fit_zoom();
    zoom_ = std::clamp(zoom, least, most_zoom);
    fitted_ = zoom_ <= least * 1.0001;
    centre_ = fixed - (anchor - QPointF(width() / 2.0, height() / 2.0)) / zoom_;
    keep_inside();
    ask();
    emit zoom_changed();
    update();
}

void Canvas::look_at(QPointF place) {
    centre_ = turned().map(place);
    zoom_to(std::max(pixel_by_pixel(), zoom_), {width() / 2.0, height() / 2.0});
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
    const QPointF a = screen_to_shown({0, 0});
    const QPointF b = screen_to_shown({double(width()), double(height())});
    const int left = int(std::floor(a.x()));
    const int top = int(std::floor(a.y()));
    const Rect visible{left, top, int(std::ceil(b.x())) - left, int(std::ceil(b.y())) - top};
    const Rect seen = intersect(visible, viewer_.area());
    viewer_.demand(seen, zoom_ * devicePixelRatioF());
    if (comparison_.on()) comparison_.viewer().demand(seen, zoom_ * devicePixelRatioF());
}

QPointF Canvas::shown_to_screen(QPointF p) const {
    return (p - centre_) * zoom_ + QPointF(width() / 2.0, height() / 2.0);
}

QPointF Canvas::screen_to_shown(QPointF p) const {
    return (p - QPointF(width() / 2.0, height() / 2.0)) / zoom_ + centre_;
}

QTransform Canvas::turned() const {
    const Turn turn = viewer_.turn();
    const auto& m = turn.matrix().m();
    // Half a pixel lies between counting from centres and from edges.
    return QTransform::fromTranslate(-0.5, -0.5) * QTransform(m[0], m[3], m[1], m[4], m[2], m[5]) *
           QTransform::fromTranslate(0.5, 0.5);
}

QTransform Canvas::screen_to_canvas() const {
    return QTransform::fromTranslate(-width() / 2.0, -height() / 2.0) * QTransform::fromScale(1 / zoom_, 1 / zoom_) *
           QTransform::fromTranslate(centre_.x(), centre_.y()) * turned().inverted();
}

void Canvas::set_painting(MaskTarget* on) {
    if (on == paint_.target()) return;
    leave_drag();
    paint_.set_target(on);
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
    if (!tool_works_ && !panning_ && !dividing_) return false;
    down_by_key_ = false;
    panning_ = dividing_ = false;
    if (std::exchange(tool_works_, false)) at_hand()->cancel();
    settle_cursor(pointer_);
    update();
    return true;
}

bool Canvas::leave_tool() {
    if (!at_hand() || !at_hand()->taken_up()) return false;
    set_painting(nullptr);
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
    } else {
        const CanvasTool* tool = at_hand();
        const auto shape = tool ? tool->cursor_at(at) : std::nullopt;
        setCursor(shape.value_or(Qt::ArrowCursor));
    }
}

void Canvas::set_brush(const Brush& brush) {
    paint_.set_brush(brush);
    emit brush_changed();
    update();
}

void Canvas::set_show_clipping(bool on) {
    show_clipping_ = on;
    clipping_.clear();
    update();
}

void Canvas::set_marked(std::vector<MarkedLine> lines) {
    // Painting all of it takes as long as a frame takes to come.
    if (lines == marked_lines_) return;
    marked_lines_ = std::move(lines);
    update();
}

void Canvas::set_show_pole(bool on) {
    if (std::exchange(show_pole_, on) != on) update();
}

void Canvas::set_show_mask(bool on) {
    paint_.set_show_mask(on);
    update();
}

QRect Canvas::on_screen(const Rect& area) const {
    return shown_on_screen(viewer_.turn().shown_in(area));
}

QRect Canvas::shown_on_screen(const Rect& area) const {
    const QPointF a = shown_to_screen({double(area.left), double(area.top)});
    const QPointF b = shown_to_screen({double(area.right()), double(area.bottom())});
    // Smoothing reaches a little further.
    const int reach = 2 + int(std::ceil(zoom_));
    return QRectF(a, b).toAlignedRect().adjusted(-reach, -reach, reach, reach);
}

// Draws anew what follows the pointer.
void Canvas::moved_from(QPointF before) {
    if (const CanvasTool* tool = at_hand()) {
        update(tool->mark_at(before));
        update(tool->mark_at(pointer_));
    }
    update(readout_drawn_);
    update(readout_place(readout()));
}

void Canvas::set_outlined(std::vector<QPolygonF> lines, std::vector<QPolygonF> hatched) {
    if (lines == outlined_ && hatched == hatched_) return;
    outlined_ = std::move(lines);
    hatched_ = std::move(hatched);
    update();
}

void Canvas::set_plumb(std::optional<QPointF> at) {
    if (at == plumb_) return;
    plumb_ = at;
    update();
}

QString Canvas::readout() const {
    QString text;
    const QPointF p = screen_to_shown(pointer_), on_canvas = to_canvas(pointer_);
    const int x = int(std::floor(p.x()));
    const int y = int(std::floor(p.y()));
    if (!intersect(viewer_.area(), {x, y, 1, 1}).empty() && pointer_.x() >= 0) {
        text += tr("   x %1  y %2").arg(x).arg(y);
        if (const auto samples = viewer_.samples_at(x, y)) text += samples_in_words(*samples);
    }
    if (viewer_.view() == View::result && !text.isEmpty())
        if (const auto recorded = viewer_.recorded_at({on_canvas.x() - 0.5, on_canvas.y() - 0.5})) {
            const QString number = QString::number(number_of(studio_.pile(), studio_.current()));
            text += studio_.pile().channels == 1 ? tr("   frame %1: %2").arg(number).arg((*recorded)[0])
                                                 : tr("   frame %1: %2 %3 %4")
                                                       .arg(number)
                                                       .arg((*recorded)[0])
                                                       .arg((*recorded)[1])
                                                       .arg((*recorded)[2]);
        }
    const Rect pixel{int(std::floor(on_canvas.x())), int(std::floor(on_canvas.y())), 1, 1};
    if (viewer_.view() == View::cover && !intersect(canvas_of(studio_.pile()), pixel).empty()) {
        const auto all = merged_ids(studio_.pile()).size();
        const double share = cover_shares(studio_.pile(), pixel, 0).at(0, 0, 0) / 65535.0;
        text += tr("   reached by %1 of %2 frames").arg(std::lround(share * double(all))).arg(all);
    }
    if (viewer_.view() == View::origins) text += origin_in_words(x, y);
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

// Samples of 16 bits, and how much light they stand for.
QString Canvas::samples_in_words(const std::array<int, 3>& samples) const {
    const Pile& pile = studio_.pile();
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    const auto light = [&](std::size_t c) { return curve.light(std::uint16_t(samples[c])) / LightCurve::full; };
    if (pile.channels == 1) return tr("   %1   light %2%").arg(samples[0]).arg(number_in_words(100 * light(0), 2));
    const auto weights = luminance_weights(pile.profile);
    const double all = weights[0] * light(0) + weights[1] * light(1) + weights[2] * light(2);
    return tr("   %1 %2 %3   light %4%")
        .arg(samples[0])
        .arg(samples[1])
        .arg(samples[2])
        .arg(number_in_words(100 * all, 2));
}

QString Canvas::origin_in_words(int x, int y) const {
    if (!has_origins(studio_.pile())) return tr("   from all frames together: means and added light have no origins");
    const auto from = pointer_.x() >= 0 ? viewer_.origin_at(x, y) : std::nullopt;
    if (!from || from->first == 0) return {};
    const int first = number_of(studio_.pile(), from->first), second = number_of(studio_.pile(), from->second);
    return first == second ? tr("   from frame %1").arg(first)
                           : tr("   between frames %1 and %2").arg(first).arg(second);
}

QRect Canvas::readout_place(const QString& text) const {
    const QRect box = QFontMetrics(face(type::small)).boundingRect(text).adjusted(-9, -5, 9, 5);
    const int left = zoom_button_->geometry().right() + space::small;
    return {QPoint(left, zoom_button_->y() + (zoom_button_->height() - box.height()) / 2), box.size()};
}

void Canvas::set_divider(double at) {
    divider_ = std::clamp(at, 0.02, 0.98);
    update();
}

void Canvas::set_flipped(bool on) {
    if (std::exchange(flipped_, on) != on) update();
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
    emit zoom_changed();
}

}  // namespace bp::app
