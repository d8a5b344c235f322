// A free curve from tone to tone.
#pragma once

#include <vector>

#include "image/geometry.h"

namespace bp {

// Through points (tone before, tone after), both 0 to 1, from left to right; a tone is the power 1/2.2 of light. No
// points: nothing changes. It begins at (0, 0) and ends at (1, 1) unless a point lies there.
struct Curve {
    std::vector<Point> points;
    static constexpr std::size_t most_points = 16;
    // Between two points, from left to right, and from either end.
    static constexpr double nearest = 0.01;
    friend bool operator==(const Curve&, const Curve&) = default;
};

// Of brightness, that all channels go through, and of each channel after it.
struct Curves {
    Curve brightness, red, green, blue;
    friend bool operator==(const Curves&, const Curves&) = default;
};

// Smooth, and falling nowhere where its points do not fall: cubics between points whose slopes are held back (Fritsch
// and Carlson, Monotone piecewise cubic interpolation, 1980). Beyond white the tone goes on as much above it.
double curve_at(const Curve& curve, double tone);
// In order, apart from each other, not falling, within 0 and 1, and not too many of them.
Curve tidied(Curve curve);

}  // namespace bp
