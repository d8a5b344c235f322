#include "app/viewer.h"

#include <QColor>
#include <algorithm>
#include <cmath>

#include "app/pictures.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr int difference_gain = 4;
constexpr int pan_pause_ms = 40;
constexpr int tile = 256;  // visible areas are rounded to this, so that small moves need nothing new

Rect rounded(const Rect& area, int unit) {
    const int left = area.left / unit * unit;
    const int top = area.top / unit * unit;
    return {left, top, (area.right() - left + unit - 1) / unit * unit, (area.bottom() - top + unit - 1) / unit * unit};
}

// The canvas pixels that `region` of `level` stands for: whole pixels of the level, so it may reach past an odd edge.
Rect covered_by(const Rect& region, int level) {
    const int step = 1 << level;
    return {region.left * step, region.top * step, region.width * step, region.height * step};
}

bool holds(const Rect& outer, const Rect& inner) {
    return intersect(outer, inner) == inner;
}

}  // namespace

// All that a picture is made from, by value.
struct Viewer::Order {
    Pile pile;
    std::shared_ptr<FrameStore> store;
    std::shared_ptr<BaseCache> bases;
    View view;
    int frame;
    Rect region;
    int level;

    Result<QImage> fill(Job& job) const {
        if (view != View::result) {
            Result<Raster16> picture =
                view == View::frame ? render_frame(pile, *store, frame, region, level, job)
                                    : render_difference(pile, *store, frame, difference_gain, region, level, job);
            if (!picture.ok()) return picture.failure();
            return to_image(picture.value(), pile.profile);
        }
        Result<SharedRaster> base = bases->base(pile, *store, region, level, job);
        if (!base.ok()) return base.failure();
        Raster16 picture = base.value()->clone();
        Status laid = lay_parts(pile, *store, region, level, picture, job);
        if (!laid.ok()) return laid.failure();
        return to_image(picture, pile.profile);
    }
};

Viewer::Viewer(Studio& studio) : QObject(&studio), studio_(studio), overview_lane_(this), detail_lane_(this) {
    later_.setSingleShot(true);
    later_.setInterval(pan_pause_ms);
    connect(&later_, &QTimer::timeout, this, &Viewer::render_detail);
    connect(&studio.document(), &Document::opened, this, [this] {
        overview_ = {};
        detail_ = {};
        live_.reset();
        set_view(View::result);
    });
    connect(&studio.document(), &Document::changed, this, &Viewer::pile_changed);
    connect(&studio, &Studio::thumbnails_finished, this, &Viewer::refresh);
    connect(&studio, &Studio::selection_changed, this, [this] {
        if (view_ != View::result) refresh();
    });
}

void Viewer::set_view(View view) {
    if (view_ == view) return;
    view_ = view;
    refresh();
    emit view_changed();
}

void Viewer::pile_changed() {
    const Rect before = area_;
    area_ = studio_.document().open() ? output_area(studio_.pile()) : Rect{};
    if (area_ != before) emit area_changed();
    refresh();
}

void Viewer::demand(const Rect& visible, double zoom) {
    visible_ = visible;
    zoom_ = zoom;
    later_.start();
}

void Viewer::set_live_mask(int part, const Mask& mask) {
    live_ = {part, mask};
    ++serial_;
    render_detail();
}

void Viewer::drop_live_mask() {
    live_.reset();
}

void Viewer::refresh() {
    ++serial_;
    if (!studio_.document().open()) {
        overview_lane_.stop();
        detail_lane_.stop();
        emit updated();
        return;
    }
    render_overview();
    render_detail();
}

Viewer::Order Viewer::order(const Rect& area, int level) const {
    Pile pile = studio_.pile();
    if (live_) pile = with_part_mask(std::move(pile), live_->first, live_->second);
    return {std::move(pile), studio_.store(), studio_.bases(), view_, studio_.current(), at_level(area, level), level};
}

void Viewer::render_overview() {
    if (!studio_.thumbnails_complete() && view_ == View::result) return;
    const Order what = order(area_, studio_.thumbnail_level());
    const Rect area = covered_by(what.region, what.level);
    overview_lane_.run<Result<QImage>>(
        [what](Job& job) { return what.fill(job); },
        [this, area, serial = serial_](Result<QImage> image) { arrive(overview_, std::move(image), area, serial); });
}

void Viewer::render_detail() {
    if (!studio_.document().open() || visible_.empty()) return;
    // The first sight comes from thumbnails; fine pictures wait for it.
    if (!studio_.thumbnails_complete() && view_ == View::result) return;
    const int level = std::clamp(int(std::floor(std::log2(1.0 / zoom_) + 1e-9)), 0, studio_.thumbnail_level());
    const int unit = tile << level;
    const Rect wanted = intersect(visible_, area_);
    if (wanted.empty()) return;
    const Rect area = intersect(rounded(wanted, unit), area_);
    const Size have = detail_.image.size().isEmpty() ? Size{} : Size{detail_.image.width(), detail_.image.height()};
    const Rect region = at_level(area, level);
    if (detail_.serial == serial_ && holds(detail_.area, wanted) && have == at_level(detail_.area, level).size()) {
        emit settled();
        return;
    }
    const Order what = order(area, level);
    const Rect covered = covered_by(region, level);
    detail_lane_.run<Result<QImage>>([what](Job& job) { return what.fill(job); },
                                     [this, covered, serial = serial_](Result<QImage> image) {
                                         arrive(detail_, std::move(image), covered, serial);
                                         if (detail_.serial == serial_) emit settled();
                                     });
}

void Viewer::arrive(Layer& layer, Result<QImage> image, const Rect& area, long serial) {
    if (!image.ok()) {
        if (image.failure().fault != Fault::stopped) studio_.report_broken(image.failure());
        return;
    }
    layer = {std::move(image).value(), area, serial};
    emit updated();
}

std::optional<QColor> Viewer::colour_at(int x, int y) const {
    for (const Layer* layer : {&detail_, &overview_}) {
        if (layer->image.isNull() || intersect(layer->area, {x, y, 1, 1}).empty()) continue;
        const int u = (x - layer->area.left) * layer->image.width() / layer->area.width;
        const int v = (y - layer->area.top) * layer->image.height() / layer->area.height;
        return layer->image.pixelColor(std::clamp(u, 0, layer->image.width() - 1),
                                       std::clamp(v, 0, layer->image.height() - 1));
    }
    return std::nullopt;
}

}  // namespace bp::app
