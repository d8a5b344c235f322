// How much noise a merge is known to leave: that of one of its frames, measured, and what its mode makes of it.
#pragma once

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Of a pixel of the merged picture at level 0, as a standard deviation of square roots of luminance.
Result<double> noise_known(const Pile& pile, FrameStore& store, Job& job);

// What is left of the noise of one frame when so many are merged: 1 / sqrt(n) for a mean, more for others.
double noise_left(Mode mode, std::size_t frames);

}  // namespace bp
