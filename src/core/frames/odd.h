// Which frames of a run are odd, and why.
#pragma once

#include <vector>

#include "frames/measures.h"

namespace bp {

enum class Oddity {
    moved,     // amount: px away from the frames around it
    moved_on,  // px; the frames from here on stay there
    turned,    // degrees away from the frames around it
    soft,      // fine contrast beside the frames around it, below 1
    veiled,    // share of the picture under thin cloud, 0 to 1: of night skies alone
    changed,   // share of the picture whose light changed, 0 to 1
    brighter,  // EV
    darker,    // EV, above 0
    warmer,    // EV of red over blue
    cooler,    // EV of blue over red
    late,      // seconds beyond the usual pause
};

struct Mark {
    Oddity why;
    double amount;
    friend bool operator==(const Mark&, const Mark&) = default;
};

// One list a frame of the run, in its order, the weightiest reason first; empty for frames like the others. A frame is
// held against what the frames before it, and those after it, lead to expect, whichever is nearer: a drift is not odd,
// nor is a run that is restless throughout. Runs of fewer than four frames have no odd ones. `picture`: their size.
enum class Scene { day, night };
std::vector<std::vector<Mark>> odd_ones(const std::vector<FrameMeasures>& run, Size picture, Scene scene);

}  // namespace bp
