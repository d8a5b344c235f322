// Frames made into a pile like another: what its settings ask for is aligned, measured and looked for.
#pragma once

#include "base/job.h"
#include "pile/like.h"

namespace bp {

// `like.pile` aligned and levelled, with its hot pixels and streaks, in at most `memory_bytes`.
Result<Pile> made_like(const Like& like, std::size_t memory_bytes, Job& job);

}  // namespace bp
