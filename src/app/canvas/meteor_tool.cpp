#include "app/canvas/meteor_tool.h"

#include <algorithm>
#include <utility>

#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr double narrowest = 1;  // pixels of the picture

bool is_meteor(const Part& part) {
    return part.of == PartOf::meteor && part.on && !part.place && !part.mask.empty();
}

}  // namespace

void MeteorTool::set_part(int id) {
    if (part_ == id) return;
    part_ = id;
    canvas_.update();
}

std::optional<DrawnShape> MeteorTool::band() const {
    if (viewer_.view() != View::result || !studio_.document().open()) return std::nullopt;
    const Part* part = find_part(studio_.pile(), part_);
    return part && is_meteor(*part) ? std::optional(band_around(part->mask)) : std::nullopt;
}

BandHandles MeteorTool::on_screen(const DrawnShape& band) const {
    return {canvas_.to_screen({band.from.x + 0.5, band.from.y + 0.5}),
            canvas_.to_screen({band.to.x + 0.5, band.to.y + 0.5}), band.width / 2 * canvas_.zoom()};
}

bool MeteorTool::press(QPointF at) {
    const std::optional<DrawnShape> own = band();
    hold_ = own ? on_screen(*own).hold_at(at) : std::nullopt;
    if (hold_) {
        before_ = now_ = *own;
        from_ = at;
        return true;
    }
    if (viewer_.view() != View::result || !studio_.document().open()) return false;
    const QPointF on = canvas_.to_canvas(at);
    const Part* part = part_at(studio_.pile(), {on.x() - 0.5, on.y() - 0.5});
    if (!part || !is_meteor(*part)) return false;
    emit chosen(part->id);
    return true;
}

DrawnShape MeteorTool::pulled(QPointF to) const {
    DrawnShape out = before_;
    const QPointF way = (to - from_) / canvas_.zoom();
    switch (*hold_) {
        case BandHandles::Hold::from:
            out.from = {before_.from.x + way.x(), before_.from.y + way.y()};
            break;
        case BandHandles::Hold::to:
            out.to = {before_.to.x + way.x(), before_.to.y + way.y()};
            break;
        case BandHandles::Hold::width:
            // To both sides at once: its half grows with the pointer.
            out.width = std::max(narrowest, before_.width + 2 * QPointF::dotProduct(way, on_screen(before_).across()));
            break;
    }
    return out;
}

std::optional<QRect> MeteorTool::drag(QPointF at) {
    if (!hold_ || !band()) return std::nullopt;
    now_ = pulled(at);
    viewer_.try_out(with_meteor_band(studio_.pile(), part_, now_));
    return std::nullopt;
}

void MeteorTool::release() {
    if (!std::exchange(hold_, std::nullopt)) return;
    viewer_.leave_trial();
    const std::optional<DrawnShape> own = band();
    // It may have gone, or changed, while it was held.
    if (!own || *own != before_ || now_ == before_) return;
    studio_.document().edit(with_meteor_band(studio_.pile(), part_, now_), tr("Pull a meteor"));
}

void MeteorTool::cancel() {
    hold_.reset();
    viewer_.leave_trial();
}

std::optional<Qt::CursorShape> MeteorTool::cursor_at(QPointF at) const {
    const std::optional<DrawnShape> own = band();
    if (own && on_screen(*own).hold_at(at)) return Qt::SizeAllCursor;
    return std::nullopt;
}

void MeteorTool::paint(QPainter& painter) const {
    const std::optional<DrawnShape> own = band();
    if (!own) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    on_screen(hold_ ? now_ : *own).paint(painter, hold_.has_value());
}

}  // namespace bp::app
