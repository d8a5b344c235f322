// What a run of frames is likely to become.
#pragma once

#include <optional>

#include "pile/pile.h"

namespace bp {

struct OutcomeGuess {
    Outcome outcome;
    double exposure_s, step_s;  // the usual ones, from one frame's beginning to the next one's
};

// By how long the scene frames were exposed, how far apart they were taken, how many they are and how little light
// there was (ISO). Nothing where their capture data does not tell.
std::optional<OutcomeGuess> guessed_outcome(const Pile& pile);

}  // namespace bp
