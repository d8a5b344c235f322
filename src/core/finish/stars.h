// Stars made smaller or larger.
#pragma once

#include <array>
#include <memory>

#include "finish/sheet.h"

namespace bp {

// What is smaller than about nine pixels of level 0 and brighter than all around it (the top of an opening: Serra,
// "Image Analysis and Mathematical Morphology", 1982) becomes steeper, or less so, about its brightest place, which
// stays as bright. `amount`: -1 to 1, below 0 smaller. Null where it would do nothing.
std::shared_ptr<const FinishTool> stars_tool(double amount, const std::array<double, 3>& luminance, int level);

}  // namespace bp
