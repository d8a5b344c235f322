// How far the horizon of a picture leans.
#pragma once

#include <optional>

#include "base/job.h"
#include "engine/store.h"
#include "image/raster.h"
#include "pile/pile.h"

namespace bp {

constexpr double most_lean_deg = 20;

// Degrees by which the longest straight edge that runs nearly across falls to the right, at most most_lean_deg either
// way; none where no edge runs through enough of the picture. Along lines of every lean the change of tone across them
// is summed up (the Radon transform of the vertical gradient); the line that adds up to most is the horizon.
std::optional<double> lean_of(const Raster16& picture);

// Of a pile's picture as it is composed, looked at scaled down.
Result<std::optional<double>> find_lean(const Pile& pile, FrameStore& store, Job& job);

}  // namespace bp
