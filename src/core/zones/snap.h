// The border between sky and land, found in a picture.
//
// Pictures hold 8-bit samples about as the eye sees them, with one or three channels. Masks have one channel and the
// same size: 255 is sky, 0 land. Pure; any thread.
#pragma once

#include "base/job.h"
#include "image/raster.h"

namespace bp {

// What a cut starts from: 255 and 0 are sure, what lies between is likely sky from 128 on, likely land below.
constexpr std::uint8_t likely_sky = 192;
constexpr std::uint8_t likely_land = 64;

// A mask that was painted roughly, sure beyond `reach` pixels (at least 1) from its border.
Raster8 belief_of(const Raster8& rough, int reach);

// Decides what is not sure by the colours on either side and by edges (Rother, Kolmogorov, Blake, "GrabCut", 2004).
// When nothing is sure of one of the sides, what is likely stands.
Raster8 cut_along_edges(const Raster8& picture, const Raster8& belief);

// Follows branches and masts: within `reach` pixels of the border of `cut`, the share of sky in every pixel as the
// picture's own detail suggests (He, Sun, Tang, "Guided image filtering", 2010). `guide` has one channel, `cut` holds
// nothing but 0 and 255. When the job is stopped, what was not come to stays as it was cut.
Raster8 refined_by(const Raster8& guide, const Raster8& cut, int reach, Job& job);

}  // namespace bp
