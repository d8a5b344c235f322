// How the strength of frames changes over a run, so that trails fade.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string_view>

#include "image/geometry.h"

namespace bp {

// The ends at which trails fade.
enum class TaperEnd { none, old_one, new_one, both };

struct Taper {
    static constexpr double shortest = 0.01;
    static constexpr double nearest_knot = 0.02;  // to the sides of the curve's square

    TaperEnd end = TaperEnd::none;
    double over = 0.4;  // the share of the run over which strength rises from nothing to all, shortest to 1
    // The curve by which it rises goes through this point of a square from (0, 0) to (1, 1), nearest_knot inside it.
    // On the diagonal it is a straight line.
    Point knot{0.5, 0.5};
    friend bool operator==(const Taper&, const Taper&) = default;
};

struct TaperEndEntry {
    TaperEnd end;
    std::string_view name;  // on the command line and in pile files
};
std::span<const TaperEndEntry> taper_ends();
std::optional<TaperEnd> taper_end_named(std::string_view name);

// The strength that is left of a frame at `x` of the run, 0 for the oldest to 1 for the newest: 0 to 1. Never falls as
// x goes away from an end that fades (Fritsch and Carlson, "Monotone piecewise cubic interpolation", 1980).
double strength_at(const Taper& taper, double x);

// Where frame `number` of `count` in the order of the run lies: a single one at the new end.
double place_in_run(std::size_t number, std::size_t count);

}  // namespace bp
