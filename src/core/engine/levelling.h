// Levelling the frames of a pile.
#pragma once

#include <map>

#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Every usable scene frame against the pile's reference, which gets gains of one, from pictures of at most 800 pixels,
// placed as the pile places them. Frames of which a person said their level, and those that cannot be compared, are not
// named.
Result<std::map<int, LightGains>> measure_gains(const Pile& pile, Levelling kind, FrameStore& store, Job& job);

}  // namespace bp
