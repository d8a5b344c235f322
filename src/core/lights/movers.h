// Lights that go ways of their own (boats, lamps, fireflies): which trace of one frame goes on in the next.
#pragma once

#include <span>
#include <vector>

#include "lights/traces.h"

namespace bp {

// The thin traces of a frame, in the order of time.
struct FrameTraces {
    double begin_s = 0, exposure_s = 0;
    std::vector<Trace> traces;
};

// A light that leaves a trace in one frame and goes on with another in the frame after it.
struct Mover {
    std::size_t before = 0;  // by its place in the run; the other is the next
    Point px_per_s;          // over the pause
    double across_px = 1;    // deviation of its light about its way
    std::vector<Point> end;  // pixels of the trace before that lie nearest to the pause
};

// A light goes on where the end of a trace leads to the beginning of one in the next frame: in its direction, as far as
// it would come in the pause at the speed that its length tells, as bright, and neither fits another better. It must do
// so through three frames, straight on and no faster, for two flashes that lie in a line are not one light. Pauses as
// long as the exposure and longer tell nothing. Pure; any thread.
std::vector<Mover> movers_in(std::span<const FrameTraces> run);

}  // namespace bp
