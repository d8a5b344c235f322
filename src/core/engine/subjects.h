// The subjects of a pile: what moves against its cleared scene, with outlines in every frame.
#pragma once

#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/part_edits.h"

namespace bp {

// Of the frames that are merged, as they are aligned and evened; at least three of them. They are read once, scaled
// down to what outlines need. The subject that is largest comes first.
Result<std::vector<FoundSubject>> find_subjects(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
