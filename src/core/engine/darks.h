// The dark frames of a pile, made ready to be subtracted.
#pragma once

#include "engine/store.h"
#include "pile/pile.h"

namespace bp {

// The mean of dark frames, in linear light, at a level: a picture in the working profile. Read once and kept in the
// store.
Result<SharedRaster> mean_dark(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store, Job& job);

// The same of raw files, as their sensor gives it.
Result<Developing> raw_dark_for(const Pile& pile, const DarkChoice& choice, FrameStore& store);

// True when the frame's darks are subtracted from its mosaic.
bool dark_of_mosaic(const Frame& frame);

}  // namespace bp
