#include "engine/survey.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>
#include <numbers>

#include "base/parallel.h"
#include "engine/render.h"
#include "frames/robust.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr int longest_side = 800;

bool counts(const Frame& frame) {
    return usable(frame) && frame.role == Role::scene;
}

// From the end of the frame before to the begin of this one, among the frames that count.
std::vector<std::optional<double>> gaps_of(const Pile& pile) {
    std::vector<std::optional<double>> out(pile.frames.size());
    const CaptureData* before = nullptr;
    for (std::size_t i = 0; i < out.size(); ++i) {
        if (!counts(pile.frames[i])) continue;
        const CaptureData& now = pile.frames[i].file->capture;
        if (before && before->captured && now.captured)
            out[i] = *now.captured - *before->captured - before->exposure_s.value_or(0);
        before = &now;
    }
    return out;
}

const Sighting* sighting_of(const Sightings& seen, int id) {
    const auto found = seen.find(id);
    return found == seen.end() ? nullptr : found->second.get();
}

void place(const Sighting& sight, const Matrix& from_anchor, Size size, FrameMeasures& out) {
    if (!sight.to_anchor) return;
    const Matrix to_reference = from_anchor * *sight.to_anchor;
    const Point middle{(size.width - 1) / 2.0, (size.height - 1) / 2.0};
    const Point there = to_reference(middle);
    out.shift_px = Point{there.x - middle.x, there.y - middle.y};
    out.turn_degrees = std::atan2(to_reference.m()[3], to_reference.m()[0]) * 180 / std::numbers::pi;
}

}  // namespace

int survey_level(Size size) {
    return level_within(size, longest_side);
}

int anchor_for(const Pile& pile) {
    const Frame* reference = find_frame(pile, pile.reference);
    if (reference && usable(*reference)) return reference->id;
    const auto found = std::find_if(pile.frames.begin(), pile.frames.end(), usable);
    return found == pile.frames.end() ? 0 : found->id;
}

struct Anchor::Reference {
    std::mutex mutex;
    std::optional<AlignReference> made;
};

Result<Anchor> anchor_of(const Pile& pile, int id) {
    const Frame* frame = find_frame(pile, id);
    if (!frame || !usable(*frame))
        return Failure{Fault::input, "", "None of the frames can be used. The Frames step says of each why."};
    return Anchor{frame->id, frame->file, std::make_shared<Anchor::Reference>()};
}

namespace {

RasterF tones_of(const FramePixels& pixels, const WorkingSpace& space) {
    return brightness_of(pixels.widened(), LightCurve::of(space.profile, space.channels));
}

// Null when the anchor's file cannot be read: with the reason in `out`.
const AlignReference* reference_of(const Anchor& anchor, int level, FrameStore& store, Job& job, Failure& out) {
    const std::lock_guard lock(anchor.reference->mutex);
    std::optional<AlignReference>& made = anchor.reference->made;
    if (made) return &*made;
    Result<SharedPixels> pixels = store.load(*anchor.file, level, job);
    if (!pixels.ok()) {
        out = of_frame(pixels.failure(), anchor.id);
        return nullptr;
    }
    made.emplace(tones_of(*pixels.value(), store.space()));
    return &*made;
}

std::optional<Fingerprint> key_of(const Frame& frame, const Anchor& anchor, int level, const WorkingSpace& space) {
    const std::optional<Fingerprint> content = content_of(*frame.file), against = content_of(*anchor.file);
    if (!content || !against) return std::nullopt;
    return derived_key("sighting", pile::fingerprint(*content, *against, frame.role == Role::dark, level, space.profile,
                                                     space.channels, space.balance));
}

Result<Sighting> looked_at(const Frame& frame, const Anchor& anchor, int level, FrameStore& store, Job& job) {
    Result<SharedPixels> pixels = store.load(*frame.file, level, job);
    if (!pixels.ok()) return pixels.failure();
    const Raster16 picture = pixels.value()->widened();
    const WorkingSpace& space = store.space();
    Sighting out;
    out.glance = glance_of(picture, LightCurve::of(space.profile, space.channels));
    constexpr int shortest_side = 32;
    if (frame.id == anchor.id) {
        out.to_anchor = Matrix{};
    } else if (frame.role != Role::dark && std::min(picture.width(), picture.height()) >= shortest_side) {
        Failure failure;
        const AlignReference* reference = reference_of(anchor, level, store, job, failure);
        if (!reference) return failure;
        const Alignment found = reference->align(tones_of(*pixels.value(), space), Model::rigid);
        if (found.aligned) out.to_anchor = from_level(found.to_reference, level);
    }
    return out;
}

void pack(Packer& to, const Glance& glance) {
    to.number(glance.grid.width).number(glance.grid.height);
    to.number(glance.brightness)
        .number(glance.clipped)
        .number(glance.noise)
        .number(std::uint64_t(glance.places.size()));
    for (const Place& place : glance.places) {
        for (const float light : place.light) to.number(light);
        to.number(place.tone).number(place.contrast).number(place.doubt);
    }
}

void unpack(Unpacker& from, Glance& glance) {
    glance.grid = {from.number<int>(), from.number<int>()};
    glance.brightness = from.number<double>();
    glance.clipped = from.number<double>();
    glance.noise = from.number<double>();
    glance.places.resize(from.count(6 * sizeof(float)));
    for (Place& place : glance.places) {
        for (float& light : place.light) light = from.number<float>();
        place.tone = from.number<float>();
        place.contrast = from.number<float>();
        place.doubt = from.number<float>();
    }
}

}  // namespace

void pack(Packer& to, const Sighting& sight) {
    pack(to, sight.glance);
    to.number(sight.to_anchor.has_value());
    if (sight.to_anchor)
        for (const double m : sight.to_anchor->m()) to.number(m);
    to.number(sight.fine.has_value());
    if (sight.fine) pack(to, *sight.fine);
}

void unpack(Unpacker& from, Sighting& sight) {
    unpack(from, sight.glance);
    if (from.number<bool>()) {
        std::array<double, 9> m{};
        for (double& value : m) value = from.number<double>();
        sight.to_anchor = Matrix(m);
    }
    if (from.number<bool>()) unpack(from, sight.fine.emplace());
}

Result<Sighting> look_at(const Pile& pile, const Frame& frame, const Anchor& anchor, FrameStore& store, Job& job) {
    const int level = survey_level(pile.size);
    const std::optional<Fingerprint> key = key_of(frame, anchor, level, store.space());
    Result<Sighting> out =
        solved<Sighting>(store.derived(), key, [&] { return looked_at(frame, anchor, level, store, job); });
    if (out.ok()) out.value().key = key;
    return out;
}

bool has_more(Size size) {
    return survey_level(size) > 0;
}

Result<Sighting> look_closer(const Pile& pile, const Frame& frame, const Sighting& seen, FrameStore& store, Job& job) {
    if (seen.fine) return seen;
    constexpr int band = 32;   // rows looked at
    constexpr int every = 96;  // rows from one band to the next: a third of the picture tells enough
    const WorkingSpace space = working_space(pile);
    Result<std::unique_ptr<OpenFrame>> opened = open_frame(*frame.file, 0, space);
    if (!opened.ok()) return opened.failure();
    const Size size = opened.value()->size();
    const std::unique_ptr<FrameRows> rows = opened.value()->window(band, 0);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    Sighting out = seen;
    out.fine.emplace();
    Raster16 strip(Size{size.width, band}, space.channels);
    for (int top = 0; top + band <= size.height; top += every) {
        if (job.stopped()) return stopped_failure();
        Status here = rows->require(top, top + band);
        if (!here.ok()) return here.failure();
        for (int y = 0; y < band; ++y) {
            const SourceRow row = rows->row(top + y);
            std::uint16_t* to = strip.row(y);
            for (int i = 0; i < strip.row_samples(); ++i)
                to[i] = row.narrow ? std::uint16_t(257 * row.narrow[i]) : row.wide[i];
        }
        append(*out.fine, glance_of(strip, curve));
    }
    if (store.derived() && out.key) store.derived()->keep(*out.key, out);
    return out;
}

namespace {

// Long exposures are of the night.
Scene scene_of(const Pile& pile) {
    constexpr double long_s = 2;
    std::vector<double> exposures;
    for (const Frame& frame : pile.frames)
        if (counts(frame) && frame.file->capture.exposure_s) exposures.push_back(*frame.file->capture.exposure_s);
    return !exposures.empty() && median(exposures) >= long_s ? Scene::night : Scene::day;
}

}  // namespace

bool follows_the_sky(const std::vector<FrameMeasures>& run) {
    constexpr double least_px = 3;  // over the run
    constexpr double least_degrees = 0.1;
    constexpr double uneven = 0.15;  // of what it went altogether, for the middle frame
    constexpr std::size_t fewest = 5;
    std::vector<double> when, x, y, turn;
    for (std::size_t i = 0; i < run.size(); ++i) {
        if (!run[i].shift_px || !run[i].turn_degrees) continue;
        when.push_back(double(i));
        x.push_back(run[i].shift_px->x);
        y.push_back(run[i].shift_px->y);
        turn.push_back(*run[i].turn_degrees);
    }
    if (when.size() < fewest) return false;
    const auto gone = [&](const std::vector<double>& values) {
        const auto line = steady_line(when, values);
        return std::abs(line(when.back()) - line(when.front()));
    };
    const auto evenly = [&](const std::vector<double>& values) {
        const auto line = steady_line(when, values);
        std::vector<double> off;
        for (std::size_t i = 0; i < when.size(); ++i) off.push_back(std::abs(values[i] - line(when[i])));
        return median(off) <= uneven * gone(values);
    };
    const bool shifts = std::hypot(gone(x), gone(y)) > least_px && evenly(gone(x) > gone(y) ? x : y);
    return shifts || (gone(turn) > least_degrees && evenly(turn));
}

std::vector<Findings> know(const Pile& pile, const Sightings& seen) {
    std::vector<Findings> out(pile.frames.size());
    const std::vector<std::optional<double>> gaps = gaps_of(pile);
    const Sighting* reference = sighting_of(seen, pile.reference);
    // Fine and coarse sharpness cannot be held against each other.
    const bool finely = std::all_of(pile.frames.begin(), pile.frames.end(), [&](const Frame& f) {
        const Sighting* sight = sighting_of(seen, f.id);
        return !counts(f) || (sight && sight->fine);
    });
    std::vector<const Glance*> run;
    std::vector<std::size_t> places;  // of the run's frames in the pile
    for (std::size_t i = 0; i < out.size(); ++i) {
        const Frame& frame = pile.frames[i];
        FrameMeasures& m = out[i].measures;
        m.gap_s = gaps[i];
        const Sighting* sight = usable(frame) ? sighting_of(seen, frame.id) : nullptr;
        if (sight) {
            m.brightness = sight->glance.brightness;
            m.noise = sight->fine && !sight->fine->places.empty() ? sight->fine->noise : sight->glance.noise;
            m.clipped = sight->glance.clipped;
            if (reference && frame.role != Role::dark) {
                compare(sight->glance, reference->glance, m);
                if (finely && sight->fine && reference->fine)
                    if (const auto sharp = sharpness_beside(*sight->fine, *reference->fine)) m.sharpness = sharp;
                if (reference->to_anchor) place(*sight, inverse(*reference->to_anchor), pile.size, m);
            }
        }
        if (!counts(frame)) continue;
        run.push_back(sight ? &sight->glance : nullptr);
        places.push_back(i);
    }
    const std::vector<double> veil = veils(run);
    std::vector<FrameMeasures> measures;
    for (std::size_t k = 0; k < run.size(); ++k) {
        if (run[k]) out[places[k]].measures.veil = veil[k];
        measures.push_back(out[places[k]].measures);
    }
    const Scene scene = scene_of(pile);
    if (scene == Scene::night && follows_the_sky(measures)) {
        // What was held against each other were the stars: of the camera that says nothing.
        for (std::size_t k = 0; k < measures.size(); ++k)
            for (FrameMeasures* m : {&measures[k], &out[places[k]].measures}) {
                m->shift_px.reset();
                m->turn_degrees.reset();
            }
    }
    std::vector<std::vector<Mark>> marks = odd_ones(measures, pile.size, scene);
    for (std::size_t k = 0; k < run.size(); ++k) out[places[k]].marks = std::move(marks[k]);
    return out;
}

std::map<int, Role> guess_roles(const Pile& pile, const Sightings& seen) {
    constexpr double black = 0.004;      // light of a black frame, hot pixels and all
    constexpr double beside_black = 3;   // times as much light have the others
    constexpr double much_longer = 2.5;  // times the usual exposure
    constexpr std::size_t few = 4;       // one in so many may be a foreground
    std::vector<double> lights, exposures;
    for (const Frame& frame : pile.frames) {
        if (!counts(frame)) continue;
        if (const Sighting* sight = sighting_of(seen, frame.id)) lights.push_back(sight->glance.brightness);
        if (frame.file->capture.exposure_s) exposures.push_back(*frame.file->capture.exposure_s);
    }
    const double usual_light = median(lights);
    const double usual_exposure = median(exposures);
    std::map<int, Role> out;
    std::vector<int> longer;
    for (const Frame& frame : pile.frames) {
        const Sighting* sight = sighting_of(seen, frame.id);
        if (!counts(frame) || frame.role_from != RoleFrom::nobody || !sight) continue;
        const auto& places = sight->glance.places;
        const bool dark = std::all_of(places.begin(), places.end(), [](const Place& p) {
            return std::all_of(p.light.begin(), p.light.end(), [](float v) { return double(v) < black; });
        });
        if (dark && usual_light > beside_black * sight->glance.brightness)
            out[frame.id] = Role::dark;
        else if (frame.file->capture.exposure_s.value_or(0) > much_longer * usual_exposure && usual_exposure > 0)
            longer.push_back(frame.id);
    }
    if (longer.size() * few <= exposures.size())
        for (const int id : longer) out[id] = Role::foreground;
    return out;
}

Result<std::vector<Findings>> survey(Pile& pile, FrameStore& store, Job& job) {
    Result<Anchor> anchor = anchor_of(pile, anchor_for(pile));
    if (!anchor.ok()) return anchor.failure();
    Sightings seen;
    std::mutex mutex;
    job.begin({"Looking at %1", {frames_counted(pile.frames.size())}}, long(pile.frames.size()));
    parallel_for(0, int(pile.frames.size()), [&](int n) {
        Frame& frame = pile.frames[std::size_t(n)];
        if (job.stopped() || !usable(frame)) return;
        Result<Sighting> sight = look_at(pile, frame, anchor.value(), store, job);
        if (sight.ok() && has_more(pile.size)) sight = look_closer(pile, frame, sight.value(), store, job);
        job.advance();
        if (sight.ok()) {
            const std::lock_guard lock(mutex);
            seen[frame.id] = std::make_shared<const Sighting>(std::move(sight).value());
        } else if (sight.failure().fault != Fault::stopped) {
            frame.problem = sight.failure().sentence;
        }
    });
    if (job.stopped()) return stopped_failure();
    return know(pile, seen);
}

}  // namespace bp
