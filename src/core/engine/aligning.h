// Aligning all frames of a pile.
#pragma once

#include <map>

#include "base/job.h"
#include "pile/pile.h"

namespace bp {

// Every usable frame against `reference`, which gets the identity. Frames are read one a thread; pictures with a long
// side above 2400 pixels are measured at half their size or less. A frame that cannot be read counts as not aligned.
Result<std::map<int, Alignment>> align_frames(const Pile& pile, Model model, int reference, Job& job);

}  // namespace bp
