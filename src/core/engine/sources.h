// Frames that are gone through in step, each opened once however often it is taken.
#pragma once

#include <memory>
#include <vector>

#include "base/job.h"
#include "engine/frame_stages.h"
#include "engine/store.h"

namespace bp {

// A frame before it is gone through: in memory, on the scratch disk, or with an open decoder.
struct Source {
    const Frame* frame = nullptr;
    SharedPixels held;
    SharedTiles tiles;
    std::unique_ptr<OpenFrame> open;
    Developing how;
    SharedRaster dark;  // of what is no raw file; null for none
    double dark_scale = 1;
    Stages stages;  // all that is done to its samples wherever it is placed

    Size size() const { return held ? held->size() : tiles ? tiles->size() : open->size(); }
    Samples samples() const;
};

// Opens the usable frames `ids` of the pile at a level, each in the way that suits all of them. The job counts them.
Result<std::vector<Source>> open_sources(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store,
                                         FrameStages& stages, Job& job);

// Puts frames where they are quickly read again, as far as there is room; they are not wanted now. The job counts them.
Status bring_frames(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store, Job& job);
// How many of them would have to be decoded. Raw files with darks of their own count as away.
std::size_t frames_away(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store);

// Puts those of the sources that cannot come row by row into scratch: `heavy` of them, which are open. As many at a
// time as the budget allows.
Status into_scratch(const std::vector<Source*>& heavy, int level, FrameStore& store, Job& job);

}  // namespace bp
