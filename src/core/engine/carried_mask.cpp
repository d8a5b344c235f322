#include "engine/carried_mask.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

// The rectangle around where the edge of an area comes to lie.
template <class Carry>
Rect carried(const Rect& area, const Carry& carry) {
    constexpr int points = 32;
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    const auto take = [&](double x, double y) {
        const Point p = carry(Point{x, y});
        if (!std::isfinite(p.x) || !std::isfinite(p.y)) return;
        left = std::min(left, p.x);
        right = std::max(right, p.x);
        top = std::min(top, p.y);
        bottom = std::max(bottom, p.y);
    };
    for (int i = 0; i <= points; ++i) {
        const double x = area.left - 1 + double(area.width + 1) * i / points;
        const double y = area.top - 1 + double(area.height + 1) * i / points;
        take(x, area.top - 1);
        take(x, area.bottom());
        take(area.left - 1, y);
        take(area.right(), y);
    }
    if (left > right) return {};
    // Between two points the edge may bow out a little.
    const auto number = [](double v) {
        constexpr double furthest = 1e6;
        return int(std::clamp(v, -furthest, furthest));
    };
    const double bow = 2 + (right - left + bottom - top) / points / 4;
    return {number(std::floor(left - bow)), number(std::floor(top - bow)),
            number(std::ceil(right + bow)) - number(std::floor(left - bow)),
            number(std::ceil(bottom + bow)) - number(std::floor(top - bow))};
}

Point nearest(Point p) {
    return {std::round(p.x), std::round(p.y)};
}

}  // namespace

Mask on_canvas(const Mask& of_frame, const Placement& place) {
    if (place.is_identity()) return of_frame;
    Mask out(of_frame.size());
    const Rect area = of_frame.bounds();
    if (area.empty()) return out;
    out.edit(carried(area, [&](Point p) { return place.to_canvas(p); }), [&](int x, int y, std::uint8_t) {
        const Point p = place.to_frame({double(x), double(y)});
        if (!std::isfinite(p.x) || !std::isfinite(p.y)) return std::uint8_t(0);
        return of_frame.at(int(nearest(p).x), int(nearest(p).y));
    });
    return out;
}

Mask carried_back(Mask of_frame, const Mask& before, const Mask& after, const Placement& place) {
    const Rect changed = after.bounds_of_change(before);
    if (changed.empty()) return of_frame;
    const Rect area = place.is_identity() ? changed : carried(changed, [&](Point p) { return place.to_frame(p); });
    of_frame.edit(area, [&](int x, int y, std::uint8_t old) {
        const Point p = nearest(place.to_canvas({double(x), double(y)}));
        if (!std::isfinite(p.x) || !std::isfinite(p.y)) return old;
        const auto u = int(p.x), v = int(p.y);
        return before.at(u, v) == after.at(u, v) ? old : after.at(u, v);
    });
    return of_frame;
}

}  // namespace bp
