// The colour of the canvas where nothing lies, as a person picks it on a screen.
#pragma once

#include <array>

#include "pile/pile.h"

namespace bp {

// Shares of sRGB, 0 to 1, encoded, from and to those of the pile's profile (Profile's relative colorimetric way). A
// pile of one channel has greys alone.
std::array<double, 3> background_in_srgb(const Pile& pile);
Pile with_background_of_srgb(Pile pile, const std::array<double, 3>& colour);

}  // namespace bp
