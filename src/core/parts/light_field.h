// Light that changes smoothly from place to place.
#pragma once

#include <cstdint>

#include "image/profile.h"
#include "image/raster.h"

namespace bp {

// Factors of light, by channel, for squares of `unit` pixels of level 0, the first of which begins at (left, top);
// between their middles they go on straight, beyond them as at the border. Light counts from a little below black on,
// so that what is nearly black is told by no more than its noise.
struct LightField {
    int left = 0, top = 0;
    int unit = 1;
    RasterF factors;

    static constexpr double below_black = 1.0 / 512;  // of white
    std::size_t bytes() const { return sizeof *this + factors.bytes(); }
};

// Changes the light of a row of 16-bit samples that begins at pixel (left, y) of `level`. Pure; any thread.
void change_light(std::uint16_t* row, const LightField& by, int level, int y, int left, std::size_t pixels,
                  int channels, const LightCurve& curve);

}  // namespace bp
