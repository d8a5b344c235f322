#include "engine/shower.h"

#include <algorithm>
#include <cmath>

#include "base/median.h"
#include "engine/moving_lights.h"
#include "engine/render.h"
#include "engine/zoning.h"
#include "parts/shapes.h"
#include "pile/edits.h"
#include "pile/streak_edits.h"

namespace bp {
namespace {

// Where a streak lies on the canvas; under a lens it bends a little.
std::vector<Point> on_canvas(const Line& line, const Placement& place) {
    constexpr int pieces = 32;
    std::vector<Point> out;
    for (int i = 0; i <= pieces; ++i) {
        const double t = double(i) / pieces;
        out.push_back(place.to_canvas(
            {line.from.x + t * (line.to.x - line.from.x), line.from.y + t * (line.to.y - line.from.y)}));
    }
    return out;
}

// Light of a channel in places: its middle and its noise.
struct Level {
    double middle = 0, deviation = 0;
};
Level level_of(std::vector<double>& light) {
    Level out;
    out.middle = middle_of(light);
    for (double& v : light) v = std::abs(v - out.middle);
    out.deviation = deviation_of_median * middle_of(light);
    return out;
}

// What is to be taken off a frame so that its sky around a meteor shows nowhere over that of the base: their difference
// and its noise, of which hardly any reaches so far.
std::array<double, 3> to_be_lowered(const Raster16& frame, const Raster16& base, const Mask& mask, const Rect& area,
                                    const LightCurve& curve) {
    constexpr double of_noise = 2.5;
    std::array<double, 3> out{};
    for (int c = 0; c < frame.channels(); ++c) {
        std::vector<double> own, below;
        for (int y = 0; y < area.height; ++y)
            for (int x = 0; x < area.width; ++x) {
                if (mask.at(area.left + x, area.top + y) != 0) continue;
                own.push_back(curve.light(frame.at(x, y, c)) / LightCurve::full);
                below.push_back(curve.light(base.at(x, y, c)) / LightCurve::full);
            }
        if (own.empty()) continue;
        const Level of_frame = level_of(own), of_base = level_of(below);
        out[std::size_t(c)] = std::clamp(of_frame.middle - of_base.middle + of_noise * of_frame.deviation, 0.0, 1.0);
    }
    return out;
}

Rect around(const Rect& box, int by, Size size) {
    return intersect({box.left - by, box.top - by, box.width + 2 * by, box.height + 2 * by}, whole(size));
}

}  // namespace

Result<std::vector<Part>> find_shower(const Pile& pile, FrameStore& store, Job& job) {
    const auto lights = moving_lights(pile, store, job);
    if (!lights.ok()) return lights.failure();
    // Streaks that a person drew, pulled or left out count as they are.
    const Pile found = with_found_streaks(pile, lights.value()->streaks);
    std::optional<Mask> sky;
    if (pile.zones) {
        sky = pile.zones->soft;
    } else {
        Result<Mask> suggested = suggest_sky(pile, store, job);
        if (suggested.ok())
            sky = std::move(suggested).value();
        else if (suggested.failure().fault == Fault::stopped || !suggested.failure().file.empty())
            return suggested.failure();
        // Else nothing is seen to stand still: all of it is sky.
    }
    Pile plain = pile;
    plain.parts.clear();
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    std::vector<Part> out;
    for (const StreakAt& at : streaks_of(found, StreakKind::meteor)) {
        const FrameStreak& streak = *find_streak(found, at);
        const Frame& frame = *find_frame(found, at.frame);
        const bool is_base = pile.methods.sky.mode == Mode::one && frame.id == pile.base;
        if (is_base || streak.left_out || frame.aside || lost(pile, frame)) continue;
        const double width = band_of(streak.line).width;
        Part part;
        part.frame = frame.id;
        part.join = Join::lighter;
        part.mask = along(on_canvas(streak.line, placement(pile, frame)), width, width / 2, pile.size);
        if (sky) part.mask = within(std::move(part.mask), *sky);
        const Rect bounds = part.mask.bounds();
        if (bounds.empty()) continue;
        const Rect area = around(bounds, int(std::ceil(width)), pile.size);
        const Result<Raster16> own = render_frame(plain, store, frame.id, area, 0, job);
        if (!own.ok()) return own.failure();
        const Result<Raster16> base = composed(plain, store, area, 0, job);
        if (!base.ok()) return base.failure();
        part.lowered = to_be_lowered(own.value(), base.value(), part.mask, area, curve);
        out.push_back(std::move(part));
    }
    return out;
}

}  // namespace bp
