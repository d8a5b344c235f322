// Finding files anew that a pile has lost.
#pragma once

#include <filesystem>

#include "base/job.h"
#include "pile/pile.h"

namespace bp {

struct Relinked {
    Pile pile;
    int found = 0;
    int still_missing = 0;
};

// Looks in `folder` for the files of all frames that have a problem: first by content, then, for a file of the same
// name and of the canvas's size, by the person's word that this is the one.
Result<Relinked> relink(const Pile& pile, const std::filesystem::path& folder, Job& job);

}  // namespace bp
