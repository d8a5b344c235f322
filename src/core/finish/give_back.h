// Contrast of fine detail that resampling took, given back.
#pragma once

#include <array>
#include <memory>
#include <span>
#include <vector>

#include "finish/sheet.h"

namespace bp {

// The share of contrast at a frequency (cycles a pixel, along one axis) that is left in the mean of frames that were
// resampled, each at a part of a pixel, 0 to 1. At 0 a frame lies on its pixels, and nothing is lost.
double contrast_left(std::span<const double> parts, double frequency);

// The filter along one axis that gives it back: all of it up to the frequency, less and less beyond. Symmetric; its
// weights add up to one. Least squares over the frequencies.
inline constexpr double given_back_to = 0.43;
inline constexpr int give_back_reach = 7;
std::array<float, 2 * give_back_reach + 1> giving_back(std::span<const double> parts);

// Across and down, each by the parts of its frames. Null where nothing was lost.
std::shared_ptr<const FinishTool> give_back_tool(std::span<const double> across, std::span<const double> down);

}  // namespace bp
