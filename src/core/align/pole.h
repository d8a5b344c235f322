// The pole of the turning sky.
#pragma once

#include <optional>
#include <span>

#include "align/align.h"

namespace bp {

// About which point of the reference, as seen, frames under a lens turn: taken from the one that turned farthest. None
// when none has a lens and turned by a tenth of a degree, or when the pole lies behind the camera.
std::optional<Point> pole_of(std::span<const Alignment> frames);

}  // namespace bp
