// What can be measured of single frames.
#pragma once

#include <optional>
#include <vector>

#include "base/job.h"
#include "pile/pile.h"

namespace bp {

struct FrameMeasures {
    std::optional<double> gap_s;       // from the end of the frame before to the begin of this one
    std::optional<double> brightness;  // mean linear light, 0 to 1; absent for a frame that cannot be used
};

// One entry a frame, in the pile's order. Brightness is taken from a picture of at most about 400 pixels a side. A
// frame that turns out broken gets its problem in `pile`.
Result<std::vector<FrameMeasures>> measure_frames(Pile& pile, Job& job);

// Gaps alone need no pixels.
std::vector<std::optional<double>> gaps_of(const Pile& pile);

}  // namespace bp
