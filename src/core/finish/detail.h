// Detail: sharpening, local contrast, noise.
#pragma once

#include <array>
#include <memory>

#include "finish/sheet.h"

namespace bp {

// Zero everywhere changes nothing. Lengths in pixels of level 0.
struct Detail {
    double sharpen = 0;        // hundredths of what a Gaussian takes away, given back
    double sharpen_px = 0.8;   // its standard deviation
    double halo = 30;          // how far beyond its neighbours a pixel may go, in thousandths of white
    double flat = 20;          // differences below so many thousandths are hardly sharpened
    double local = 0;          // contrast against the surroundings, hundredths
    double local_px = 12;      // how far they reach, as a standard deviation
    double wide = 0;           // contrast against wide surroundings, a twentieth of the picture, hundredths
    double smooth = 0;         // noise of brightness taken away, hundredths
    double smooth_colour = 0;  // the same of colour
    double stars = 0;          // stars smaller below 0, larger above, hundredths
    friend bool operator==(const Detail&, const Detail&) = default;
};

// Each is null where it would do nothing at this level. Tones are square roots of light.
std::shared_ptr<const FinishTool> sharpen_tool(const Detail& detail, const std::array<double, 3>& luminance, int level);
std::shared_ptr<const FinishTool> local_tool(const Detail& detail, const std::array<double, 3>& luminance, int level);
// `noise`: the standard deviation of a pixel's noise, of tones at level 0.
std::shared_ptr<const FinishTool> smooth_tool(const Detail& detail, double noise,
                                              const std::array<double, 3>& luminance, int level);

}  // namespace bp
