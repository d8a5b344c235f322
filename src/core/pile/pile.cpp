#include "pile/pile.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "align/pole.h"

namespace bp {

const Frame* find_frame(const Pile& pile, int id) {
    const auto found =
        std::find_if(pile.frames.begin(), pile.frames.end(), [id](const Frame& f) { return f.id == id; });
    return found == pile.frames.end() ? nullptr : &*found;
}

int frame_before(const Pile& pile, int id) {
    int before = id;
    for (const Frame& frame : pile.frames) {
        if (frame.id == id) return before;
        if (usable(frame) && frame.role == Role::scene) before = frame.id;
    }
    return id;
}

const Part* find_part(const Pile& pile, int id) {
    const auto found = std::find_if(pile.parts.begin(), pile.parts.end(), [id](const Part& p) { return p.id == id; });
    return found == pile.parts.end() ? nullptr : &*found;
}

int number_of(const Pile& pile, int id) {
    const Frame* frame = find_frame(pile, id);
    return frame ? int(frame - pile.frames.data()) + 1 : 0;
}

bool usable(const Frame& frame) {
    return frame.problem.empty();
}

bool shows_something(const Frame& frame) {
    return usable(frame) && frame.role != Role::dark;
}

const Method& method_of(const Pile& pile, Zone zone) {
    return pile.methods[pile.zones ? zone : Zone::sky];
}

Rect canvas_of(const Pile& pile) {
    return pile.canvas.area.value_or(whole(pile.size));
}

bool lost(const Pile& pile, const Frame& frame, Zone zone) {
    const std::optional<Alignment>& place = frame.places[zone];
    return method_of(pile, zone).model != Model::none && place && !place->aligned && !place->insisted;
}

bool merged(const Pile& pile, const Frame& frame, Zone zone) {
    if (!usable(frame) || (zone == Zone::land && !pile.zones)) return false;
    if (method_of(pile, zone).mode == Mode::one) return frame.id == pile.base;
    if (frame.aside || frame.role != Role::scene) return false;
    return !lost(pile, frame, zone);
}

bool merged(const Pile& pile, const Frame& frame) {
    return merged(pile, frame, Zone::sky) || merged(pile, frame, Zone::land);
}

std::vector<int> merged_ids(const Pile& pile, Zone zone) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame, zone)) out.push_back(frame.id);
    return out;
}

std::vector<double> strengths_of(const Pile& pile, Zone zone) {
    const Method& method = method_of(pile, zone);
    const std::vector<int> ids = merged_ids(pile, zone);
    std::vector<double> out(ids.size(), 1.0);
    if (!entry_of(method.mode).uses_strength) return out;
    // A frame alone draws no trail: fading both its ends would leave nothing.
    const Taper taper = ids.size() > 1 ? method.taper : Taper();
    for (std::size_t i = 0; i < ids.size(); ++i) {
        const OfTrail part = part_of_trail(method.head, method.taper.end, i, ids.size());
        const double left = part == OfTrail::tail ? strength_at(taper, place_in_run(i, ids.size())) : 1;
        out[i] = part == OfTrail::apart ? 0 : find_frame(pile, ids[i])->strength * left;
    }
    return out;
}

std::vector<Softening> softenings_of(const Pile& pile, Zone zone) {
    const Method& method = method_of(pile, zone);
    std::vector<Softening> out(merged_ids(pile, zone).size());
    if (!entry_of(method.mode).uses_strength) return out;
    for (std::size_t i = 0; i < out.size(); ++i)
        if (part_of_trail(method.head, method.taper.end, i, out.size()) == OfTrail::head)
            out[i] = method.head.softening;
    return out;
}

std::vector<int> merged_ids(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame)) out.push_back(frame.id);
    return out;
}

Pile only_zone(const Pile& pile, Zone zone) {
    Pile out = pile;
    if (!pile.zones) return out;
    out.methods.sky = pile.methods[zone];
    for (Frame& frame : out.frames) frame.places.sky = frame.places[zone];
    const Mask& sky = pile.zones->sky;
    Mask trust(pile.size);
    trust.edit(whole(pile.size), [&](int x, int y, std::uint8_t) {
        const std::uint8_t here = zone == Zone::sky ? sky.at(x, y) : std::uint8_t(255 - sky.at(x, y));
        return pile.trust.empty() ? here : std::min(here, pile.trust.at(x, y));
    });
    // A zone that is nowhere is not everywhere: then there is nothing to hold back.
    if (!trust.empty()) out.trust = std::move(trust);
    out.zones.reset();
    return out;
}

namespace {

constexpr double same_exposure = 0.05;  // cameras round what they write

bool same_iso(const CaptureData& a, const CaptureData& b) {
    return !a.iso || !b.iso || *a.iso == *b.iso;
}

// How far apart two exposures are, as a share; 0 when one is not known.
double apart(const CaptureData& a, const CaptureData& b) {
    if (!a.exposure_s || !b.exposure_s || *a.exposure_s <= 0 || *b.exposure_s <= 0) return 0;
    return std::abs(std::log(*a.exposure_s / *b.exposure_s));
}

// Raw mosaics are subtracted from raw mosaics, developed pictures from developed ones.
bool same_kind(const FrameFile& a, const FrameFile& b) {
    return a.facts.size == b.facts.size && a.facts.balance.has_value() == b.facts.balance.has_value();
}

bool is_dark(const Frame& frame) {
    return usable(frame) && frame.role == Role::dark && !frame.aside;
}

}  // namespace

DarkChoice darks_of(const Pile& pile, const Frame& frame) {
    DarkChoice out;
    if (pile.darks == Darks::off || frame.role == Role::dark) return out;
    const CaptureData& own = frame.file->capture;
    std::optional<double> nearest;
    for (const Frame& dark : pile.frames) {
        const CaptureData& other = dark.file->capture;
        if (!is_dark(dark) || !same_kind(*dark.file, *frame.file) || !same_iso(own, other)) continue;
        const double off = apart(own, other);
        if (off > same_exposure && pile.darks == Darks::on) continue;
        if (nearest && off > *nearest + same_exposure) continue;
        if (!nearest || off < *nearest - same_exposure) out.ids.clear();
        nearest = std::min(nearest.value_or(off), off);
        out.ids.push_back(dark.id);
        out.scale = off > same_exposure ? *own.exposure_s / *other.exposure_s : 1;
    }
    return out;
}

std::map<int, Saying> useless_darks(const Pile& pile) {
    std::map<int, Saying> out;
    for (const Frame& dark : pile.frames) {
        if (!is_dark(dark)) continue;
        bool kind = false, iso = false, exposure = false;
        const Frame* scene = nullptr;
        for (const Frame& frame : pile.frames) {
            if (!usable(frame) || frame.role != Role::scene) continue;
            if (!scene) scene = &frame;
            const bool k = same_kind(*dark.file, *frame.file);
            const bool i = k && same_iso(dark.file->capture, frame.file->capture);
            kind = kind || k;
            iso = iso || i;
            exposure =
                exposure ||
                (i && (pile.darks == Darks::scaled || apart(dark.file->capture, frame.file->capture) <= same_exposure));
        }
        if (exposure || !scene) continue;
        const std::string name = dark.file->path.filename().string();
        if (!kind)
            out[dark.id] = {"%1 is not of the size and kind of the frames. Darks must come from the same camera.",
                            {name}};
        else if (!iso)
            out[dark.id] = {
                "%1 was taken at ISO %2, the frames at %3. Take darks at the ISO of the frames.",
                {name, Saying::number(*dark.file->capture.iso), Saying::number(scene->file->capture.iso.value_or(0))}};
        else
            out[dark.id] = {
                "%1 was exposed for %2 s, the frames for %3 s. Take darks as long as the frames, or have them "
                "scaled.",
                {name, Saying::number(*dark.file->capture.exposure_s),
                 Saying::number(scene->file->capture.exposure_s.value_or(0))}};
    }
    return out;
}

Look look_of(const Pile& pile, const Frame& frame) {
    return on_top(pile.look, frame.look);
}

std::array<double, 3> gains_of(const Pile& pile, const Frame& frame) {
    if (pile.levelling == Levelling::off || !frame.gains) return {1, 1, 1};
    return frame.gains->gain;
}

Placement placement(const Pile& pile, const Frame& frame, Zone zone) {
    const std::optional<Alignment>& place = frame.places[zone];
    if (method_of(pile, zone).model == Model::none || !place || lost(pile, frame, zone)) return {};
    return place->placement();
}

Zone zone_of(const Pile& pile, const Part& part) {
    if (!pile.zones) return Zone::sky;
    const Rect bounds = part.mask.bounds();
    return pile.zones->sky.at(bounds.left + bounds.width / 2, bounds.top + bounds.height / 2) >= 128 ? Zone::sky
                                                                                                     : Zone::land;
}

Placement placement(const Pile& pile, const Part& part) {
    const Frame* frame = find_frame(pile, part.frame);
    if (!frame) return {};
    const Placement own = placement(pile, *frame, zone_of(pile, part));
    return part.place ? moved_on(own, matrix_of(*part.place, pile.size)) : own;
}

double band_of(const Pile& pile, const Part& part) {
    constexpr double share = 1.0 / 50;
    return part.band_px > 0 ? part.band_px : share * std::max(pile.size.width, pile.size.height);
}

std::optional<Point> pole_in(const Pile& pile) {
    if (pile.methods.sky.model != Model::stars) return std::nullopt;
    std::vector<Alignment> frames;
    for (const Frame& frame : pile.frames)
        if (frame.places.sky) frames.push_back(*frame.places.sky);
    return pole_of(frames);
}

CaptureData merged_capture(const Pile& pile) {
    CaptureData out;
    bool first = true;
    double exposure = 0;
    int frames = 0;
    for (const Frame& frame : pile.frames) {
        if (!merged(pile, frame)) continue;
        ++frames;
        if (first) out = frame.file->capture;
        first = false;
        exposure += frame.file->capture.exposure_s.value_or(0);
    }
    if (exposure > 0) out.exposure_s = exposure;
    out.frames = frames;
    if (frames > 0) {
        out.made_of = std::to_string(frames) + (frames == 1 ? " frame" : " frames");
        const std::string sky(entry_of(pile.methods.sky.mode).name), land(entry_of(pile.methods.land.mode).name);
        if (frames > 1) out.made_of += ", " + (pile.zones && sky != land ? sky + " sky, " + land + " land" : sky);
    }
    std::set<int> of_parts;
    for (const Part& part : pile.parts)
        if (const Frame* frame = find_frame(pile, part.frame); frame && part.on && !merged(pile, *frame))
            of_parts.insert(part.frame);
    if (!of_parts.empty()) {
        out.frames += int(of_parts.size());
        out.made_of += (frames > 0 ? ", parts of " : "parts of ") + std::to_string(of_parts.size()) + " more";
    }
    if (!pile.exporting.whereabouts) {
        out.where.reset();
        out.serial.clear();
    }
    return out;
}

}  // namespace bp
