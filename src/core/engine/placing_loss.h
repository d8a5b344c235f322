// What placing the frames took from the picture's finest detail.
#pragma once

#include <vector>

#include "pile/pile.h"

namespace bp {

// The parts of a pixel, 0 to 1, at which the merged frames were resampled, across and down: as often as they count.
// Empty where the mode does not take the mean of frames or their middle, or the picture has zones.
struct PlacedParts {
    std::vector<double> across, down;
};
PlacedParts placed_parts(const Pile& pile);

}  // namespace bp
