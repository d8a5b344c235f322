// How much noise a merge takes away, measured on the pictures themselves.
#pragma once

#include <vector>

#include "image/profile.h"
#include "image/raster.h"

namespace bp {

// In flat places of one brightness: standard deviations of samples as they stand, in shares of white.
struct NoiseLevel {
    double brightness = 0;  // of the places, share of white as it stands
    double frame = 0, result = 0;
    int places = 0;  // blocks that were measured
};

struct Noise {
    std::vector<NoiseLevel> levels;  // from dark to bright; those with too few places are left away
    // How many times less noise there is, as a power of two, all places together; 0 without levels.
    double gain_ev = 0;
};

// The same area in one frame and in the result, of the same size and channels, at level 0. Flat are the third of the
// blocks in which the result's coarse brightness changes least, so that choosing them does not choose for little noise;
// blocks with a fine pattern that both have in common are left away, and with them all where both are the same. A
// brightness that only fine patterns have is told with what is left of them.
// Noise is told by a Laplacian that knows neither ramps nor curves (Immerkaer, "Fast noise variance estimation", 1996),
// of the second of three channels, as the median over blocks. Pure; any thread.
Noise noise_of(const Raster16& frame, const Raster16& result);

// The standard deviation of noise in the flat places of a picture, of square roots of luminance, where it is nearly the
// same from dark to bright (Immerkaer as above). 0 for a picture that is too small, or has none.
double noise_of_tones(const Raster16& picture, const LightCurve& curve);

}  // namespace bp
