// The subjects of a pile: what moves against its cleared scene, with outlines in every frame.
#pragma once

#include <map>
#include <vector>

#include "base/job.h"
#include "engine/store.h"
#include "pile/part_edits.h"

namespace bp {

// As align_frames() against the pile's reference. What find_subjects() will look at is kept in the store, whose budget
// is raised for it, where aligning comes by it and the store may take as much for its work: so files are read once for
// both.
Result<std::map<int, Alignment>> align_for_subjects(const Pile& pile, Model model, FrameStore& store, Job& job);

// Of the frames that are merged, as they are aligned and evened; at least three of them. They are read once, scaled
// down to what outlines need. The subject that is largest comes first.
Result<std::vector<FoundSubject>> find_subjects(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
