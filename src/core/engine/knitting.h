// The breaks in trails of a pile, and from what they are closed.
#pragma once

#include <memory>
#include <vector>

#include "engine/moving_lights.h"

namespace bp {

// A moment between two exposures, as both have it: the light of the one before moved on to there, that of the one after
// moved back.
struct KnitStep {
    Placement before, after;
    std::shared_ptr<const RunMask> where;  // lights pass there; pixels of level 1 of the canvas
};

// A pause that is closed.
struct Seam {
    int before = 0, after = 0;  // frames
    double pause_s = 0;
    std::vector<KnitStep> steps;
};

struct Knitting {
    std::vector<Seam> seams;
    std::size_t bytes() const;
};

// The pauses between the frames that a pile merges in its sky which it asks to be closed; none for a mode in which
// trails do not grow, or when the frames are moved. Frames that do not fit the sky's motion are as if they were not
// there.
Knitting knitting_of(const Pile& pile, const MovingLights& lights);

// The same with what it takes; null for a pile that asks for nothing.
Result<std::shared_ptr<const Knitting>> knitting_for(const Pile& pile, FrameStore& store, Job& job);

// The pauses between the frames that are merged in the sky, by the limit that the pile sets, whatever its lights do.
struct Pause {
    int before = 0, after = 0;  // frames
    double length_s = 0;
    bool closed = false;
};
std::vector<Pause> pauses_of(const Pile& pile);

// True when the pile asks for breaks to be closed and its way of merging lets it.
bool knits(const Pile& pile);

}  // namespace bp
