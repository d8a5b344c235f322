// Finding files anew that a pile has lost.
#pragma once

#include <filesystem>
#include <map>

#include "base/job.h"
#include "pile/pile.h"

namespace bp {

struct Relinked {
    std::map<int, SharedFrameFile> files;  // by frame id
    int still_missing = 0;
};

// Looks in `folder` for the files of all frames that have a problem: first by content, then, for a file of the same
// name and of the canvas's size, by the person's word that this is the one.
Result<Relinked> relink(const Pile& pile, const std::filesystem::path& folder, Job& job);
// The changed files as they are now, on the person's word.
Result<Relinked> take_changed(const Pile& pile, Job& job);
// Gives the files to those of the frames that still have a problem.
Pile with_files(Pile pile, const std::map<int, SharedFrameFile>& files);

}  // namespace bp
