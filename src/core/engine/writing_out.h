// What the ways of writing a pile's picture share.
#pragma once

#include <filesystem>
#include <functional>

#include "base/job.h"
#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// Writes by `write`, and when a frame turns out to be broken on the way sets it aside and begins anew without it: the
// pile as it was written, with a problem on every such frame. Never over a frame of the pile.
Result<Pile> write_without_broken(const Pile& pile, const std::filesystem::path& file,
                                  const std::function<Status(const Pile& pile)>& write);

// Takes over what another store knows of the pile: its moving lights, which are found there when they are needed, and
// the edges of its parts.
Status share_what_is_known(const Pile& pile, FrameStore& known, FrameStore& store, Job& job);

}  // namespace bp
