// Looking for hot pixels in the frames of a pile.
#pragma once

#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// What glows at one place in all merged scene frames while the rest goes on: reads every frame once. Fails when there
// are fewer than four of them: with these it cannot be told from what stands still.
Result<HotPixels> search_hot_pixels(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
