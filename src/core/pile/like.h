// The settings of one pile on other frames: last night's work as tonight's pattern.
#pragma once

#include <set>
#include <vector>

#include "pile/pile.h"

namespace bp {

struct Like {
    Pile pile;         // with everything that holds for any frames; nothing is aligned, measured or looked for yet
    bool hot = false;  // hot pixels are to be looked for
    std::set<StreakKind> streaks_out;  // of which kinds what is found is to be left out
    std::vector<Saying> left;          // what belongs to the pattern's own frames, and is not taken
};
// Frames that were just opened, like a pattern: outcome, model, mode, taper, head, knitting, look, levelling, finish,
// exports and what else is no frame's own. Dust on the sensor is taken where the frames have the same size.
Like like(Pile frames, const Pile& pattern);

}  // namespace bp
