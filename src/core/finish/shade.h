// Edges of the picture darkened or lightened.
#pragma once

#include <memory>

#include "finish/sheet.h"

namespace bp {

// Light times 2 to the power of `stops` in the corners, falling smoothly to nothing, in a shape that follows the crop.
struct EdgeShade {
    double stops = 0;    // below 0 darker
    double from = 30;    // where it begins, in hundredths of the way from the middle to a corner
    double round = 100;  // 100: an ellipse; 0: nearly the crop's rectangle
    friend bool operator==(const EdgeShade&, const EdgeShade&) = default;
};

// How much of it there is at a place of a crop, 0 to 1: x and y -1 to 1 from border to border.
double shade_at(const EdgeShade& shade, double x, double y);
// `crop`: of the picture that the canvas becomes by `turn`, in pixels of level 0; seen at `level`.
std::shared_ptr<const FinishTool> shade_tool(const EdgeShade& shade, const Rect& crop, const Matrix& turn, int level);

}  // namespace bp
