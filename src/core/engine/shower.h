// A shower: the meteors of all frames as parts over one frame.
#pragma once

#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/part_edits.h"

namespace bp {

// Every meteor among the streaks of the pile's frames, as the pile is aligned, but for those of the frame that is the
// base: a narrow soft mask along it, cut off where the sky ends, joined where it is lighter once the frame's own sky is
// taken off. The pile should be aligned by its stars. What was found before is not looked for again.
Result<std::vector<Part>> find_shower(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
