// Which area the frames of a pile share.
#pragma once

#include <optional>

#include "image/raster.h"
#include "pile/pile.h"

namespace bp {

// The largest upright rectangle, in canvas pixels of level 0, that every merged frame reaches. Empty when there is
// none.
Rect full_cover(const Pile& pile);

// How many of the frames that could reach a pixel do, as shares of the 16-bit range: one channel, pixels of `level`. In
// zones, of that zone's frames; in the border between, as the zones are mixed.
Raster16 cover_shares(const Pile& pile, const Rect& region, int level);

// Around where all merged frames of a zone that reach are left out, in canvas pixels of level 0, looked at with the
// canvas scaled down; none where somebody votes everywhere.
std::optional<Rect> unvoted_area(const Pile& pile, Zone zone);

// What is shown and exported, of the turned picture (turning.h): the crop that a person set, the full cover, or the
// whole canvas when the pile says so (or nothing is shared); of the latter what stays inside when it is turned.
Rect output_area(const Pile& pile);
// What of the canvas that is made from.
Rect seen_area(const Pile& pile);

}  // namespace bp
