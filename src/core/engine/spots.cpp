#include "engine/spots.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "base/median.h"
#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/render.h"
#include "pile/edits.h"

namespace bp {
namespace {

constexpr std::size_t most_frames = 24;

// Frames in sensor place, as recorded but for their darks.
Pile in_sensor_place(const Pile& pile) {
    Pile out = with_look(pile, {});
    out.methods.sky.model = Model::none;
    out.levelling = Levelling::off;
    out.zones.reset();
    out.spots = nullptr;
    for (Frame& frame : out.frames) frame.look = {};
    return out;
}

// Scene frames spread over the run, used or not: a spot is in all of them.
std::vector<int> some_frames(const Pile& pile) {
    std::vector<int> all;
    for (const Frame& frame : pile.frames)
        if (usable(frame) && frame.role != Role::dark) all.push_back(frame.id);
    std::vector<int> out;
    const std::size_t count = std::min(most_frames, all.size());
    for (std::size_t i = 0; i < count; ++i) out.push_back(all[i * all.size() / count]);
    return out;
}

RasterF light_of(const Raster16& picture, const LightCurve& curve) {
    RasterF out(picture.size(), 1);
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x) {
            double sum = 0;
            for (int c = 0; c < picture.channels(); ++c) sum += curve.light(picture.at(x, y, c));
            out.at(x, y, 0) = float(sum / picture.channels() / LightCurve::full);
        }
    return out;
}

// Where the frames lie, by the pile's own alignment or by one made for this, from small pictures. Frames that cannot be
// aligned lie as they are.
Pile laid(const Pile& pile, Job& job) {
    constexpr int side = 1200;
    if (pile.methods.sky.model != Model::none) return pile;
    auto found = align_frames(pile, Model::rigid, pile.reference, job, side);
    return found.ok() ? with_alignments(pile, Model::rigid, pile.reference, found.value()) : pile;
}

// Some frames in an area of the sensor.
Result<std::vector<SpotView>> views_of(const Pile& pile, const Rect& area, int level, FrameStore& store, Job& job) {
    const Pile placed = laid(pile, job);
    const Pile plain = in_sensor_place(pile);
    const LightCurve curve = LightCurve::of(pile.profile, pile.channels);
    std::vector<SpotView> out;
    for (const int id : some_frames(plain)) {
        Result<Raster16> picture = render_frame(plain, store, id, area, level, job);
        if (job.stopped()) return stopped_failure();
        // Frames that cannot be read are said when they are looked at.
        if (picture.ok())
            out.push_back(
                {light_of(picture.value(), curve), at_level(placement(placed, *find_frame(placed, id)), level)});
    }
    if (out.empty())
        return Failure{Fault::input, "",
                       "No frame can be read to measure the spot in. The Frames step says of each why."};
    return out;
}

// How far the views are moved against the first of them, at most.
double widest_move(const std::vector<SpotView>& views, Point at) {
    const Point scene = views.front().place.to_canvas(at);
    double out = 0;
    for (const SpotView& view : views) {
        const Point p = view.place.to_frame(scene);
        out = std::max(out, std::hypot(p.x - at.x, p.y - at.y));
    }
    return out;
}

// What views have in common that move with the sensor and not with the scene: in each, the light of every pixel over
// the median of what all of them show of that place.
RasterF common_of_moving(const std::vector<SpotView>& views) {
    const Size size = views.front().light.size();
    const auto light_at = [&](const SpotView& view, Point p) -> std::optional<double> {
        const int x = int(std::lround(p.x));
        const int y = int(std::lround(p.y));
        if (x < 0 || y < 0 || x >= size.width || y >= size.height) return std::nullopt;
        return view.light.at(x, y, 0);
    };
    RasterF out(size, 1);
    parallel_for(0, size.height, [&](int y) {
        std::vector<double> shares, shown;
        for (int x = 0; x < size.width; ++x) {
            shares.clear();
            for (const SpotView& view : views) {
                const Point scene = view.place.to_canvas({double(x), double(y)});
                shown.clear();
                for (const SpotView& other : views)
                    if (const auto v = light_at(other, other.place.to_frame(scene))) shown.push_back(*v);
                if (shown.size() >= 3)
                    shares.push_back(double(view.light.at(x, y, 0)) / std::max(1e-6, middle_of(shown)));
            }
            out.at(x, y, 0) = shares.empty() ? 1.0F : float(middle_of(shares));
        }
    });
    return out;
}

// What views that stand still have in common beside their surroundings.
RasterF common_of_still(const std::vector<SpotView>& views, int around_px) {
    std::vector<RasterF> beside;
    beside.reserve(views.size());
    for (const SpotView& view : views) beside.push_back(light_beside(view.light, around_px));
    RasterF out(beside.front().size(), 1);
    std::vector<double> values;
    for (std::size_t i = 0; i < out.data().size(); ++i) {
        values.clear();
        for (const RasterF& frame : beside) values.push_back(double(frame.data()[i]));
        out.data()[i] = float(middle_of(values));
    }
    return out;
}

}  // namespace

Result<SensorSpot> measure_spot(const Pile& pile, Point at, double radius_px, FrameStore& store, Job& job) {
    constexpr int furthest_px = 300;  // frames that are moved further are of no more use
    const double radius = std::clamp(radius_px, smallest_spot_px, largest_spot_px);
    const Rect near = around_spot(at, radius);
    if (intersect(near, whole(pile.size)).empty())
        return Failure{Fault::wrong_call, "", "The spot lies outside the picture."};
    const Rect area = intersect(
        {near.left - furthest_px, near.top - furthest_px, near.width + 2 * furthest_px, near.height + 2 * furthest_px},
        whole(pile.size));
    Result<std::vector<SpotView>> views = views_of(pile, area, 0, store, job);
    if (!views.ok()) return views.failure();
    return measured_spot(at, radius, views.value(), area);
}

Result<std::vector<SpotGuess>> guess_spots(const Pile& pile, FrameStore& store, Job& job) {
    constexpr int looked_at_side = 1600;
    constexpr double moving_px = 16;  // pixels of the level: less does not part a spot from the scene
    // The scene itself is full of small dark things: where it stands still, only what is large and clear is a spot.
    constexpr SpotSearch among_still{2.8, 24, 15};
    constexpr SpotSearch among_moving{2, 24, 6};
    const int level = level_within(pile.size, looked_at_side);
    const Size size = at_level(pile.size, level);
    Result<std::vector<SpotView>> views = views_of(pile, whole(size), level, store, job);
    if (!views.ok()) return views.failure();
    const bool moving =
        views.value().size() >= 3 && widest_move(views.value(), {size.width / 2.0, size.height / 2.0}) > moving_px;
    const SpotSearch& wanted = moving ? among_moving : among_still;
    const RasterF common =
        moving ? common_of_moving(views.value()) : common_of_still(views.value(), int(4 * wanted.largest_px));
    if (job.stopped()) return stopped_failure();
    std::vector<SpotGuess> out = guess_spots(common, wanted);
    const double unit = 1 << level;
    for (SpotGuess& guess : out) {
        guess.at = {(guess.at.x + 0.5) * unit - 0.5, (guess.at.y + 0.5) * unit - 0.5};
        guess.radius_px *= unit;
    }
    return out;
}

std::vector<SpotGuess> suspected(const Pile& pile, const std::vector<SpotGuess>& guesses) {
    std::vector<SpotGuess> out;
    for (const SpotGuess& guess : guesses) {
        const bool mended =
            pile.spots && std::any_of(pile.spots->begin(), pile.spots->end(), [&](const SensorSpot& s) {
                return std::hypot(s.at.x - guess.at.x, s.at.y - guess.at.y) <= s.radius_px + guess.radius_px;
            });
        if (!mended) out.push_back(guess);
    }
    return out;
}

}  // namespace bp
