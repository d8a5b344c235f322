// Sensor spots: dust on the sensor, which throws the same shadow in every frame.
#pragma once

#include <memory>
#include <vector>

#include "base/shared.h"
#include "image/placement.h"
#include "image/raster.h"

namespace bp {

// How much light a spot lets through, on the pixels of the sensor from `corner` on: 65535 all of it. One channel.
struct SensorSpot {
    Point at;  // its middle, pixels of level 0
    double radius_px = 0;
    Rect area;
    std::shared_ptr<const Raster16> passes;
    friend bool operator==(const SensorSpot& a, const SensorSpot& b);
};
using SharedSpots = Shared<std::vector<SensorSpot>>;

constexpr double smallest_spot_px = 2;
constexpr double largest_spot_px = 400;

// What of a sensor must be looked at to measure a spot: the spot, and a ring around it wide enough to tell how light it
// would be there. Level 0, not cut to the picture.
Rect around_spot(Point at, double radius_px);

// A frame that a spot is measured in.
struct SpotView {
    RasterF light;    // linear, one channel, of an area that all views share
    Placement place;  // from its pixels to where the scene is the same in all views; level 0
};

// Measures a spot from frames in sensor place; `area` is what their light is of, around_spot() at least. How light a
// frame should be at a place is told by the others that show it beside the spot, when these are enough, else by a plane
// through the ring around the spot; frames whose ring is even count most, and the median over frames decides. A single
// frame, or frames that stand still, are mended from their surroundings.
SensorSpot measured_spot(Point at, double radius_px, const std::vector<SpotView>& views, const Rect& area);

// The same spot in pictures of `level`.
SensorSpot at_level(const SensorSpot& spot, int level);

struct SpotGuess {
    Point at;
    double radius_px = 0;
    double depth = 0;      // share of the light that its middle holds back
    double clearness = 0;  // how much darker it is than its surroundings are uneven
    friend bool operator==(const SpotGuess&, const SpotGuess&) = default;
};
// Which spots are looked for: radii in pixels of the picture that is searched, and how many times the unrest of their
// surroundings they are dark at least.
struct SpotSearch {
    double smallest_px = 2;
    double largest_px = 24;
    double least_clearness = 6;
};
// Round places that are darker than what is around them on all sides. `common`: what frames have in common in sensor
// place, light beside light, so that nothing is 1. The clearest first.
std::vector<SpotGuess> guess_spots(const RasterF& common, const SpotSearch& wanted);

// The light of every pixel over the mean of a square around it, `side` pixels wide.
RasterF light_beside(const RasterF& light, int side);

}  // namespace bp
