// Contrast against wide surroundings.
#pragma once

#include <memory>

#include "finish/sheet.h"
#include "image/raster.h"

namespace bp {

// How bright the wide surroundings of every place are: tones, in a small picture of all of the canvas.
struct WideTones {
    Size size;
    std::vector<float> tones;
    std::size_t bytes() const { return tones.size() * sizeof(float); }
};
// Of a small picture of light, by a Gaussian of a twentieth of its longer side. Beyond its border that goes on. Pure.
WideTones wide_tones(const Sheet& canvas, const std::array<double, 3>& luminance);

// `amount`: -1 to 1. `canvas`: in pixels of the level.
std::shared_ptr<const FinishTool> wide_tool(double amount, const std::array<double, 3>& luminance,
                                            std::shared_ptr<const WideTones> around, const Rect& canvas);

}  // namespace bp
