#include "practice/scenes/night_sky.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double focal = 980;
constexpr double k1 = -0.055;
constexpr double sidereal_day_s = 86164.0905;
constexpr Point optical_centre{799.5, 533};

Point distorted(double x, double y) {
    const double r2 = x * x + y * y;
    const double k = 1 + k1 * r2;
    return {optical_centre.x + focal * x * k, optical_centre.y + focal * y * k};
}

// Star colours from orange over white to blue, as hot bodies have them.
Rgb star_colour(double heat) {
    const Rgb warm{1.0F, 0.62F, 0.34F};
    const Rgb white{1.0F, 0.95F, 0.9F};
    const Rgb blue{0.66F, 0.8F, 1.0F};
    return heat < 0.5 ? mix(warm, white, heat * 2) : mix(white, blue, heat * 2 - 1);
}

}  // namespace

NightSky::NightSky(std::uint64_t seed, int stars, Point pole) : pole_(pole) {
    Dice dice(seed);
    for (int i = 0; i < stars; ++i) {
        const double z = dice.between(0.25, 1.0);
        const double around = dice.between(0, 2 * std::numbers::pi);
        const double r = std::sqrt(1 - z * z);
        // Counts grow by about 3 a magnitude: light falls as rank^-0.84.
        const double light = 3.4 * std::pow((i + 12.0) / 30.0, -0.80);
        stars_.push_back({{r * std::cos(around), r * std::sin(around), z}, star_colour(dice.unit()) * light});
    }
}

Scene::Lens NightSky::lens() const {
    return {focal, k1, distorted((pole_.x - optical_centre.x) / focal, (pole_.y - optical_centre.y) / focal)};
}

bool NightSky::project(const Direction& d, double angle, Point& out) const {
    const double c = std::cos(angle);
    const double s = std::sin(angle);
    // Counter-clockwise as seen, for the northern pole.
    const double x = c * d[0] + s * d[1];
    const double y = -s * d[0] + c * d[1];
    const double z = d[2];
    // The camera's axis: tilt about x, then about y, so that the pole falls where it should.
    const double px = (pole_.x - optical_centre.x) / focal;
    const double py = (pole_.y - optical_centre.y) / focal;
    const double across = std::atan(px);
    const double down = std::atan2(py, std::hypot(1.0, px));
    const double y1 = std::cos(down) * y + std::sin(down) * z;
    const double z1 = -std::sin(down) * y + std::cos(down) * z;
    const double x2 = std::cos(across) * x + std::sin(across) * z1;
    const double z2 = -std::sin(across) * x + std::cos(across) * z1;
    // Beyond this the lens formula would fold the sky back into the picture.
    constexpr double widest = 1.5;
    if (z2 < 0.2 || std::hypot(x2, y1) > widest * z2) return false;
    out = distorted(x2 / z2, y1 / z2);
    return true;
}

std::optional<Point> NightSky::seen(const Direction& direction, double at_s) const {
    Point out;
    if (!project(direction, at_s * 2 * std::numbers::pi / sidereal_day_s, out)) return std::nullopt;
    return out;
}

void NightSky::expose(Canvas& canvas, double begin_s, double end_s, double exposure,
                      const std::function<double(Point)>& clear) const {
    const double turn = 2 * std::numbers::pi / sidereal_day_s;
    // Stars are small whatever the number of pixels, but never smaller than the pixels can show.
    const double sigma = std::max(0.62, 0.55 / canvas.scale());
    for (const Star& star : stars_) {
        Point a;
        Point b;
        if (!project(star.direction, begin_s * turn, a) || !project(star.direction, end_s * turn, b)) continue;
        const Box view{-60, -60, scene_width + 60, 860};
        if (a.x < view.left || a.x > view.right || a.y < view.top || a.y > view.bottom) continue;
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        const int steps = std::max(1, int(std::ceil(length / 6)));
        // Light is spread over the trail's length: a star near the pole stays brighter.
        const Rgb light = star.light * (exposure / (1 + length / (2 * sigma)));
        Point from = a;
        for (int i = 1; i <= steps; ++i) {
            Point to = b;
            project(star.direction, (begin_s + (end_s - begin_s) * i / steps) * turn, to);
            const double open = clear({(from.x + to.x) / 2, (from.y + to.y) / 2});
            if (open > 0.01) canvas.streak(from, to, sigma, light * open, [](double) { return 1.0; });
            from = to;
        }
    }
}

}  // namespace bp::practice
