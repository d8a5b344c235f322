// Stars in a picture, also short trails of them, also with land below.
#pragma once

#include <vector>

#include "image/geometry.h"
#include "image/raster.h"

namespace bp {

struct Star {
    Point at;          // the middle of its trail, in pixels
    double light = 0;  // what it adds to its surroundings, in no unit: for telling bright ones from faint ones
    friend bool operator==(const Star&, const Star&) = default;
};

// The brightest spots that stand out from their surroundings, at most `most`, from the brightest on. Spots larger than
// a trail of `longest` pixels are left out: lamps, edges, the land. `brightness` has one channel, 0 to 1.
std::vector<Star> find_stars(const RasterF& brightness, std::size_t most, double longest);

}  // namespace bp
