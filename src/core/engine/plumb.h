// A point of the picture seen through all frames of the pile.
#pragma once

#include <array>
#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// What one frame has there.
struct PlumbFrame {
    int frame = 0;       // its id
    bool there = false;  // it reaches the point
    bool votes = false;  // and is not left out there
    double strength = 1;
    std::array<std::uint16_t, 3> samples{};  // as it is merged, before its strength; the first alone in a grey pile
    Raster16 patch;                          // what is around the point, black where the frame does not reach
};

struct Plumb {
    Zone zone = Zone::sky;           // that the point belongs to, for the greater part
    std::vector<PlumbFrame> frames;  // all that are merged in the zone, in the order of the run
    std::array<std::uint16_t, 3> result{};
    // The frame that shows there, and for a median of an even number the other one, mostly the same; 0 where the
    // picture comes from all together or no frame reaches.
    int first = 0, second = 0;
};

// Pixel (x, y) of the canvas at `level`, with patches of `reach` pixels of that level to every side. Fails as render()
// does.
Result<Plumb> plumb_at(const Pile& pile, FrameStore& store, int x, int y, int level, int reach, Job& job);

}  // namespace bp
