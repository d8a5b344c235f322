#include "practice/scenes/landscape.h"

#include <algorithm>
#include <cmath>

#include "practice/texture.h"

namespace bp::practice {

std::function<double(double)> ridge(std::uint64_t seed, double base, double swing, double width) {
    return [=](double x) { return base - swing * (0.5 + 0.6 * cloudy(seed, x / width, 0.5, 6)); };
}

Point mirrored_in_water(Point p, double waterline, std::uint64_t seed, double ripple) {
    const double depth = p.y - waterline;
    // Ripples look larger and longer towards the viewer.
    const double near = 1 + depth / 60;
    const double row = std::log1p(depth / 14) * 9;
    const double sway = noise(seed, p.x / (26 * near), row) + 0.5 * noise(seed + 1, p.x / (11 * near), row * 2.3);
    const double lift = noise(seed + 2, p.x / (34 * near), row * 1.4);
    return {p.x + ripple * 0.6 * sway * std::sqrt(near), waterline - depth * 1.02 + ripple * 2.2 * lift * near * 0.5};
}

void paint_water(Canvas& canvas, double waterline, double bottom, std::uint64_t seed, double ripple, Rgb tint,
                 double clarity) {
    const Canvas above = canvas.clone();
    canvas.paint(bar(-100, waterline, scene_width + 100, bottom), [&](Point p) {
        Point from = mirrored_in_water(p, waterline, seed, ripple);
        from.y = std::min(from.y, waterline - 1.0);
        const double depth = (p.y - waterline) / (bottom - waterline);
        const Rgb mirror = above.at(from) * (clarity * (1 - 0.35 * depth));
        return mirror + tint * (0.15 + 0.5 * depth);
    });
}

double masonry(std::uint64_t seed, Point p, double course) {
    const double row = std::floor(p.y / course);
    const double length = course * (1.7 + 0.5 * hashed(seed, std::int64_t(row), 3));
    const double shifted = p.x + length * hashed(seed, std::int64_t(row), 1);
    const double column = std::floor(shifted / length);
    const double u = shifted - column * length;
    const double v = p.y - row * course;
    const double joint = std::min({u, length - u, v, course - v});
    const double stone = 0.8 + 0.4 * hashed(seed, std::int64_t(row), std::int64_t(column) + 77);
    const double grain = 1 + 0.16 * cloudy(seed + 5, p.x / 5, p.y / 5, 4);
    return stone * grain * (0.55 + 0.45 * smooth_step(0, course * 0.1, joint));
}

}  // namespace bp::practice
