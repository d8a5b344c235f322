#include "app/canvas/viewer.h"

#include <QColor>
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/canvas/added.h"
#include "app/canvas/origins_image.h"
#include "app/looks/pictures.h"
#include "app/looks/theme.h"
#include "engine/cover.h"
#include "engine/finish_known.h"
#include "engine/knitting.h"
#include "engine/render.h"
#include "engine/sources.h"
#include "engine/turning.h"
#include "engine/way_out.h"
#include "pile/edits.h"
#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr int pan_pause_ms = 40;

Rect rounded(const Rect& area, int unit) {
    const int left = floor_div(area.left, unit) * unit;
    const int top = floor_div(area.top, unit) * unit;
    return {left, top, floor_div(area.right() - left + unit - 1, unit) * unit,
            floor_div(area.bottom() - top + unit - 1, unit) * unit};
}

// The canvas pixels that `region` of `level` stands for: whole pixels of the level, so it may reach past an odd edge.
Rect covered_by(const Rect& region, int level) {
    const int step = 1 << level;
    return {region.left * step, region.top * step, region.width * step, region.height * step};
}

// What not all frames reach, as a grey that is the darker the fewer do.
void shade(QImage& image, const Raster16& shares) {
    constexpr int darkest = 16;
    constexpr int range = 130;
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x) {
            const int share = shares.at(x, y, 0);
            if (share == 65535) continue;
            const int grey = darkest + range * share / 65535;
            image.setPixel(x, y, qRgb(grey, grey, grey));
        }
}

// Frames do not mix: every pixel is from where the one in its middle is.
Origins turned_origins(Origins origins, const Turn& turn, const Rect& there, const Rect& region) {
    if (turn.none()) return origins;
    Origins out{origins.frames, Raster16(region.size(), 1), Raster16(region.size(), 1)};
    for (int y = 0; y < region.height; ++y)
        for (int x = 0; x < region.width; ++x) {
            const Point p = turn.to_canvas({double(region.left + x), double(region.top + y)});
            const int u = int(std::lround(p.x)) - there.left, v = int(std::lround(p.y)) - there.top;
            if (u < 0 || v < 0 || u >= there.width || v >= there.height) continue;
            out.first.at(x, y, 0) = origins.first.at(u, v, 0);
            out.second.at(x, y, 0) = origins.second.at(u, v, 0);
        }
    return out;
}

bool holds(const Rect& outer, const Rect& inner) {
    return intersect(outer, inner) == inner;
}

}  // namespace

// All that a picture is made from, by value.
struct Viewer::Order {
    Pile pile;
    std::shared_ptr<FrameStore> store;
    std::shared_ptr<BaseTiles> bases;
    View view;
    int frame;
    int against;
    int gain;
    bool show_added;
    bool finished;
    bool glow_alone;
    Rect region;
    int level;
    int current;
    std::optional<Proof> proof;
    // Filled with what is shown, and where origins are shown.
    std::shared_ptr<Raster16> samples = std::make_shared<Raster16>();
    std::shared_ptr<Origins> origins = std::make_shared<Origins>();

    // What `make` gives of the canvas, as it is seen.
    Result<Raster16> seen(const std::function<Result<Raster16>(const Rect&)>& make) const {
        return turned(pile, region, level, make);
    }
    Result<QImage> fill(Job& job) const {
        if (view == View::origins && has_origins(pile)) {
            const Turn turn(pile, level);
            const Rect there = turn.made_from(region);
            Result<Origins> found = origins_of(pile, *store, there, level, job);
            if (!found.ok()) return found.failure();
            *origins = turned_origins(std::move(found).value(), turn, there, region);
            Result<Raster16> base =
                seen([&](const Rect& area) { return composed(pile, *store, area, level, job, bases.get()); });
            if (!base.ok()) return base.failure();
            QImage image = image_of(*origins, base.value(), pile, current, theme().amber);
            *samples = std::move(base).value();
            return image;
        }
        if (view == View::frame || view == View::difference) {
            Result<Raster16> picture = seen([&](const Rect& area) {
                return view == View::frame ? render_frame(pile, *store, frame, area, level, job)
                                           : render_difference(pile, *store, frame, against, gain, area, level, job);
            });
            if (!picture.ok()) return picture.failure();
            *samples = std::move(picture).value();
            return to_image(*samples, pile.profile);
        }
        if (glow_alone && view == View::result) {
            Result<Raster16> glow = render_glow(pile, *store, region, level, job);
            if (!glow.ok()) return glow.failure();
            *samples = std::move(glow).value();
            return to_image(*samples, pile.profile);
        }
        const auto made = [&](const Pile& of) {
            return finished
                       ? render(of, *store, region, level, job, bases.get())
                       : seen([&](const Rect& area) { return composed(of, *store, area, level, job, bases.get()); });
        };
        Result<Raster16> picture = made(pile);
        if (!picture.ok()) return picture.failure();
        *samples = std::move(picture).value();
        QImage image = to_image(*samples, pile.profile, proof);
        if (view == View::cover) {
            const Result<Raster16> shares =
                seen([&](const Rect& area) -> Result<Raster16> { return cover_shares(pile, area, level); });
            if (!shares.ok()) return shares.failure();
            shade(image, shares.value());
        }
        if (show_added && view == View::result && knits(pile)) {
            const Result<Raster16> without = made(with_knit(pile, {}));
            if (!without.ok()) return without.failure();
            hatch_added(image, *samples, without.value(), theme().hatch);
        }
        return image;
    }
};

// Pieces of both layers, made anew.
struct Viewer::Patches {
    struct Piece {
        QImage image;
        std::shared_ptr<const Raster16> samples;
        Rect region;  // pixels of the level
        int level;
    };
    std::vector<Piece> pieces;
    Rect area;
};

Viewer::Viewer(Studio& studio, QObject* parent)
    : QObject(parent ? parent : &studio),
      studio_(studio),
      overview_lane_(this),
      detail_lane_(this),
      patch_lane_(this),
      bringing_lane_(this),
      frame_([&studio] { return studio.current(); }),
      brings_(!parent) {
    later_.setSingleShot(true);
    later_.setInterval(pan_pause_ms);
    connect(&later_, &QTimer::timeout, this, &Viewer::render_detail);
    connect(&studio.document(), &Document::opened, this, [this] {
        overview_ = {};
        detail_ = {};
        end_trial();
        grown_from_ = 0;
        brought_ = {};
        bringing_lane_.stop();
        set_view(View::result);
    });
    connect(&studio.document(), &Document::changed, this, &Viewer::pile_changed);
    connect(&studio.thumbnails(), &Thumbnails::arrived, this, &Viewer::grow);
    connect(&studio.thumbnails(), &Thumbnails::finished, this, &Viewer::refresh);
    connect(&studio.placing(), &Lane::busy_changed, this, &Viewer::render_detail);
    connect(&studio, &Studio::selection_changed, this, [this] {
        // The other of two pictures may show a frame that stays.
        if ((!of_all() || view_ == View::origins) && frame_() != ordered_frame_) refresh();
    });
}

void Viewer::set_view(View view) {
    if (view_ == view) return;
    view_ = view;
    const Rect before = std::exchange(area_, area_shown());
    if (area_ != before) emit area_changed();
    refresh();
    emit view_changed();
}

void Viewer::set_show_added(bool on) {
    show_added_ = on;
    if (view_ == View::result) refresh();
}

void Viewer::set_finished(bool on) {
    if (finished_ == on) return;
    finished_ = on;
    refresh();
}

void Viewer::set_glow_alone(bool on) {
    if (glow_alone_ == on) return;
    glow_alone_ = on;
    refresh();
}

void Viewer::set_proof(bool on) {
    if (proof_ == on) return;
    proof_ = on;
    refresh();
    emit view_changed();
}

void Viewer::set_active(bool active) {
    if (active_ == active) return;
    active_ = active;
    refresh();
}

void Viewer::set_difference(Against against, int gain) {
    against_ = against;
    gain_ = gain;
    if (view_ == View::difference) refresh();
}

Rect Viewer::area_shown() const {
    if (!studio_.document().open()) return {};
    return view_ == View::cover ? canvas_of(studio_.pile()) : output_area(studio_.pile());
}

int Viewer::overview_level() const {
    return std::min(studio_.thumbnails().level(), scaled_levels);
}

const Pile& Viewer::shown() const {
    return trial_ ? *trial_ : studio_.pile();
}

void Viewer::pile_changed() {
    // A stroke that has come to its end: the pictures have it already.
    if (trial_ && studio_.document().open() && *trial_ == studio_.pile() && detail_.serial == serial_ &&
        overview_.serial == serial_)
        return;
    end_trial();
    const Rect before = area_;
    area_ = area_shown();
    if (area_ != before) emit area_changed();
    refresh();
}

void Viewer::demand(const Rect& visible, double zoom) {
    visible_ = visible;
    zoom_ = zoom;
    later_.start();
}

// A slider moves faster than pictures are made: the one in the making is not given up for the next.
void Viewer::try_out(Pile pile) {
    trial_ = std::move(pile);
    trial_waits_ = overview_lane_.busy();
    if (!trial_waits_) refresh();
    emit tried();
}

void Viewer::try_out_mask(int part, const Mask& mask, const Rect& changed) {
    // An edge that is solved is solved when the stroke is done.
    try_out_in(with_part_edge(with_part_mask(studio_.pile(), part, mask), part, Edge::painted), changed);
}

void Viewer::try_out_in(Pile pile, const Rect& where) {
    trial_ = std::move(pile);
    const int reach = finished_ ? finish_reach(*trial_) : 0;
    const Rect changed{where.left - reach, where.top - reach, where.width + 2 * reach, where.height + 2 * reach};
    const Rect seen = turn().shown_in(changed);
    tried_mask_ = unite(tried_mask_, seen);
    unpatched_ = unite(unpatched_, seen);
    patch();
}

// A picture that was ordered before a stroke came to its end lacks the rest of it.
void Viewer::patch_again() {
    unpatched_ = unite(unpatched_, tried_mask_);
    patch();
}

void Viewer::end_trial() {
    const bool was_trying = trying();
    trial_.reset();
    trial_waits_ = false;
    tried_mask_ = {};
    unpatched_ = {};
    patch_lane_.stop();
    if (was_trying) emit tried();
}

void Viewer::leave_trial() {
    if (!trial_) return;
    end_trial();
    refresh();
}

void Viewer::refresh() {
    ++serial_;
    ordered_frame_ = frame_();
    if (!active_ || !studio_.document().open()) {
        overview_lane_.stop();
        detail_lane_.stop();
        emit updated();
        return;
    }
    // The coarse picture comes first and has the cores to itself; the fine one follows it.
    detail_lane_.stop();
    render_overview();
}

Viewer::Order Viewer::order(const Rect& area, int level) const {
    const Pile& pile = shown();
    const int frame = frame_();
    const int against = against_ == Against::before ? frame_before(pile, frame) : pile.reference;
    return {
        pile,
        studio_.stores().frames(),
        studio_.stores().bases(),
        view_,
        frame,
        against,
        gain_,
        show_added_,
        finished_,
        glow_alone_,
        at_level(area, level),
        level,
        studio_.current(),
        proof_ && view_ == View::result ? std::optional(Proof{exported_profile(pile), theme().coral}) : std::nullopt};
}

// While frames come in: the picture of those that are here, whenever there are half as many again.
void Viewer::grow() {
    if (!active_ || studio_.thumbnails().complete() || view_ != View::result || overview_lane_.busy()) return;
    std::vector<int> missing;
    std::size_t here = 0;
    for (const int id : merged_ids(studio_.pile()))
        if (studio_.thumbnails().of(id).isNull())
            missing.push_back(id);
        else
            ++here;
    if (here == 0 || 2 * here < 3 * grown_from_) return;
    grown_from_ = here;
    Order what = order(area_, overview_level());
    what.pile = with_aside(std::move(what.pile), missing, true);
    if (merged_ids(what.pile).empty()) return;
    const Rect area = covered_by(what.region, what.level);
    overview_lane_.run<Result<QImage>>(
        [what](Job& job) { return what.fill(job); },
        [this, area, level = what.level, serial = serial_, samples = what.samples](Result<QImage> image) {
            arrive(overview_, std::move(image), samples, area, level, serial);
        });
}

void Viewer::render_overview() {
    if (!studio_.thumbnails().complete() && of_all()) return;
    const Order what = order(area_, overview_level());
    const Rect area = covered_by(what.region, what.level);
    overview_lane_.run<Result<QImage>>([what](Job& job) { return what.fill(job); },
                                       [this, area, level = what.level, serial = serial_, samples = what.samples,
                                        origins = what.origins](Result<QImage> image) {
                                           const bool here = arrive(overview_, std::move(image), samples, area, level,
                                                                    serial, origins);
                                           if (std::exchange(trial_waits_, false)) {
                                               refresh();
                                               return;
                                           }
                                           if (!here) return;
                                           patch_again();
                                           render_detail();
                                       });
}

void Viewer::render_detail() {
    if (!active_ || !studio_.document().open() || visible_.empty()) return;
    if (overview_.serial != serial_) return;
    // Frames that are still being aligned will lie elsewhere: the cores are for that.
    if (of_all() && (!studio_.thumbnails().complete() || studio_.placing().busy())) return;
    const int level = std::clamp(int(std::floor(std::log2(1.0 / zoom_) + 1e-9)), 0, overview_level());
    const int unit = BaseTiles::side << level;
    const Rect wanted = intersect(visible_, area_);
    if (wanted.empty()) return;
    if (level == overview_.level) {
        detail_ = {overview_.image, overview_.area, level, serial_, overview_.samples, false, overview_.origins};
        emit settled();
        return;
    }
    const Rect area = intersect(rounded(wanted, unit), area_);
    if (detail_.serial == serial_ && holds(detail_.area, wanted) && detail_.level == level) {
        // What is made of a few is about to be made of all, unless that was stopped.
        if (!detail_.of_few) {
            emit settled();
            return;
        }
        if (detail_lane_.busy()) return;
    }
    begin_detail(area, level);
}

// Where many frames are not at hand, they are read as far as the area needs: some of them first, so that there is
// something to see, then all of them. They are brought nearer afterwards.
void Viewer::begin_detail(const Rect& area, int level) {
    constexpr std::size_t many = 8, parts_of_them = 10;
    const Order what = order(area, level);
    const Rect covered = covered_by(what.region, level);
    const std::vector<int> ids = merged_ids(what.pile);
    const bool glance = level == 0 && view_ == View::result && frames_away(what.pile, ids, 0, *what.store) >= many;
    // What is looked at has the cores to itself; what was brought so far stays, and the rest follows.
    if (glance && bringing_lane_.busy()) {
        bringing_lane_.stop();
        brought_ = {};
    }
    const auto all = [this, covered, level](const Order& of, bool glances) {
        detail_lane_.run<Result<QImage>>(
            [of, glances](Job& job) {
                job.set_glance(glances);
                return of.fill(job);
            },
            [this, covered, level, serial = serial_, samples = of.samples, origins = of.origins](Result<QImage> image) {
                if (arrive(detail_, std::move(image), samples, covered, level, serial, origins)) patch_again();
                if (detail_.serial != serial_) return;
                bring_nearer();
                emit settled();
            });
    };
    const bool trying_out = trial_ && *trial_ != studio_.pile();  // what is tried is not stayed with
    if (!glance || ids.size() < 2 * parts_of_them || trying_out) {
        all(what, glance);
        return;
    }
    Order few = what;
    few.samples = std::make_shared<Raster16>();
    few.origins = std::make_shared<Origins>();
    few.pile = with_spread(std::move(few.pile), ids.size() / parts_of_them);
    detail_lane_.run<Result<QImage>>(
        [few](Job& job) {
            job.set_glance(true);
            return few.fill(job);
        },
        [this, covered, level, serial = serial_, samples = few.samples, what, all](Result<QImage> image) {
            if (serial != serial_) return;
            arrive(detail_, std::move(image), samples, covered, level, serial, {}, true);
            all(what, true);
        });
}

// So that the next place, and the next edit, are there at once.
void Viewer::bring_nearer() {
    const std::vector<int> ids = merged_ids(studio_.pile());
    const std::pair these(studio_.document().identity(), ids.size());
    const auto store = studio_.stores().frames();
    if (!brings_ || detail_.level != 0 || brought_ == these || bringing_lane_.busy() ||
        frames_away(studio_.pile(), ids, 0, *store) == 0)
        return;
    brought_ = these;
    bringing_lane_.run<Status>(
        [pile = studio_.pile(), ids, store](Job& job) { return bring_frames(pile, ids, 0, *store, job); },
        [](const Status&) {}, tr("bringing frames nearer"));
}

// One patch at a time; what changes meanwhile is in the next.
void Viewer::patch() {
    if (patch_lane_.busy() || unpatched_.empty() || view_ != View::result || overview_.serial != serial_) return;
    Patches wanted;
    wanted.area = intersect(std::exchange(unpatched_, {}), area_);
    std::vector<Order> orders;
    for (const Layer* layer : {&overview_, &detail_}) {
        if (layer->serial != serial_ || layer->image.isNull()) continue;
        const Rect area = intersect(wanted.area, intersect(layer->area, area_));
        if (!area.empty()) orders.push_back(order(area, layer->level));
    }
    patch_lane_.run<Result<Patches>>(
        [orders, wanted](Job& job) -> Result<Patches> {
            Patches out = wanted;
            for (const Order& what : orders) {
                Result<QImage> image = what.fill(job);
                if (!image.ok()) return image.failure();
                out.pieces.push_back({std::move(image).value(), what.samples, what.region, what.level});
            }
            return out;
        },
        [this, serial = serial_](Result<Patches> made) {
            if (made.ok() && serial == serial_) paste(made.value());
            patch();
        });
}

void Viewer::paste(const Patches& patches) {
    for (const Patches::Piece& piece : patches.pieces)
        for (Layer* layer : {&overview_, &detail_}) {
            if (layer->level != piece.level || layer->serial != serial_) continue;
            const int step = 1 << layer->level;
            const int left = piece.region.left - floor_div(layer->area.left, step);
            const int top = piece.region.top - floor_div(layer->area.top, step);
            QPainter painter(&layer->image);
            painter.drawImage(left, top, piece.image);
            const Raster16& from = *piece.samples;
            Raster16& to = *layer->samples;
            const int first = std::max(0, -left), end = std::min(from.width(), to.width() - left);
            for (int y = std::max(0, -top); y < std::min(from.height(), to.height() - top); ++y)
                std::copy_n(from.row(y) + std::ptrdiff_t(first) * from.channels(),
                            std::max(0, end - first) * from.channels(),
                            to.row(top + y) + std::ptrdiff_t(left + first) * to.channels());
        }
    emit patched(patches.area);
}

// True when the picture is there.
bool Viewer::arrive(Layer& layer, Result<QImage> image, std::shared_ptr<Raster16> samples, const Rect& area, int level,
                    long serial, std::shared_ptr<const Origins> origins, bool of_few) {
    if (!image.ok()) {
        if (image.failure().fault != Fault::stopped) studio_.report_broken(image.failure());
        return false;
    }
    layer = {std::move(image).value(), area, level, serial, std::move(samples), of_few, std::move(origins)};
    emit updated();
    return true;
}

}  // namespace bp::app
