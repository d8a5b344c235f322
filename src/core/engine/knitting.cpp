#include "engine/knitting.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"
#include "engine/sky_in_time.h"
#include "pile/fingerprint.h"

namespace bp {
namespace {

// A frame that is merged, in time.
struct Exposed {
    int id;
    double begin_s, length_s;
    const MovingLights::OfFrame* lights;
    std::shared_ptr<const RunMask> around_lights;  // with a pixel around them
    double middle_s() const { return begin_s + length_s / 2; }
    double end_s() const { return begin_s + length_s; }
};

// Those whose sky lies where the motion has it, if it is known, in the order of time.
std::vector<Exposed> exposed_frames(const Pile& pile, const MovingLights& lights) {
    std::vector<Exposed> out;
    for (const int id : merged_ids(pile, Zone::sky)) {
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        const auto of = lights.frames.find(id);
        if (of == lights.frames.end() || (lights.sky && !of->second.fits_sky) || !capture.captured ||
            !capture.exposure_s)
            continue;
        out.push_back({id, *capture.captured, *capture.exposure_s, &of->second,
                       std::make_shared<const RunMask>(of->second.lights.grown(1))});
    }
    std::stable_sort(out.begin(), out.end(), [](const Exposed& a, const Exposed& b) { return a.begin_s < b.begin_s; });
    return out;
}

// Lights of `before` that the motion leads to lights of the frame after it, and of so many of the frames around: noise
// goes its own ways.
RunMask lights_of_both(const RunMask& before, const LightsInTime& after, const std::vector<LightsInTime>& around) {
    constexpr std::ptrdiff_t enough = 2;
    const std::ptrdiff_t needed = std::min(enough, std::ptrdiff_t(around.size()));
    std::vector<RunMask::Stretch> out;
    for (int y = 0; y < before.size().height; ++y)
        for (const RunMask::Run& run : before.row(y))
            for (int x = run.begin; x < run.end; ++x) {
                if (!after.have(x, y)) continue;
                const auto seen =
                    std::count_if(around.begin(), around.end(), [&](const LightsInTime& l) { return l.have(x, y); });
                if (seen >= needed) out.push_back({y, {x, x + 1}});
            }
    return {before.size(), out};
}

int nearest(double v) {
    return int(std::floor(v + 0.5));
}

// All pixels to which lights have moved.
RunMask moved(const RunMask& lights, const kernels::SourceMap& on, const kernels::SourceMap& back) {
    constexpr double half = 0.55;  // of a pixel, and what it may be turned
    std::vector<RunMask::Stretch> about;
    for (int y = 0; y < lights.size().height; ++y)
        for (const RunMask::Run& run : lights.row(y)) {
            const Point from = on.at(run.begin, y), to = on.at(run.end - 1, y);
            if (!std::isfinite(from.x + from.y + to.x + to.y)) continue;
            const int top = int(std::ceil(std::min(from.y, to.y) - half));
            const int bottom = int(std::floor(std::max(from.y, to.y) + half));
            const RunMask::Run across{int(std::ceil(std::min(from.x, to.x) - half)),
                                      int(std::floor(std::max(from.x, to.x) + half)) + 1};
            for (int v = top; v <= bottom; ++v) about.push_back({v, across});
        }
    const RunMask perhaps(lights.size(), about);
    std::vector<RunMask::Stretch> out;
    for (int y = 0; y < perhaps.size().height; ++y)
        for (const RunMask::Run& run : perhaps.row(y))
            for (int x = run.begin; x < run.end; ++x) {
                const Point was = back.at(x, y);
                if (lights.at(nearest(was.x), nearest(was.y))) out.push_back({y, {x, x + 1}});
            }
    return {lights.size(), out};
}

// Lights that need as many moments in a pause: slow ones more than fast ones, whose trails are long beside their ends.
struct AsManyMoments {
    int steps = 0;
    RunMask lights;
};

// `on` leads to where lights are `seconds` later.
std::vector<AsManyMoments> by_moments(const RunMask& lights, const kernels::SourceMap& on, double seconds,
                                      double exposure_s, double period_s) {
    constexpr std::array<int, 5> counts{1, 2, 4, 8, 12};
    constexpr double speeds = 64;  // that are told apart, in a pixel of level 0 a period
    constexpr double furthest = 1e4;
    std::array<std::vector<RunMask::Stretch>, counts.size()> stretches;
    std::vector<int> known;  // by speed; -1 for none
    const auto count_for = [&](double px_per_s) {
        const auto speed = std::size_t(std::min(furthest, px_per_s * period_s * speeds));
        if (speed >= known.size()) known.resize(speed + 1, -1);
        if (known[speed] < 0)
            known[speed] = steps_between(exposure_s, period_s, (double(speed) + 0.5) / speeds / period_s);
        return known[speed];
    };
    constexpr int scale = 1 << MovingLights::level;
    for (int y = 0; y < lights.size().height; ++y)
        for (const RunMask::Run& run : lights.row(y))
            for (int x = run.begin; x < run.end; ++x) {
                const Point p = on.at(x, y);
                if (!std::isfinite(p.x + p.y)) continue;
                const int steps = count_for(std::hypot(p.x - x, p.y - y) * scale / seconds);
                const auto as_many = std::lower_bound(counts.begin(), counts.end(), steps) - counts.begin();
                if (steps > 0) stretches[std::size_t(as_many)].push_back({y, {x, x + 1}});
            }
    std::vector<AsManyMoments> out;
    for (std::size_t i = 0; i < counts.size(); ++i)
        if (!stretches[i].empty()) out.push_back({counts[i], RunMask(lights.size(), stretches[i])});
    return out;
}

// Between frame `at` and the one after it.
std::vector<KnitStep> steps_after(const std::vector<Exposed>& frames, std::size_t at, const SkyMotion& motion,
                                  SkyInTime& sky) {
    constexpr std::size_t reach = 2;
    const Exposed& a = frames[at];
    const Exposed& b = frames[at + 1];
    std::vector<KnitStep> out;
    const double period = b.middle_s() - a.middle_s();
    const auto expected = [&](const Exposed& in) {
        return LightsInTime(sky.later(in.middle_s() - a.middle_s()), in.around_lights);
    };
    std::vector<LightsInTime> around;
    for (std::size_t k = at - std::min(at, reach); k < std::min(frames.size(), at + 2 + reach); ++k)
        if (k != at && k != at + 1) around.push_back(expected(frames[k]));
    const RunMask both = lights_of_both(a.lights->lights, expected(b), around);
    for (const AsManyMoments& some :
         by_moments(both, *sky.later(period), period, std::min(a.length_s, b.length_s), period))
        for (int j = 1; j <= some.steps; ++j) {
            const double on = period * j / (some.steps + 1);
            auto where = std::make_shared<const RunMask>(moved(some.lights, *sky.later(on), *sky.later(-on)));
            if (!where->empty()) out.push_back({motion.over(on), motion.over(on - period), std::move(where)});
        }
    return out;
}

// A light of its own way over a pause: moved on by a little more than the pause, as the one after is moved back, so
// that what falls off at the ends of both does not count.
KnitStep own_step(const MovingLights::Own& light, double pause_s) {
    constexpr double fall_off = 2.5;  // deviations
    const double speed = std::hypot(light.px_per_s.x, light.px_per_s.y);
    const double on = pause_s + fall_off * light.across_px / std::max(1e-6, speed);
    const auto over = [&](double seconds) {
        return Placement{Matrix::shift(light.px_per_s.x * seconds, light.px_per_s.y * seconds)};
    };
    const auto at_lights = [&](double seconds) {
        return kernels::SourceMap(at_level(over(seconds), MovingLights::level), light.end.size());
    };
    return {over(on), over(-on), std::make_shared<const RunMask>(moved(light.end, at_lights(-on), at_lights(on)))};
}

}  // namespace

std::size_t Knitting::bytes() const {
    std::size_t out = sizeof *this;
    for (const Seam& seam : seams)
        for (const KnitStep& step : seam.steps) out += sizeof step + step.where->bytes();
    return out;
}

std::vector<Pause> pauses_of(const Pile& pile) {
    struct Time {
        double begin_s, end_s;
        int id;
    };
    std::vector<Time> times;
    for (const int id : merged_ids(pile, Zone::sky)) {
        const CaptureData& capture = find_frame(pile, id)->file->capture;
        if (capture.captured && capture.exposure_s)
            times.push_back({*capture.captured, *capture.captured + *capture.exposure_s, id});
    }
    std::stable_sort(times.begin(), times.end(), [](const Time& a, const Time& b) { return a.begin_s < b.begin_s; });
    std::vector<Pause> out;
    for (std::size_t k = 1; k < times.size(); ++k) {
        const double pause = times[k].begin_s - times[k - 1].end_s;
        out.push_back({times[k - 1].id, times[k].id, pause, pause <= pile.knit.longest_s});
    }
    return out;
}

bool knits(const Pile& pile) {
    const Method& method = method_of(pile, Zone::sky);
    return pile.knit.on && method.model == Model::none && entry_of(method.mode).shows_brightest();
}

Knitting knitting_of(const Pile& pile, const MovingLights& lights) {
    Knitting out;
    if (!knits(pile) || (!lights.sky && lights.own.empty())) return out;
    const std::vector<Exposed> frames = exposed_frames(pile, lights);
    std::vector<std::size_t> closed;
    for (std::size_t k = 1; k < frames.size(); ++k) {
        const double pause = frames[k].begin_s - frames[k - 1].end_s();
        if (pause <= pile.knit.longest_s && frames[k].begin_s > frames[k - 1].begin_s) closed.push_back(k - 1);
    }
    SkyInTime sky(lights.sky.value_or(SkyMotion{}), at_level(pile.size, MovingLights::level), MovingLights::level);
    out.seams.resize(closed.size());
    parallel_for(0, int(closed.size()), [&](int i) {
        const std::size_t at = closed[std::size_t(i)];
        const Exposed &a = frames[at], &b = frames[at + 1];
        Seam seam{a.id, b.id, b.begin_s - a.end_s(), {}};
        if (lights.sky) seam.steps = steps_after(frames, at, *lights.sky, sky);
        for (const MovingLights::Own& light : lights.own)
            if (light.before == a.id && light.after == b.id) seam.steps.push_back(own_step(light, seam.pause_s));
        out.seams[std::size_t(i)] = std::move(seam);
    });
    return out;
}

Result<std::shared_ptr<const Knitting>> knitting_for(const Pile& pile, FrameStore& store, Job& job) {
    if (!knits(pile)) return std::shared_ptr<const Knitting>();
    const Result<std::shared_ptr<const MovingLights>> lights = moving_lights(pile, store, job);
    if (!lights.ok()) return lights.failure();
    std::vector<SharedFrameFile> files;
    for (const int id : merged_ids(pile, Zone::sky)) files.push_back(find_frame(pile, id)->file);
    const Fingerprint key = derived_key(
        "knitting", pile::fingerprint(lights.value()->recipe, files, merged_ids(pile, Zone::sky), pile.knit.longest_s));
    if (auto known = store.kept<Knitting>(key)) return known;
    auto out = std::make_shared<const Knitting>(knitting_of(pile, *lights.value()));
    store.keep(key, out);
    return out;
}

}  // namespace bp
