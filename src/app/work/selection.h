// Which frames of the pile a person works on.
#pragma once

#include <vector>

#include "pile/pile.h"

namespace bp::app {

// A value. All ids are of frames in the pile that it was last held to; `current` is 0 only when the pile has no frames.
struct Selection {
    int current = 0;       // what Frame and Difference show
    int from = 0;          // where extending begins
    std::vector<int> ids;  // what edits of frames work on
    friend bool operator==(const Selection&, const Selection&) = default;
};

Selection only(int id);
// Everything from where extending begins to this frame.
Selection extended(const Selection& before, const Pile& pile, int id);
// With this frame if it was not selected, without it if it was; one stays always.
Selection toggled(const Selection& before, int id);
// What of a selection is in `now`, a pile that came after `before`. When its current frame is gone, the next of the run
// that is still there takes its place.
Selection held_to(const Selection& selection, const Pile& before, const Pile& now);

}  // namespace bp::app
