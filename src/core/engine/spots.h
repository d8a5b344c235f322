// Finding and measuring sensor spots in the frames of a pile.
#pragma once

#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Measures a spot that a person points at, in pixels of the sensor. Reads a few frames down to it.
Result<SensorSpot> measure_spot(const Pile& pile, Point at, double radius_px, FrameStore& store, Job& job);

// Round shadows that all frames have at the same place of the sensor, the clearest first. In pixels of level 0.
Result<std::vector<SpotGuess>> guess_spots(const Pile& pile, FrameStore& store, Job& job);

// The guesses that are not mended.
std::vector<SpotGuess> suspected(const Pile& pile, const std::vector<SpotGuess>& guesses);

}  // namespace bp
