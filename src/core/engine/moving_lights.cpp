#include "engine/moving_lights.h"

#include <algorithm>
#include <cmath>

#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/looking.h"
#include "engine/render.h"
#include "engine/sky_in_time.h"
#include "lights/excess.h"
#include "lights/traces.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr std::size_t fewest_frames = 4;
// Says how they were found, too: what was kept when they were found otherwise is not taken for them.
constexpr const char* kind_of_derived = "moving lights, by brightness";
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

// Of a picture of every frame, all of one level.
struct Pictures {
    int level = 0;
    Size size;
    std::vector<std::vector<Bright>> bright;  // by frame
    std::vector<RunMask> lights;
    std::vector<std::shared_ptr<const RunMask>> around_lights;  // with a pixel around them
};

// To level 0.
Point from_level(Point p, int level) {
    const double scale = 1 << level;
    return {(p.x + 0.5) * scale - 0.5, (p.y + 0.5) * scale - 0.5};
}

// The stars of a frame: what is bright and thin in it and no longer than a star's trail.
SkyFrame stars_of(const Pile& pile, const Frame& frame, const std::vector<Bright>& bright) {
    constexpr std::size_t most = 120;
    constexpr double wide_as_star = 10;  // pixels of the level
    const double longest = longest_star_trail(frame, at_level(pile.size, MovingLights::level).width) + wide_as_star;
    std::vector<Star> stars;
    for (const Trace& trace : traces_of(bright)) {
        if (!trace.thin() || std::hypot(trace.bounds.width, trace.bounds.height) > longest) continue;
        double light = 0, x = 0, y = 0;
        for (const Bright& p : trace.pixels) {
            light += p.by;
            x += double(p.by) * p.x;
            y += double(p.by) * p.y;
        }
        stars.push_back({from_level({x / light, y / light}, MovingLights::level), light});
    }
    SkyFrame out = sky_frame(pile, frame, std::move(stars));
    std::sort(out.stars.begin(), out.stars.end(), [](const Star& a, const Star& b) { return a.light > b.light; });
    if (out.stars.size() > most) out.stars.resize(most);
    return out;
}

// Where the frames lie by their moving lights; nothing where these do not tell.
std::map<int, Alignment> placed_by_lights(const Pile& pile, const std::vector<int>& ids,
                                          const std::vector<std::vector<Bright>>& bright) {
    const auto reference = std::size_t(std::find(ids.begin(), ids.end(), pile.reference) - ids.begin());
    std::vector<SkyFrame> seen(ids.size());
    parallel_for(0, int(ids.size()), [&](int i) {
        const auto k = std::size_t(i);
        seen[k] = stars_of(pile, *find_frame(pile, ids[k]), bright[k]);
    });
    if (!seen[reference].time_s) return {};
    const std::optional<std::vector<Alignment>> placed = place_sky(seen, reference, pile.size);
    std::map<int, Alignment> out;
    for (std::size_t k = 0; placed && k < ids.size(); ++k) out[ids[k]] = (*placed)[k];
    return out;
}

// How the sky moves by frames that are placed under it, and which of them lie where it has them.
void take_motion(const Pile& pile, const std::vector<int>& ids, const std::map<int, Alignment>& placed,
                 MovingLights& out) {
    std::vector<PlacedInTime> frames;
    std::vector<int> placed_ids;
    std::optional<std::size_t> reference;
    for (const int id : ids) {
        const auto place = placed.find(id);
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        if (place == placed.end() || !capture.captured) continue;
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

std::size_t frames_told(const MovingLights& lights) {
    return std::size_t(std::count_if(lights.frames.begin(), lights.frames.end(),
                                     [](const auto& of) { return of.second.fits_sky || of.second.placed; }));
}

// How the sky moves, and which frames lie under it. Stars that move are at hand; where they leave too many frames
// untold, because the sky hardly turns or the camera was moved, all stars are looked for.
void find_motion(const Pile& pile, const std::vector<int>& ids, const std::vector<std::vector<Bright>>& bright,
                 Job& job, MovingLights& out) {
    constexpr double enough = 0.8;  // of the frames
    MovingLights by_lights = out;
    take_motion(pile, ids, placed_by_lights(pile, ids, bright), by_lights);
    if (double(frames_told(by_lights)) < enough * double(ids.size())) {
        const Result<std::map<int, Alignment>> placed = align_frames(pile, Model::stars, pile.reference, job);
        MovingLights by_stars = out;
        if (placed.ok()) take_motion(pile, ids, placed.value(), by_stars);
        if (frames_told(by_stars) > frames_told(by_lights)) by_lights = std::move(by_stars);
    }
    out = std::move(by_lights);
}

// Without the sky's own lights: those that frames around have where the sky has turned to.
std::vector<Bright> without_stars(const std::vector<Bright>& pixels, std::size_t at, const std::vector<int>& ids,
                                  const std::vector<double>& middles_s, const MovingLights& lights,
                                  const Pictures& pictures, SkyInTime& sky) {
    constexpr std::size_t reach = 2;
    std::vector<LightsInTime> around;
    for (std::size_t k = at - std::min(at, reach); k < std::min(ids.size(), at + reach + 1); ++k)
        if (k != at && (lights.frames.at(ids[k]).fits_sky || lights.frames.at(ids[k]).placed))
            around.emplace_back(sky.later(middles_s[k] - middles_s[at]), pictures.around_lights[k]);
    const auto needed = std::min<std::ptrdiff_t>(2, std::ptrdiff_t(around.size()));
    std::vector<Bright> out;
    for (const Bright& p : pixels) {
        std::ptrdiff_t seen = 0, could = 0;
        for (const LightsInTime& a : around) {
            const LightsInTime::Sight sight = a.look(p.x, p.y);
            could += sight != LightsInTime::Sight::beyond ? 1 : 0;
            seen += sight == LightsInTime::Sight::light ? 1 : 0;
            if (seen >= needed) break;
        }
        // What comes into the picture with the last frame, and what leaves it with the first, nobody else can tell.
        if (seen < needed && could >= needed) out.push_back(p);
    }
    return out;
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
    SkyInTime sky(*out.sky, pictures.size, pictures.level);
    job.begin({"Looking for streaks in %1", {frames_counted(ids.size())}}, long(ids.size()));
    parallel_for(0, int(ids.size()), [&](int i) {
        const auto k = std::size_t(i);
        if (job.stopped()) return;
        // Where the camera stood otherwise and nobody knows how, all that stands still is a line.
        const MovingLights::OfFrame& of = out.frames.at(ids[k]);
        if (of.fits_sky || of.placed)
            run[k].lines =
                find_lines(without_stars(well_inside(pictures.bright[k], pictures.level, of.stood, pile.size), k, ids,
                                         middles, out, pictures, sky),
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
    SkyInTime sky(out.sky.value_or(SkyMotion{}), pictures.size, pictures.level);
    parallel_for(0, int(ids.size()), [&](int i) {
        const auto k = std::size_t(i);
        const CaptureData& capture = find_frame(pile, ids[k])->file->capture;
        if (!capture.captured || (out.sky && !out.frames.at(ids[k]).fits_sky)) return;
        run[k].begin_s = *capture.captured;
        run[k].exposure_s = capture.exposure_s.value_or(0);
        run[k].traces = out.sky ? traces_of(without_stars(pictures.bright[k], k, ids, middles, out, pictures, sky))
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

// Brings frames before `work`, as `lights` has it that the camera stood.
Status show(const Pile& pile, const std::vector<int>& frames, const MovingLights& lights, std::size_t beside_bytes,
            FrameStore& store, Job& job, Looking& work) {
    Pile grey = standing_still(pile, lights);
    WorkingSpace space = working_space(pile);
    space.brightness = pile.channels != 1;
    grey.channels = space.channels = 1;
    FrameStore passing(space, {0, store.budget().work_bytes});
    return bring_in_step({grey, passing, takes_of(frames), whole(at_level(pile.size, MovingLights::level)),
                          MovingLights::level, beside_bytes},
                         job, work);
}

Pictures pictures_of(std::vector<std::vector<Bright>> bright, int level, Size size) {
    Pictures out{level, size, std::move(bright), {}, {}};
    out.lights.resize(out.bright.size());
    out.around_lights.resize(out.bright.size());
    parallel_for(0, int(out.bright.size()), [&](int i) {
        const auto k = std::size_t(i);
        out.lights[k] = thin_lights_of(out.bright[k], size);
        out.around_lights[k] = std::make_shared<const RunMask>(out.lights[k].grown(1));
    });
    return out;
}

// What a camera that was moved saw is brought back, and looked at once more: those frames alone, unless they are so
// many that what is usual, and how far frames are from it at the land's edges, is told by them.
Status look_at_moved(const Pile& pile, const std::vector<int>& ids, const MovingLights& lights, FrameStore& store,
                     Job& job, std::unique_ptr<Looking>& work) {
    constexpr std::size_t few = 10;  // one in so many
    const Size size = at_level(pile.size, MovingLights::level);
    std::vector<std::size_t> moved;
    std::vector<int> moved_ids;
    for (std::size_t k = 0; k < ids.size(); ++k)
        if (lights.frames.at(ids[k]).placed) {
            moved.push_back(k);
            moved_ids.push_back(ids[k]);
        }
    if (moved.empty()) return Done{};
    const std::size_t bytes = Looking::bytes(ids.size(), size);
    if (moved.size() * few <= ids.size()) {
        work->again(moved);
        return show(pile, moved_ids, lights, bytes, store, job, *work);
    }
    work = std::make_unique<Looking>(ids.size(), size);
    return show(pile, ids, lights, bytes, store, job, *work);
}

Result<MovingLights> look(const Pile& pile, const std::vector<int>& ids, FrameStore& store, Job& job) {
    MovingLights out;
    for (const int id : ids) out.frames[id];
    const Size size = at_level(pile.size, MovingLights::level);
    auto work = std::make_unique<Looking>(ids.size(), size);
    Status shown = show(pile, ids, out, Looking::bytes(ids.size(), size), store, job, *work);
    if (!shown.ok()) return shown.failure();
    find_motion(pile, ids, work->lights(), job, out);
    if (job.stopped()) return stopped_failure();
    shown = look_at_moved(pile, ids, out, store, job, work);
    if (!shown.ok()) return shown.failure();
    const Pictures fine = pictures_of(work->lights(), MovingLights::level, size);
    for (std::size_t k = 0; k < ids.size(); ++k) out.frames[ids[k]].lights = fine.lights[k];
    find_own(pile, ids, fine, out);
    if (!out.sky) return out;
    find_streaks(pile, ids, pictures_of(work->small_lights(), MovingLights::level + work->coarser(), work->small()),
                 job, out);
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
    return derived_key(kind_of_derived, recipe_of(pile, ids, files));
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
    if (content.size() == ids.size()) key = derived_key(kind_of_derived, recipe_of(plain, ids, content));
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
