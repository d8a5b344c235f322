#include "pile/edits.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "base/files.h"
#include "base/text.h"
#include "image/mask.h"
#include "pile/check.h"
#include "pile/limits.h"
#include "pile/method_in.h"
#include "pile/outcomes.h"
#include "pile/streak_edits.h"

namespace bp {
namespace {

template <class Change>
Pile each_frame(Pile pile, std::span<const int> ids, Change change) {
    for (Frame& frame : pile.frames)
        if (std::find(ids.begin(), ids.end(), frame.id) != ids.end()) change(frame);
    return pile;
}

// What takes the place of a reference or base that goes: a frame of the scene, if there is one that can be used.
template <class Goes>
const Frame* stand_in(const Pile& pile, Goes goes) {
    const Frame* out = nullptr;
    for (const Frame& frame : pile.frames) {
        if (!usable(frame) || goes(frame.id)) continue;
        if (frame.role == Role::scene) return &frame;
        if (!out) out = &frame;
    }
    return out;
}

// From 0 to 1; what is no number is all of it.
double share(double value) {
    return std::isfinite(value) ? std::clamp(value, 0.0, 1.0) : 1;
}

// What a frame's place may be in a pile: one that cannot be true counts as not aligned.
Alignment in_bounds(const Alignment& place, Size size) {
    Alignment out = place;
    out.residual_px = std::isfinite(out.residual_px) ? std::clamp(out.residual_px, 0.0, pile::furthest_px) : 0;
    out.confidence = std::isfinite(out.confidence) ? std::clamp(out.confidence, 0.0, 1.0) : 0;
    return pile::sound(out, size) ? out : not_aligned();
}

// The bend that leads where `total` leads, from canvas to frame, when `place` has none: exact at the nodes of a grid
// like that of the bends it is made from.
SharedFlex flex_for(const Placement& place, const Flex::Grid& grid, const std::function<Point(Point)>& total) {
    std::vector<float> across, down;
    for (int j = 0; j < grid.rows; ++j)
        for (int i = 0; i < grid.columns; ++i) {
            const Point node{grid.first.x + i * grid.step, grid.first.y + j * grid.step};
            const Point bent = place.to_canvas(total(node));
            across.push_back(float(bent.x - node.x));
            down.push_back(float(bent.y - node.y));
        }
    return std::make_shared<const Flex>(grid, std::move(across), std::move(down));
}

// Lays frames that were held against one of them against another.
void rebase(std::vector<Frame>& frames, int id, Zone zone, Size size) {
    const auto chosen = std::find_if(frames.begin(), frames.end(), [id](const Frame& f) { return f.id == id; });
    const std::optional<Alignment> place = chosen->places[zone];
    if (!place || !place->aligned) return;
    const Placement from = place->placement();
    for (Frame& frame : frames) {
        std::optional<Alignment>& own = frame.places[zone];
        if (!own) continue;
        const Placement before = own->placement();
        own->to_reference = frame.id == id ? Matrix{} : inverse(place->to_reference) * own->to_reference;
        own->flex = nullptr;
        if (frame.id != id && (before.flex || from.flex)) {
            const Flex::Grid& grid = (before.flex ? before.flex : from.flex)->grid();
            own->flex = flex_for(own->placement(), grid, [&](Point p) { return before.to_frame(from.to_canvas(p)); });
        }
        *own = in_bounds(*own, size);
    }
}

// Lays all frames against another one; a dark one, too, where nothing else is left.
Pile held_against(Pile pile, int id) {
    const Frame* chosen = find_frame(pile, id);
    if (!chosen || !usable(*chosen) || id == pile.reference) return pile;
    const std::optional<LightGains> level = chosen->gains;
    for (const Zone zone : both_zones) rebase(pile.frames, id, zone, pile.size);
    for (Frame& frame : pile.frames)
        if (level && frame.gains)
            for (std::size_t c = 0; c < 3; ++c)
                frame.gains->gain[c] =
                    std::clamp(frame.gains->gain[c] / level->gain[c], 1 / pile::most_gain, pile::most_gain);
    pile.reference = id;
    return pile;
}

bool taken_before(const Frame& a, const Frame& b) {
    const auto& x = a.file->capture.captured;
    const auto& y = b.file->capture.captured;
    if (x && y && *x != *y) return *x < *y;
    if (x.has_value() != y.has_value()) return x.has_value();
    return natural_less(a.file->path.filename().string(), b.file->path.filename().string());
}

}  // namespace

Pile with_aside(Pile pile, std::span<const int> ids, bool aside) {
    return each_frame(std::move(pile), ids, [aside](Frame& f) { f.aside = aside; });
}

Pile with_spread(Pile pile, std::size_t most) {
    const std::vector<int> ids = merged_ids(pile);
    pile.knit = {};
    if (ids.size() <= most) return pile;
    std::vector<int> others;
    for (std::size_t i = 0; i < ids.size(); ++i)
        if (i * most / ids.size() == (i + 1) * most / ids.size()) others.push_back(ids[i]);
    return with_aside(std::move(pile), others, true);
}

Pile with_role(Pile pile, std::span<const int> ids, Role role) {
    pile = each_frame(std::move(pile), ids, [role](Frame& f) {
        f.role = role;
        f.role_from = RoleFrom::person;
    });
    const auto dark = [&](int id) {
        const Frame* frame = find_frame(pile, id);
        return frame && frame->role == Role::dark;
    };
    // Darks alone keep what they had: there is nothing better.
    const Frame* other = stand_in(pile, dark);
    if (!other) return pile;
    const int good = other->id;
    if (dark(pile.base)) pile.base = good;
    return dark(pile.reference) ? held_against(std::move(pile), good) : pile;
}

Pile with_guesses(Pile pile, const std::map<int, Role>& roles) {
    for (Frame& frame : pile.frames) {
        const auto found = roles.find(frame.id);
        if (found == roles.end() || frame.role_from != RoleFrom::nobody) continue;
        frame.role = found->second;
        frame.role_from = RoleFrom::guess;
    }
    return pile;
}

Pile with_note(Pile pile, int id, const std::string& note) {
    const int ids[] = {id};
    return each_frame(std::move(pile), ids, [&](Frame& f) { f.note = valid_utf8(note); });
}

Pile with_reference(Pile pile, int id) {
    const Frame* chosen = find_frame(pile, id);
    return chosen && shows_something(*chosen) ? held_against(std::move(pile), id) : pile;
}

Pile without_frames(Pile pile, std::span<const int> ids) {
    const auto goes = [&](int id) { return std::find(ids.begin(), ids.end(), id) != ids.end(); };
    const Frame* kept = stand_in(pile, goes);
    if (!kept) return pile;
    const int good = kept->id;
    if (goes(pile.reference)) pile = held_against(std::move(pile), good);
    std::erase_if(pile.frames, [&](const Frame& f) { return goes(f.id); });
    std::erase_if(pile.parts, [&](const Part& p) { return goes(p.frame); });
    if (!find_frame(pile, pile.base)) pile.base = good;
    return pile;
}

Pile with_strength(Pile pile, std::span<const int> ids, double strength) {
    return each_frame(std::move(pile), ids, [=](Frame& f) { f.strength = share(strength); });
}

Pile with_left_out(Pile pile, std::span<const int> ids, const Mask& area) {
    if (area.size() != pile.size) return pile;
    return each_frame(std::move(pile), ids, [none = area.empty(), &area, size = pile.size](Frame& f) {
        f.left_out = none ? Mask() : area;
        f.silence = silence_of(f, size);
    });
}

Pile with_look(Pile pile, const Look& look) {
    pile.look = limited(look);
    return pile;
}

Pile with_own_look(Pile pile, std::span<const int> ids, const Look& look) {
    return each_frame(std::move(pile), ids, [own = limited(look)](Frame& f) { f.look = own; });
}

Pile with_hot_pixels(Pile pile, SharedHotPixels pixels) {
    pile.hot = std::move(pixels);
    return pile;
}

Pile with_darks(Pile pile, Darks darks) {
    pile.darks = darks;
    return pile;
}

Pile with_spot(Pile pile, const SensorSpot& spot) {
    if (spot.area.empty() || intersect(spot.area, whole(pile.size)) != spot.area) return pile;
    std::vector<SensorSpot> spots;
    if (pile.spots)
        for (const SensorSpot& other : *pile.spots)
            if (std::hypot(other.at.x - spot.at.x, other.at.y - spot.at.y) > other.radius_px + spot.radius_px)
                spots.push_back(other);
    spots.push_back(spot);
    pile.spots = std::make_shared<const std::vector<SensorSpot>>(std::move(spots));
    return pile;
}

Pile without_spot(Pile pile, Point sensor) {
    if (!pile.spots) return pile;
    std::vector<SensorSpot> spots = *pile.spots;
    const auto gone = std::erase_if(spots, [&](const SensorSpot& s) {
        return std::hypot(s.at.x - sensor.x, s.at.y - sensor.y) <= std::max(s.radius_px, 4.0);
    });
    if (gone == 0) return pile;
    pile.spots = spots.empty() ? nullptr : std::make_shared<const std::vector<SensorSpot>>(std::move(spots));
    return pile;
}

Pile with_gains(Pile pile, Levelling kind, const std::map<int, LightGains>& levels) {
    pile.levelling = kind;
    for (Frame& frame : pile.frames) {
        if (frame.gains && frame.gains->by_person) continue;
        const auto found = levels.find(frame.id);
        const bool good = found != levels.end() && pile::sound(found->second);
        frame.gains = good ? std::optional(found->second) : std::nullopt;
    }
    return pile;
}

Pile with_gain_by_person(Pile pile, int id, double ev) {
    constexpr double most = 8;
    const double gain = std::exp2(std::isfinite(ev) ? std::clamp(ev, -most, most) : 0);
    const int ids[] = {id};
    return each_frame(std::move(pile), ids, [gain](Frame& f) { f.gains = LightGains{{gain, gain, gain}, true}; });
}

Pile with_zones(Pile pile, const Mask& sky) {
    if (!pile.zones) {
        pile.zones.emplace();
        pile.methods.land = {Model::none, Mode::median};
    }
    pile.zones->sky = sky;
    pile.zones->soft = sky.softened(pile.zones->feather_px);
    return pile;
}

Pile with_feather(Pile pile, double feather_px) {
    if (!pile.zones) return pile;
    pile.zones->feather_px = std::clamp(std::isfinite(feather_px) ? feather_px : 0, 0.0, Mask::widest_softening);
    pile.zones->soft = pile.zones->sky.softened(pile.zones->feather_px);
    return pile;
}

Pile without_zones(Pile pile) {
    pile.zones.reset();
    pile.methods.land = {};
    for (Frame& frame : pile.frames) frame.places.land.reset();
    return pile;
}

Pile with_turn(Pile pile, double degrees) {
    pile.turn_deg = std::isfinite(degrees) ? std::clamp(degrees, -pile::most_turn_deg, pile::most_turn_deg) : 0;
    return pile;
}

Pile with_crop(Pile pile, std::optional<Rect> crop) {
    if (crop) crop = intersect(*crop, canvas_of(pile));
    pile.crop = crop && !crop->empty() ? crop : std::nullopt;
    return pile;
}

Pile with_canvas(Pile pile, const CanvasSettings& canvas) {
    pile.canvas = canvas;
    std::optional<Rect>& area = pile.canvas.area;
    if (area && (!pile::sound(*area) || *area == whole(pile.size))) area.reset();
    for (double& share_of : pile.canvas.background)
        share_of = std::isfinite(share_of) ? std::clamp(share_of, 0.0, 1.0) : 0;
    double& dpi = pile.canvas.dpi;
    dpi = std::isfinite(dpi) ? std::clamp(dpi, pile::lowest_dpi, pile::highest_dpi) : CanvasSettings{}.dpi;
    const std::optional<Rect> crop = pile.crop;
    return with_crop(std::move(pile), crop);
}

Pile with_base(Pile pile, int id) {
    const Frame* chosen = find_frame(pile, id);
    if (chosen && shows_something(*chosen)) pile.base = id;
    return pile;
}

Pile with_problem(Pile pile, int id, const Saying& problem) {
    const int ids[] = {id};
    pile = each_frame(std::move(pile), ids, [&](Frame& f) { f.problem = problem; });
    const Frame* good = stand_in(pile, [id](int other) { return other == id; });
    if (!good) return pile;
    if (pile.base == id) pile.base = good->id;
    if (pile.reference == id) pile.reference = good->id;
    return pile;
}

Pile with_alignments(Pile pile, Model model, int reference, const std::map<int, Alignment>& alignments, Zone zone) {
    // A frame that was removed while they were worked out.
    if (!find_frame(pile, reference)) return pile;
    // What stays is held against the new reference.
    pile = held_against(std::move(pile), reference);
    method_in(pile, zone).model = model;
    pile.reference = reference;
    // A place under a lens says nothing without it, and the other way round.
    const auto stays = [model](const Alignment& place) {
        return place.by_hand && model != Model::none && place.lens.has_value() == (model == Model::stars);
    };
    for (Frame& frame : pile.frames) {
        std::optional<Alignment>& place = frame.places[zone];
        if (place && frame.id != reference && stays(*place)) continue;
        const auto found = alignments.find(frame.id);
        place = found == alignments.end() ? std::nullopt : std::optional(in_bounds(found->second, pile.size));
    }
    return pile;
}

Pile with_trust(Pile pile, const Mask& trust) {
    // Nothing kept is everywhere, in one form alone.
    pile.trust = trust.empty() ? Mask() : trust;
    return pile;
}

Pile with_insisted(Pile pile, std::span<const int> ids, bool insisted, Zone zone) {
    return each_frame(std::move(pile), ids, [=](Frame& f) {
        if (auto& place = f.places[zone]) place->insisted = insisted;
    });
}

Pile with_moved_by_hand(Pile pile, int id, const Matrix& change, Zone zone) {
    if (method_of(pile, zone).model == Model::none) {
        method_in(pile, zone).model = Model::rigid;
        for (Frame& frame : pile.frames)
            if (usable(frame)) frame.places[zone] = Alignment{};
    }
    const int ids[] = {id};
    const Size size = pile.size;
    return each_frame(std::move(pile), ids, [&](Frame& f) {
        Alignment place = f.places[zone].value_or(Alignment{});
        if (place.lens) {
            // The picture is shifted behind the lens, turned back as the frame is.
            const Matrix& m = place.to_reference;
            const double length = std::hypot(m.m()[0], m.m()[3]);
            const double c = m.m()[0] / length;
            const double s = m.m()[3] / length;
            const Point by = change(place.lens->middle);
            const double dx = by.x - place.lens->middle.x;
            const double dy = by.y - place.lens->middle.y;
            place.sensor = {place.sensor.x - c * dx - s * dy, place.sensor.y + s * dx - c * dy};
        } else {
            const Placement before = place.placement();
            place.to_reference = change * place.to_reference;
            place.flex = nullptr;
            const Matrix back = inverse(change);
            if (before.flex)
                place.flex =
                    flex_for(place.placement(), before.flex->grid(), [&](Point p) { return before.to_frame(back(p)); });
        }
        place.by_hand = true;
        place.aligned = true;
        // A place that cannot be is not gone to.
        if (pile::sound(place, size)) f.places[zone] = place;
    });
}

Pile with_alignment(Pile pile, int id, const Alignment& alignment, Zone zone) {
    const int ids[] = {id};
    const Size size = pile.size;
    return each_frame(std::move(pile), ids, [&](Frame& f) { f.places[zone] = in_bounds(alignment, size); });
}

Pile with_outcome(Pile pile, Outcome outcome) {
    const OutcomeEntry& entry = entry_of(outcome);
    pile.outcome = outcome;
    pile.methods.sky.mode = entry.mode;
    return pile;
}

Pile with_frames(Pile pile, std::vector<Frame> frames) {
    int next = 1;
    for (const Frame& frame : pile.frames) next = std::max(next, frame.id + 1);
    for (Frame& frame : frames) frame.id = next++;
    return with_numbered_frames(std::move(pile), frames);
}

Pile with_numbered_frames(Pile pile, const std::vector<Frame>& frames) {
    const bool by_time = std::is_sorted(pile.frames.begin(), pile.frames.end(), taken_before);
    pile.frames.insert(pile.frames.end(), frames.begin(), frames.end());
    // An order that was given is not given up for what joins: it comes last.
    if (by_time)
        order_frames(pile.frames);
    else
        std::stable_sort(pile.frames.end() - std::ptrdiff_t(frames.size()), pile.frames.end(), taken_before);
    return pile;
}

Pile with_file(Pile pile, int id, const SharedFrameFile& file) {
    const int ids[] = {id};
    return each_frame(std::move(pile), ids, [&](Frame& f) {
        f.file = file;
        f.problem = {};
        f.changed = false;
    });
}

void order_frames(std::vector<Frame>& frames) {
    std::stable_sort(frames.begin(), frames.end(), taken_before);
}

Pile with_order_by_time(Pile pile) {
    order_frames(pile.frames);
    return pile;
}

Pile with_order_by_name(Pile pile) {
    std::stable_sort(pile.frames.begin(), pile.frames.end(), [](const Frame& a, const Frame& b) {
        return natural_less(a.file->path.filename().string(), b.file->path.filename().string());
    });
    return pile;
}

Pile with_moved_frames(Pile pile, std::span<const int> ids, std::size_t before) {
    const auto moves = [&](const Frame& f) { return std::find(ids.begin(), ids.end(), f.id) != ids.end(); };
    const auto at = pile.frames.begin() + std::ptrdiff_t(std::min(before, pile.frames.size()));
    // Those before the place go up to it, those behind it come down to it.
    std::stable_partition(pile.frames.begin(), at, [&](const Frame& f) { return !moves(f); });
    std::stable_partition(at, pile.frames.end(), moves);
    return pile;
}

bool in_order_of_time(const Pile& pile) {
    return std::is_sorted(pile.frames.begin(), pile.frames.end(), taken_before);
}

}  // namespace bp
