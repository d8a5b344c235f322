#include "engine/moving_lights.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/looking.h"
#include "lights/excess.h"
#include "lights/traces.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr std::size_t fewest_frames = 4;
// The frames alone, as they were recorded.
Pile as_recorded(const Pile& pile) {
    Pile out = with_hot_pixels(with_look(pile, {}), nullptr);
    out.methods.sky = {Model::none, Mode::maximum, By::channel, {}};
    out.levelling = Levelling::off;
    out.darks = Darks::off;
    out.zones.reset();
    out.spots = nullptr;
    out.parts.clear();
    out.canvas = {};
    for (Frame& frame : out.frames) {
        frame.look = {};
        frame.left_out = frame.silence = Mask();
        frame.streaks.clear();
    }
    return out;
}

std::vector<int> scene_ids(const Pile& pile) {
    std::vector<int> out;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role == Role::scene) out.push_back(frame.id);
    return out;
}

RunMask thin_lights_of(const std::vector<Bright>& bright, Size size) {
    std::vector<Bright> surely;
    for (const Bright& p : bright)
        if (p.deviations >= quarters * least_deviations) surely.push_back(p);
    return thin_lights(size, traces_of(surely));
}

// How the sky moves, and which frames lie under it.
void find_motion(const Pile& pile, const std::vector<int>& ids, Job& job, MovingLights& out) {
    const Result<std::map<int, Alignment>> placed = align_frames(pile, Model::stars, pile.reference, job);
    if (!placed.ok()) return;
    std::vector<PlacedInTime> frames;
    std::vector<int> placed_ids;
    std::optional<std::size_t> reference;
    for (const int id : ids) {
        const auto place = placed.value().find(id);
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        if (place == placed.value().end() || !capture.captured) continue;
        if (id == pile.reference) reference = frames.size();
        frames.push_back({place->second, *capture.captured + capture.exposure_s.value_or(0) / 2});
        placed_ids.push_back(id);
    }
    if (!reference) return;
    const std::optional<FoundMotion> found = sky_motion(frames, *reference, pile.size);
    if (!found) return;
    out.sky = found->motion;
    for (std::size_t k = 0; k < placed_ids.size(); ++k) {
        MovingLights::OfFrame& of = out.frames[placed_ids[k]];
        of.fits_sky = found->fits[k];
        const Alignment& place = frames[k].place;
        if (of.fits_sky || !place.aligned || place.by_clock || !place.lens) continue;
        of.placed = true;
        of.stood = place.placement();
        of.stood.matrix = out.sky->over(frames[k].time_s - frames[*reference].time_s).matrix * of.stood.matrix;
    }
}

// Of a picture of every frame, all of one level.
struct Pictures {
    int level = 0;
    Size size;
    std::vector<std::vector<Bright>> bright;  // by frame
    std::vector<RunMask> lights;
};

// Without the sky's own lights: those that frames around have where the sky has turned to.
std::vector<Bright> without_stars(const std::vector<Bright>& pixels, std::size_t at, const std::vector<int>& ids,
                                  const std::vector<double>& middles_s, const MovingLights& lights,
                                  const Pictures& pictures) {
    constexpr std::size_t reach = 2;
    std::vector<LightsInTime> around;
    for (std::size_t k = at - std::min(at, reach); k < std::min(ids.size(), at + reach + 1); ++k)
        if (k != at && (lights.frames.at(ids[k]).fits_sky || lights.frames.at(ids[k]).placed))
            around.emplace_back(*lights.sky, middles_s[k] - middles_s[at], pictures.lights[k], pictures.level);
    const auto needed = std::min<std::ptrdiff_t>(2, std::ptrdiff_t(around.size()));
    std::vector<Bright> out;
    for (const Bright& p : pixels) {
        const Point place{double(p.x), double(p.y)};
        std::ptrdiff_t seen = 0, could = 0;
        for (const LightsInTime& a : around) {
            const LightsInTime::Sight sight = a.look(place);
            could += sight != LightsInTime::Sight::beyond ? 1 : 0;
            seen += sight == LightsInTime::Sight::light ? 1 : 0;
        }
        // What comes into the picture with the last frame, and what leaves it with the first, nobody else can tell.
        if (seen < needed && could >= needed) out.push_back(p);
    }
    return out;
}

// To level 0.
Point from_level(Point p, int level) {
    const double scale = 1 << level;
    return {(p.x + 0.5) * scale - 0.5, (p.y + 0.5) * scale - 0.5};
}

// Without what lies at the edges of a frame that was resampled.
std::vector<Bright> well_inside(const std::vector<Bright>& pixels, int level, const Placement& stood, Size size) {
    constexpr double edge = 8;  // pixels of level 0
    if (stood.is_identity()) return pixels;
    std::vector<Bright> out;
    for (const Bright& p : pixels) {
        const Point q = stood.to_frame(from_level({double(p.x), double(p.y)}, level));
        if (q.x >= edge && q.y >= edge && q.x <= size.width - 1 - edge && q.y <= size.height - 1 - edge)
            out.push_back(p);
    }
    return out;
}

void find_streaks(const Pile& pile, const std::vector<int>& ids, const Pictures& pictures, Job& job,
                  MovingLights& out) {
    std::vector<FrameLines> run(ids.size());
    std::vector<double> middles;
    for (std::size_t k = 0; k < ids.size(); ++k) {
        const CaptureData& capture = find_frame(pile, ids[k])->file->capture;
        run[k].begin_s = capture.captured.value_or(0);
        run[k].exposure_s = capture.captured ? capture.exposure_s.value_or(0) : 0;
        middles.push_back(run[k].begin_s + run[k].exposure_s / 2);
    }
    job.begin({"Looking for streaks in %1", {frames_counted(ids.size())}}, long(ids.size()));
    parallel_for(0, int(ids.size()), [&](int i) {
        const auto k = std::size_t(i);
        if (job.stopped()) return;
        // Where the camera stood otherwise and nobody knows how, all that stands still is a line.
        const MovingLights::OfFrame& of = out.frames.at(ids[k]);
        if (of.fits_sky || of.placed)
            run[k].lines =
                find_lines(without_stars(well_inside(pictures.bright[k], pictures.level, of.stood, pile.size), k, ids,
                                         middles, out, pictures),
                           pictures.size, of.fits_sky ? 1 : 2);
        job.advance();
    });
    if (job.stopped()) return;
    for (Streak& streak : tell_streaks(run, pictures.size)) {
        streak.frame = ids[std::size_t(streak.frame)];
        const Placement& stood = out.frames.at(streak.frame).stood;
        streak.line.from = stood.to_frame(from_level(streak.line.from, pictures.level));
        streak.line.to = stood.to_frame(from_level(streak.line.to, pictures.level));
        streak.line.width_px *= 1 << pictures.level;
        out.streaks.push_back(streak);
    }
}

// Of one pause no more of them are followed: the longest.
constexpr std::size_t most_own = 12;

void find_own(const Pile& pile, const std::vector<int>& ids, const Pictures& pictures, MovingLights& out) {
    std::vector<FrameTraces> run(ids.size());
    std::vector<double> middles;
    for (const int id : ids) {
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        middles.push_back(capture.captured.value_or(0) + capture.exposure_s.value_or(0) / 2);
    }
    parallel_for(0, int(ids.size()), [&](int i) {
        const auto k = std::size_t(i);
        const CaptureData& capture = find_frame(pile, ids[k])->file->capture;
        if (!capture.captured || (out.sky && !out.frames.at(ids[k]).fits_sky)) return;
        run[k].begin_s = *capture.captured;
        run[k].exposure_s = capture.exposure_s.value_or(0);
        run[k].traces = out.sky ? traces_of(without_stars(pictures.bright[k], k, ids, middles, out, pictures))
                                : traces_of(pictures.bright[k]);
    });
    std::vector<Mover> movers = movers_in(run);
    std::stable_sort(movers.begin(), movers.end(), [](const Mover& a, const Mover& b) {
        return a.before != b.before ? a.before < b.before : a.end.size() > b.end.size();
    });
    const double scale = 1 << pictures.level;
    for (std::size_t i = 0; i < movers.size(); ++i) {
        const Mover& m = movers[i];
        if (i >= most_own && movers[i - most_own].before == m.before) continue;
        std::vector<RunMask::Stretch> end;
        end.reserve(m.end.size());
        for (const Point& p : m.end) end.push_back({int(p.y), {int(p.x), int(p.x) + 1}});
        out.own.push_back({ids[m.before],
                           ids[m.before + 1],
                           {m.px_per_s.x * scale, m.px_per_s.y * scale},
                           m.across_px * scale,
                           RunMask(pictures.size, end)});
    }
}

// The frames on each other, as if the camera had always stood as it did for the reference.
Pile standing_still(Pile pile, const MovingLights& lights) {
    pile.methods.sky.model = Model::stars;
    for (Frame& frame : pile.frames) {
        frame.places.sky.reset();
        const auto of = lights.frames.find(frame.id);
        if (of == lights.frames.end() || of->second.stood.is_identity()) continue;
        Alignment place;
        place.to_reference = of->second.stood.matrix;
        place.lens = of->second.stood.lens;
        place.sensor = of->second.stood.sensor;
        frame.places.sky = place;
    }
    return pile;
}

Result<MovingLights> look(const Pile& pile, const std::vector<int>& ids, FrameStore& store, Job& job) {
    MovingLights out;
    for (const int id : ids) out.frames[id];
    find_motion(pile, ids, job, out);
    if (job.stopped()) return stopped_failure();
    const Size size = at_level(pile.size, MovingLights::level);
    Looking work(pile.channels, ids.size(), size);
    const Pile still = standing_still(pile, out);
    const Status done = bring_in_step(
        {still, store, takes_of(ids), whole(size), MovingLights::level, Looking::bytes(ids.size(), size)}, job, work);
    if (!done.ok()) return done.failure();
    Pictures all{MovingLights::level, size, work.lights(), {}};
    for (const std::vector<Bright>& of : all.bright) all.lights.push_back(thin_lights_of(of, size));
    for (std::size_t k = 0; k < ids.size(); ++k) out.frames[ids[k]].lights = all.lights[k];
    find_own(pile, ids, all, out);
    if (!out.sky) return out;
    Pictures small{MovingLights::level + work.coarser(), work.small(), work.small_lights(), {}};
    for (const std::vector<Bright>& of : small.bright) small.lights.push_back(thin_lights_of(of, small.size));
    find_streaks(pile, ids, small, job, out);
    if (job.stopped()) return stopped_failure();
    return out;
}

// All that lights are found from; `content` stands for the pixels of the frames.
Fingerprint recipe_of(const Pile& pile, const std::vector<int>& ids, const std::vector<Fingerprint>& content) {
    std::vector<double> times;
    for (const int id : ids) {
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        times.push_back(capture.captured.value_or(-1));
        times.push_back(capture.exposure_s.value_or(-1));
    }
    const auto reference = std::find(ids.begin(), ids.end(), pile.reference) - ids.begin();
    return pile::fingerprint(content, times, int(reference), pile.profile, pile.channels, pile.balance, pile.trust);
}

}  // namespace

LightsInTime::LightsInTime(const SkyMotion& sky, double later_s, const RunMask& lights, int level)
    : over_(at_level(sky.over(later_s), level)), lights_(lights.grown(1)) {}

LightsInTime::Sight LightsInTime::look(Point p) const {
    const Point q = over_.to_canvas(p);
    const Size size = lights_.size();
    if (!(q.x >= 0 && q.y >= 0 && q.x <= size.width - 1 && q.y <= size.height - 1)) return Sight::beyond;
    return lights_.at(int(std::lround(q.x)), int(std::lround(q.y))) ? Sight::light : Sight::dark;
}

std::size_t MovingLights::bytes() const {
    std::size_t out = sizeof *this;
    for (const auto& [id, of] : frames) out += of.lights.bytes();
    for (const Own& light : own) out += sizeof light + light.end.bytes();
    out += streaks.size() * sizeof(Streak);
    return out;
}

Fingerprint recipe_of_lights(const Pile& pile) {
    const std::vector<int> ids = scene_ids(pile);
    std::vector<Fingerprint> files;
    files.reserve(ids.size());
    for (const int id : ids) files.push_back(pile::fingerprint(find_frame(pile, id)->file, id));
    return derived_key("moving lights, own ways", recipe_of(pile, ids, files));
}

Result<std::shared_ptr<const MovingLights>> moving_lights(const Pile& pile, FrameStore& store, Job& job) {
    const Pile plain = as_recorded(pile);
    const std::vector<int> ids = scene_ids(plain);
    if (ids.size() < fewest_frames || std::find(ids.begin(), ids.end(), pile.reference) == ids.end())
        return std::make_shared<const MovingLights>();
    const Fingerprint here = recipe_of_lights(pile);
    if (auto known = store.kept<MovingLights>(here)) return known;
    std::optional<Fingerprint> key;
    std::vector<Fingerprint> content;
    for (const int id : ids)
        if (const auto of = content_of(*find_frame(plain, id)->file)) content.push_back(pile::fingerprint(*of, id));
    if (content.size() == ids.size()) key = derived_key("moving lights, own ways", recipe_of(plain, ids, content));
    // A frame that turns out broken has no lights.
    const auto of_readable_ones = [&]() -> Result<MovingLights> {
        std::vector<int> readable = ids;
        while (true) {
            Result<MovingLights> found = look(plain, readable, store, job);
            if (found.ok() || found.failure().fault != Fault::input) return found;
            const auto broken = std::find(readable.begin(), readable.end(), found.failure().frame);
            if (broken == readable.end() || readable.size() <= fewest_frames || *broken == pile.reference) return found;
            readable.erase(broken);
        }
    };
    Result<MovingLights> found = solved<MovingLights>(store.derived(), key, of_readable_ones);
    if (!found.ok()) return found.failure();
    found.value().recipe = here;
    auto out = std::make_shared<const MovingLights>(std::move(found).value());
    store.keep(here, out);
    return out;
}

}  // namespace bp
