#include "engine/taking.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/median.h"
#include "engine/render.h"
#include "kernels/beyond_noise.h"
#include "parts/differing.h"
#include "parts/likeness.h"
#include "parts/shapes.h"

namespace bp {
namespace {

// Outlines are found in pictures no larger than this.
constexpr int sight_side = 1600;
constexpr std::size_t least_piece = 40000;  // a thing of less than one in so many pixels is none
constexpr float least_noise = 257;

// The frame in the light of the picture: what differs between them by a factor of light is no difference.
void level_to(Raster16& own, const Raster16& picture, const LightCurve& curve) {
    constexpr std::uint32_t darkest = 1U << 24;  // of light: below it factors say nothing
    for (int c = 0; c < own.channels(); ++c) {
        std::vector<double> factors;
        for (int y = 0; y < own.height(); y += 2)
            for (int x = 0; x < own.width(); x += 2) {
                const std::uint32_t a = curve.light(own.at(x, y, c)), b = curve.light(picture.at(x, y, c));
                if (a > darkest && b > darkest) factors.push_back(double(b) / a);
            }
        if (factors.empty()) continue;
        const double factor = middle_of(factors);
        for (int y = 0; y < own.height(); ++y)
            for (int x = 0; x < own.width(); ++x) own.at(x, y, c) = curve.sample(factor * curve.light(own.at(x, y, c)));
    }
}

// The noise of the difference by brightness, told by its middle: most of the picture is alike.
class NoiseOf {
  public:
    NoiseOf(const Raster16& own, const Raster16& picture) {
        std::array<std::vector<int>, bins> apart;
        for (std::size_t i = 0; i < own.data().size(); ++i)
            apart[picture.data()[i] / width].push_back(std::abs(int(own.data()[i]) - int(picture.data()[i])));
        constexpr std::size_t few = 200;
        for (std::size_t b = 0; b < bins; ++b)
            deviations_[b] = apart[b].size() < few ? 0 : float(deviation_of_median * middle_of(apart[b]));
        // A brightness that hardly occurs is as noisy as the noisiest.
        const float most = *std::max_element(deviations_.begin(), deviations_.end());
        for (float& d : deviations_) d = std::max(least_noise, d == 0 ? most : d);
    }
    float at(std::uint16_t sample) const { return deviations_[sample / width]; }

  private:
    static constexpr std::size_t bins = 16, width = 65536 / bins;
    std::array<float, bins> deviations_{};
};

double distance_to(const Rect& box, Point p) {
    return std::hypot(std::max({0.0, box.left - p.x, p.x - box.right()}),
                      std::max({0.0, box.top - p.y, p.y - box.bottom()}));
}

}  // namespace

Result<Mask> thing_at(const Pile& pile, int frame, Point at, int more, FrameStore& store, Job& job) {
    const int level = level_within(pile.size, sight_side), unit = 1 << level;
    const Rect region = at_level(whole(pile.size), level);
    Result<Raster16> own = render_frame(pile, store, frame, region, level, job);
    if (!own.ok()) return own.failure();
    const Result<Raster16> picture = composed(pile, store, region, level, job);
    if (!picture.ok()) return picture.failure();
    level_to(own.value(), picture.value(), LightCurve::of(pile.profile, pile.channels));
    const NoiseOf noise(own.value(), picture.value());
    Differing by(region.size(), 1);
    std::vector<float> deviations(std::size_t(region.width) * std::size_t(pile.channels));
    for (int y = 0; y < region.height; ++y) {
        const std::uint16_t* usual = picture.value().row(y);
        std::transform(usual, usual + deviations.size(), deviations.begin(), [&](auto v) { return noise.at(v); });
        kernels::beyond_noise(own.value().row(y), usual, deviations.data(), std::size_t(region.width), pile.channels,
                              by.row(y));
    }
    if (job.stopped()) return stopped_failure();
    const Point place{at.x / unit, at.y / unit};
    const double side = std::max(region.width, region.height);
    std::vector<Thing> things = things_in(by, std::size_t(region.width) * std::size_t(region.height) / least_piece);
    std::stable_sort(things.begin(), things.end(), [&](const Thing& a, const Thing& b) {
        return distance_to(a.box, place) < distance_to(b.box, place);
    });
    // What was clicked on, though not quite met; and what lies around it, the further the more is taken.
    const double near = side / 40, around = side * more / 25;
    Mask out(pile.size);
    if (things.empty() || distance_to(things.front().box, place) > near) return out;
    const Rect first = things.front().box;
    for (const Thing& thing : things) {
        const bool is_first = &thing == &things.front();
        const Point middle{first.left + first.width / 2.0, first.top + first.height / 2.0};
        if (!is_first && distance_to(thing.box, middle) > std::max(first.width, first.height) / 2.0 + around) continue;
        add_outline(out, thing.mask, thing.box, level);
    }
    // Out to where both agree: a little further than where they surely differ.
    return grown(out, 3.0 * unit * (1 + more)).softened(3.0 * unit);
}

Result<Mask> like_at(const Pile& pile, int frame, Point at, double reach, bool everywhere, FrameStore& store,
                     Job& job) {
    const int level = level_within(pile.size, sight_side), unit = 1 << level;
    const Rect region = at_level(whole(pile.size), level);
    const Result<Raster16> own =
        frame == 0 ? composed(pile, store, region, level, job) : render_frame(pile, store, frame, region, level, job);
    if (!own.ok()) return own.failure();
    const int x = int(std::floor((at.x + 0.5) / unit)), y = int(std::floor((at.y + 0.5) / unit));
    Mask out(pile.size);
    add_outline(out, likeness(own.value(), x, y, reach, everywhere), region, level);
    // Between the pixels that it was found in the border goes over softly.
    return level == 0 ? out : out.softened(2.0 * unit);
}

}  // namespace bp
