// A frame at a glance: a small picture boiled down to a grid of places, so that hundreds of frames can be compared.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "frames/measures.h"
#include "image/profile.h"
#include "image/raster.h"

namespace bp {

struct Place {
    std::array<float, 3> light{};  // mean linear light of each channel, 0 to 1 (grey: three times the same)
    float tone = 0;                // mean encoded brightness, 0 to 1
    float contrast = 0;            // mean squared fine contrast of encoded brightness, the noise's own share taken off
    float doubt = 0;               // what noise may leave of that
};

struct Glance {
    Size grid;                  // places across and down, at least 1 x 1
    std::vector<Place> places;  // row by row
    double brightness = 0;      // as in FrameMeasures
    double clipped = 0;
    double noise = 0;
};

// `picture` in the working space whose curve is given; pictures that are compared must have one size. Fine contrast is
// the Laplacian after a 3 x 3 binomial; noise after Immerkaer, "Fast noise variance estimation" (1996), taken from the
// flattest quarter of the places. Pure; any thread.
Glance glance_of(const Raster16& picture, const LightCurve& curve);

// Adds what a further band of the same picture shows, as if its places followed.
void append(Glance& glance, const Glance& band);

// gain_ev, warmth_ev and sharpness of `frame` against `reference`: medians over the places, so that what moves does
// not count while it fills less than half of the picture. Contrast is held against the tone, so that more light is not
// taken for more sharpness.
void compare(const Glance& frame, const Glance& reference, FrameMeasures& out);
// The sharpness alone; nothing when too few places have texture.
std::optional<double> sharpness_beside(const Glance& frame, const Glance& reference);

// For each glance, the share of places whose light, beside that of the same places in the frames around it in time,
// differs by more than the frame as a whole does, together with all the places around: thin cloud, haze, a reflection.
// What is expected is what the frames around mostly have, or what they lead to, whichever is nearer: over hours the
// sky's own light turns with it. Small things that move do not count. Null glances are passed over.
std::vector<double> veils(const std::vector<const Glance*>& run);

}  // namespace bp
