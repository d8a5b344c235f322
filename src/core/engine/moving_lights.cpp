#include "engine/moving_lights.h"

#include <algorithm>
#include <cmath>
#include <mutex>

#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/in_step.h"
#include "lights/excess.h"
#include "lights/traces.h"
#include "pile/edits.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

constexpr std::size_t fewest_frames = 4;
// For lights one by one, and for what many pixels in a line have together.
constexpr double least_deviations = 4, least_of_streaks = 3;
constexpr int quarters = 4;

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

// Lines are looked for in pictures of one size, whatever the camera's: what is thin, or a crowd, is told in pixels.
int level_of_lines(Size of_lights) {
    constexpr int longest_side = 1000;
    return level_within(of_lights, longest_side);
}

// What stands out of the rows of a picture, by frame: `least` deviations and more.
class Standing {
  public:
    Standing(std::size_t frames, int height, double least)
        : frames_(frames), least_(least), rows_(std::size_t(height)) {}

    // `rows` of all frames, from column `left` on. Any thread.
    void look(int y, int left, kernels::Rows<std::uint16_t> rows, int width) {
        std::vector<Excess> found;
        add_excess(rows, width, least_, found);
        drop_wide_light(found, width);
        for (Excess& e : found) e.x = std::uint16_t(e.x + left);
        const std::lock_guard lock(mutex_);
        auto& row = rows_[std::size_t(y)];
        row.insert(row.end(), found.begin(), found.end());
    }

    // By frame, row by row.
    std::vector<std::vector<Bright>> by_frame() {
        std::vector<std::vector<Bright>> out(frames_);
        for (std::size_t y = 0; y < rows_.size(); ++y) {
            std::sort(rows_[y].begin(), rows_[y].end(), [](const Excess& a, const Excess& b) { return a.x < b.x; });
            for (const Excess& e : rows_[y]) out[e.frame].push_back({e.x, int(y), e.by, e.deviations});
        }
        return out;
    }

  private:
    // Where a frame is brighter over much of a row it is a cloud, and what does not stand out far from it says nothing.
    // Nor is it kept, so that a run under clouds takes no more memory than a clear one.
    void drop_wide_light(std::vector<Excess>& found, int width) const {
        constexpr int share = 10;  // one in so many pixels of a row
        constexpr int far = 10 * quarters;
        std::vector<int> counts(frames_);
        for (const Excess& e : found) ++counts[e.frame];
        std::erase_if(found, [&](const Excess& e) { return counts[e.frame] > width / share && e.deviations < far; });
    }

    std::size_t frames_;
    double least_;
    std::mutex mutex_;
    std::vector<std::vector<Excess>> rows_;
};

// Collects what stands out, row by row, and a smaller picture of every frame to look for lines in.
class Looking final : public StepWork {
  public:
    Looking(int channels, std::size_t frames, Size size)
        : channels_(channels),
          frames_(frames),
          size_(size),
          coarser_(level_of_lines(size)),
          small_(bp::at_level(size, coarser_)),
          lights_(frames, size.height, least_deviations),
          sums_(frames, std::vector<std::uint32_t>(std::size_t(small_.width) * std::size_t(small_.height))) {}

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const int width = columns.end - columns.begin;
        std::vector<std::uint16_t> samples(frames_ * std::size_t(width));
        std::vector<const std::uint16_t*> brightness;
        for (std::size_t k = 0; k < frames_; ++k) {
            std::uint16_t* out = samples.data() + k * std::size_t(width);
            brightness.push_back(out);
            const kernels::Span& cover = rows[k].cover;
            if (cover.empty()) continue;
            for (int x = cover.begin; x < cover.end; ++x)
                out[x] = rows[k].narrow ? kernels::to_16(bright(rows[k].narrow, x)) : bright(rows[k].wide, x);
            // What is not covered is as the last that is.
            std::fill(out, out + cover.begin, out[cover.begin]);
            std::fill(out + cover.end, out + width, out[cover.end - 1]);
        }
        add_to_small(y, columns, brightness);
        lights_.look(y, columns.begin, brightness, width);
    }

    std::vector<std::vector<Bright>> lights() { return lights_.by_frame(); }
    Size small() const { return small_; }
    int coarser() const { return coarser_; }
    // What stands out in the small pictures.
    std::vector<std::vector<Bright>> small_lights() const {
        Standing out(frames_, small_.height, least_of_streaks);
        parallel_for(0, small_.height, [&](int y) {
            const int height = std::min(size_.height, (y + 1) << coarser_) - (y << coarser_);
            std::vector<std::uint16_t> samples(frames_ * std::size_t(small_.width));
            std::vector<const std::uint16_t*> rows;
            for (std::size_t k = 0; k < frames_; ++k) {
                std::uint16_t* to = samples.data() + k * std::size_t(small_.width);
                rows.push_back(to);
                const std::uint32_t* from = sums_[k].data() + std::size_t(y) * std::size_t(small_.width);
                for (int x = 0; x < small_.width; ++x) {
                    const int width = std::min(size_.width, (x + 1) << coarser_) - (x << coarser_);
                    const auto pixels = std::uint32_t(width * height);
                    to[x] = std::uint16_t((from[x] + pixels / 2) / pixels);
                }
            }
            out.look(y, 0, rows, small_.width);
        });
        return out.by_frame();
    }
    // That is held at once.
    static std::size_t bytes(std::size_t frames, Size size) {
        // In a row of many frames one pixel in so many stands out.
        constexpr std::size_t of_pixels = 50;
        const Size small = bp::at_level(size, level_of_lines(size));
        return frames * (std::size_t(size.width) * std::size_t(size.height) / of_pixels * sizeof(Excess) +
                         std::size_t(small.width) * std::size_t(small.height) * sizeof(std::uint32_t));
    }

  private:
    template <class T>
    T bright(const T* row, int x) const {
        if (channels_ == 1) return row[x];
        const T* p = row + std::ptrdiff_t(x) * 3;
        return T((unsigned(p[0]) + 2U * p[1] + p[2] + 2U) / 4U);
    }

    void add_to_small(int y, kernels::Span columns, const std::vector<const std::uint16_t*>& rows) {
        const int first = columns.begin >> coarser_, end = ((columns.end - 1) >> coarser_) + 1;
        std::vector<std::uint32_t> own(frames_ * std::size_t(end - first));
        for (std::size_t k = 0; k < frames_; ++k) {
            std::uint32_t* to = own.data() + k * std::size_t(end - first);
            for (int x = columns.begin; x < columns.end; ++x) to[(x >> coarser_) - first] += rows[k][x - columns.begin];
        }
        const std::lock_guard lock(mutex_);
        for (std::size_t k = 0; k < frames_; ++k) {
            std::uint32_t* to = sums_[k].data() + std::size_t(y >> coarser_) * std::size_t(small_.width) + first;
            const std::uint32_t* from = own.data() + k * std::size_t(end - first);
            for (int x = 0; x < end - first; ++x) to[x] += from[x];
        }
    }

    int channels_;
    std::size_t frames_;
    Size size_;
    int coarser_;
    Size small_;
    Standing lights_;
    std::mutex mutex_;
    std::vector<std::vector<std::uint32_t>> sums_;  // of the small pictures' pixels
};

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
            could += a.see(place) ? 1 : 0;
            seen += a.have(place) ? 1 : 0;
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
        std::vector<Bright> surely;
        for (const Bright& p :
             out.sky ? without_stars(pictures.bright[k], k, ids, middles, out, pictures) : pictures.bright[k])
            if (p.deviations >= quarters * least_deviations) surely.push_back(p);
        run[k].traces = traces_of(surely);
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

bool LightsInTime::have(Point p) const {
    const Point q = over_.to_canvas(p);
    return std::isfinite(q.x) && std::isfinite(q.y) && lights_.at(int(std::lround(q.x)), int(std::lround(q.y)));
}

bool LightsInTime::see(Point p) const {
    const Point q = over_.to_canvas(p);
    const Size size = lights_.size();
    return q.x >= 0 && q.y >= 0 && q.x <= size.width - 1 && q.y <= size.height - 1;
}

std::size_t MovingLights::bytes() const {
    std::size_t out = sizeof *this;
    for (const auto& [id, of] : frames) out += of.lights.bytes();
    for (const Own& light : own) out += sizeof light + light.end.bytes();
    out += streaks.size() * sizeof(Streak);
    return out;
}

void pack(Packer& to, const MovingLights& lights) {
    to.number(lights.sky.has_value());
    const SkyMotion sky = lights.sky.value_or(SkyMotion{});
    to.number(sky.lens.middle.x)
        .number(sky.lens.middle.y)
        .number(sky.lens.unit)
        .number(sky.lens.k1)
        .number(sky.lens.k2);
    for (const double s : sky.spin) to.number(s);
    to.number(std::uint64_t(lights.frames.size()));
    for (const auto& [id, of] : lights.frames) {
        to.number(id).number(of.fits_sky).number(of.placed);
        for (const double m : of.stood.matrix.m()) to.number(m);
        to.number(of.stood.sensor.x).number(of.stood.sensor.y);
        pack(to, of.lights);
    }
    to.number(std::uint64_t(lights.own.size()));
    for (const MovingLights::Own& light : lights.own) {
        to.number(light.before).number(light.after);
        to.number(light.px_per_s.x).number(light.px_per_s.y).number(light.across_px);
        pack(to, light.end);
    }
    to.number(std::uint64_t(lights.streaks.size()));
    for (const Streak& s : lights.streaks) {
        const Line& l = s.line;
        to.number(s.frame).number(int(s.kind)).number(s.thing);
        for (const double v :
             {l.from.x, l.from.y, l.to.x, l.to.y, l.width_px, l.brightness, l.blinks, l.even, l.confidence})
            to.number(v);
    }
}

void unpack(Unpacker& from, MovingLights& lights) {
    const bool moves = from.number<bool>();
    SkyMotion sky;
    for (double* value : {&sky.lens.middle.x, &sky.lens.middle.y, &sky.lens.unit, &sky.lens.k1, &sky.lens.k2})
        *value = from.number<double>();
    for (double& s : sky.spin) s = from.number<double>();
    if (moves) lights.sky = sky;
    const std::size_t count = from.count(sizeof(int));
    for (std::size_t i = 0; i < count && from.ok(); ++i) {
        const int id = from.number<int>();
        MovingLights::OfFrame& of = lights.frames[id];
        of.fits_sky = from.number<bool>();
        of.placed = from.number<bool>();
        std::array<double, 9> matrix{};
        for (double& m : matrix) m = from.number<double>();
        of.stood.sensor = {from.number<double>(), from.number<double>()};
        if (of.placed && lights.sky) {
            of.stood.matrix = Matrix(matrix);
            of.stood.lens = lights.sky->lens;
        }
        unpack(from, of.lights);
    }
    const std::size_t own = from.count(2 * sizeof(int));
    for (std::size_t i = 0; i < own && from.ok(); ++i) {
        MovingLights::Own light;
        light.before = from.number<int>();
        light.after = from.number<int>();
        light.px_per_s = {from.number<double>(), from.number<double>()};
        light.across_px = from.number<double>();
        unpack(from, light.end);
        lights.own.push_back(std::move(light));
    }
    const std::size_t streaks = from.count(3 * sizeof(int));
    for (std::size_t i = 0; i < streaks && from.ok(); ++i) {
        Streak s;
        s.frame = from.number<int>();
        const int kind = from.number<int>();
        if (kind < 0 || kind >= int(streak_kinds().size())) return from.refuse();
        s.kind = StreakKind(kind);
        s.thing = from.number<int>();
        Line& l = s.line;
        for (double* v :
             {&l.from.x, &l.from.y, &l.to.x, &l.to.y, &l.width_px, &l.brightness, &l.blinks, &l.even, &l.confidence})
            *v = from.number<double>();
        lights.streaks.push_back(s);
    }
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
