// Where the border between two pictures is seen least.
#pragma once

#include "image/raster.h"

namespace bp {

// What is known of a pixel before a seam is looked for.
enum class Side : std::uint8_t { below, open, over };

// The pixels about the border of a mask, of which half and more is kept, as open: up to `half` pixels to either side.
// Of what is narrow a core stays. Where the picture above is not `covered` it cannot show. All of one channel and size.
Raster8 open_about(const Raster8& mask, double half, const Raster8& covered);

// Gives every open pixel to the picture above or to the one below, so that the sum along the border between them is the
// least there is: of what neighbours on either side of it have in `apart` together, diagonal ones at less, so that a
// border costs about the same whichever way it runs. By a minimum cut (Boykov and Kolmogorov, "An experimental
// comparison of min-cut/max-flow algorithms for energy minimization in vision", 2004; seams as in Kwatra et al.,
// "Graphcut textures", 2003). `apart` is how far the two differ, 0 and more; `sides` has a Side a pixel. The result is
// 255 where the picture above shows, 0 elsewhere. Pure; any thread.
Raster8 least_seam(const RasterF& apart, const Raster8& sides);

// Of neighbours beside and below one another, and of diagonal ones.
inline constexpr float straight_seam = 1, diagonal_seam = 0.70710678F;

}  // namespace bp
