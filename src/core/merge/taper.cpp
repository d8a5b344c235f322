#include "merge/taper.h"

#include <algorithm>

namespace bp {
namespace {

constexpr std::array<TaperEndEntry, 4> table{{
    {TaperEnd::none, "none"},
    {TaperEnd::old_one, "old"},
    {TaperEnd::new_one, "new"},
    {TaperEnd::both, "both"},
}};

// From a at 0 to b at 1, with the slopes there, in units of the way.
double hermite(double t, double a, double b, double slope_a, double slope_b) {
    const double t2 = t * t, t3 = t2 * t;
    return a * (2 * t3 - 3 * t2 + 1) + slope_a * (t3 - 2 * t2 + t) + b * (3 * t2 - 2 * t3) + slope_b * (t3 - t2);
}

// The slope at an end, by the three-point formula, held so that the curve does not turn back.
double end_slope(double near, double far, double first, double second) {
    const double slope = ((2 * near + far) * first - near * second) / (near + far);
    return std::clamp(slope, 0.0, 3 * first);
}

double risen(const Point& knot, double t) {
    if (knot.x == knot.y) return t;
    const double left = knot.x, right = 1 - knot.x;
    const double rise_left = knot.y / left, rise_right = (1 - knot.y) / right;
    const double w1 = 2 * right + left, w2 = right + 2 * left;
    const double middle = (w1 + w2) / (w1 / rise_left + w2 / rise_right);
    if (t < knot.x)
        return hermite(t / left, 0, knot.y, left * end_slope(left, right, rise_left, rise_right), left * middle);
    return hermite((t - left) / right, knot.y, 1, right * middle,
                   right * end_slope(right, left, rise_right, rise_left));
}

}  // namespace

std::span<const TaperEndEntry> taper_ends() {
    return table;
}

std::optional<TaperEnd> taper_end_named(std::string_view name) {
    const auto* found = std::find_if(table.begin(), table.end(), [name](const auto& e) { return e.name == name; });
    if (found == table.end()) return std::nullopt;
    return found->end;
}

double strength_at(const Taper& taper, double x) {
    const auto from_end = [&](double way) { return risen(taper.knot, std::clamp(way / taper.over, 0.0, 1.0)); };
    double out = 1;
    if (taper.end == TaperEnd::old_one || taper.end == TaperEnd::both) out = std::min(out, from_end(x));
    if (taper.end == TaperEnd::new_one || taper.end == TaperEnd::both) out = std::min(out, from_end(1 - x));
    return std::clamp(out, 0.0, 1.0);
}

double place_in_run(std::size_t number, std::size_t count) {
    return count < 2 ? 1 : double(number) / double(count - 1);
}

}  // namespace bp
