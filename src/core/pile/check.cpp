#include "pile/check.h"

#include <algorithm>
#include <cmath>

#include "pile/fields.h"

namespace bp::pile {
namespace {

template <class T, class L>
bool keeps(const T&, const L&) {
    return true;
}
template <std::floating_point T>
bool keeps(const T& v, const Between<T>& limits) {
    return std::isfinite(v) && v >= limits.least && v <= limits.most;
}
template <std::size_t n>
bool keeps(const std::array<double, n>& v, const Between<double>& limits) {
    return std::all_of(v.begin(), v.end(), [&](double one) { return keeps(one, limits); });
}
bool keeps(const Point& v, const Between<double>& limits) {
    return keeps(v.x, limits) && keeps(v.y, limits);
}
template <class L>
bool keeps(const Matrix& v, const L&) {
    return keeps(v.m(), Between<double>{-largest_entry, largest_entry}) && v.finite() && inverse(v).finite();
}
template <class L>
bool keeps(const SharedFlex& v, const L&) {
    if (!v) return true;
    const Flex::Grid& grid = v->grid();
    const auto nodes = std::size_t(std::max(0, grid.columns)) * std::size_t(std::max(0, grid.rows));
    const Between<float> shift{float(-furthest_px), float(furthest_px)};
    const auto all_keep = [&](const std::vector<float>& shifts) {
        return std::all_of(shifts.begin(), shifts.end(), [&](float one) { return keeps(one, shift); });
    };
    return grid.columns >= 1 && grid.rows >= 1 && grid.columns <= most_nodes && grid.rows <= most_nodes &&
           keeps(grid.step, Between<double>{1, furthest_px}) &&
           keeps(grid.first, Between<double>{-furthest_px, furthest_px}) && v->across().size() == nodes &&
           v->down().size() == nodes && all_keep(v->across()) && all_keep(v->down());
}
template <HasFields T>
bool keeps_all(const T& value) {
    bool out = true;
    fields(value,
           [&](std::string_view, const auto& member, const auto& limits) { out = out && keeps(member, limits); });
    return out;
}
// A lens that bends a picture and does not fold it.
bool rises(const Lens& lens, Size size) {
    const double longest = std::hypot(size.width, size.height);
    for (double r = 0; r <= longest; r += longest / 50) {
        const double rr = r * r / (lens.unit * lens.unit);
        if (1 + rr * (3 * lens.k1 + 5 * lens.k2 * rr) < 0.02) return false;
    }
    return true;
}

}  // namespace

bool sound(const Alignment& place, Size size) {
    return keeps_all(place) && (!place.lens || (keeps_all(*place.lens) && rises(*place.lens, size)));
}

bool sound(const Rect& canvas) {
    const auto near = [](int at) { return at >= -largest_side_px && at <= largest_side_px; };
    return !canvas.empty() && near(canvas.left) && near(canvas.top) && near(canvas.width) && near(canvas.height);
}

bool sound(const LightGains& level) {
    return keeps_all(level);
}

}  // namespace bp::pile
