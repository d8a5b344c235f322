#include "parts/brush.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

// The nearest place of a segment, as a share of it, and how far away that is.
struct Nearest {
    double share;
    double distance;
};
Nearest nearest_on_segment(Point p, Point a, Point b) {
    const double dx = b.x - a.x;
    const double dy = b.y - a.y;
    const double length2 = dx * dx + dy * dy;
    const double t = length2 > 0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / length2, 0.0, 1.0) : 0.0;
    return {t, std::hypot(p.x - a.x - t * dx, p.y - a.y - t * dy)};
}

// 1 in the middle, 0 outside; a smooth fall whose width is the softness, at least one pixel so that edges are clean.
double touch_at(double distance, const Brush& brush) {
    const double radius = brush.size / 2;
    const double fall = std::max(1.0, radius * brush.softness);
    const double t = std::clamp((radius + 0.5 - distance) / fall, 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

}  // namespace

Stroke::Stroke(Mask before, Brush brush)
    : brush_(brush), before_(std::move(before)), touch_(before_.size()), now_(before_) {}

Rect Stroke::extend(Point to, double pressure) {
    const Point from = last_.value_or(to);
    const double pressed = last_ ? last_pressure_ : pressure;
    last_ = to;
    last_pressure_ = pressure;
    const double reach = brush_.size / 2 + 1;
    const int left = int(std::floor(std::min(from.x, to.x) - reach));
    const int top = int(std::floor(std::min(from.y, to.y) - reach));
    const int right = int(std::ceil(std::max(from.x, to.x) + reach)) + 1;
    const int bottom = int(std::ceil(std::max(from.y, to.y) + reach)) + 1;
    const Rect area = intersect({left, top, right - left, bottom - top}, whole(before_.size()));
    touch_.edit(area, [&](int x, int y, std::uint8_t value) {
        const Nearest at = nearest_on_segment({double(x), double(y)}, from, to);
        const double strength = brush_.strength * (pressed + at.share * (pressure - pressed));
        return std::max(value, std::uint8_t(std::lround(255 * touch_at(at.distance, brush_) * strength)));
    });
    now_.edit(area, [&](int x, int y, std::uint8_t) {
        const int old = before_.at(x, y);
        const int touch = touch_.at(x, y);
        const int goal = brush_.keep ? 255 : 0;
        return std::uint8_t((old * (255 - touch) + goal * touch + 127) / 255);
    });
    return area;
}

}  // namespace bp
