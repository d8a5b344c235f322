#include "merge/knit.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

// Deviation of a star's light about its middle, in pixels; sharper stars are seldom seen.
constexpr double star_px = 1.1;

double normal(double x) {
    return 0.5 * std::erfc(-x / std::sqrt(2.0));
}

// Light of a trail at `off` pixels from its middle; in the middle of an endless one it is 1.
double light_at(double off, double length) {
    return normal((off + length / 2) / star_px) - normal((off - length / 2) / star_px);
}

// What is left where two trails meet whose middles are `apart`.
double left_between(double length, double apart) {
    return light_at(apart / 2, length) / light_at(0, std::max(length, 1e-3));
}

}  // namespace

int steps_between(double exposure_s, double period_s, double px_per_s) {
    constexpr double enough = 0.96;
    constexpr int most = 12;
    const double length = std::max(1e-3, px_per_s * exposure_s);
    const auto even = [&](int steps) { return left_between(length, px_per_s * period_s / (steps + 1)) >= enough; };
    int out = 0;
    while (out < most && !even(out)) ++out;
    return out;
}

}  // namespace bp
