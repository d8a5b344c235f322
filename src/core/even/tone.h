// The tone of a look: from linear light to samples.
#pragma once

#include <array>
#include <vector>

#include "even/look.h"
#include "image/profile.h"
#include "image/raster.h"

namespace bp {

// Linear light, 0 to 1 and beyond, after the knots of the ribbon and contrast. Rises everywhere between floor and peak,
// and falls nowhere: it is one rising curve of tone after the other.
double toned(const Look& look, double light);
// The same in tones: the power 1/2.2 of light.
double tone_curve(const Look& look, double tone);

// Gains of red, green and blue for the look's exposure, warmth and green to magenta; grey keeps its luminance.
std::array<double, 3> gains_of(const Look& look, const std::array<double, 3>& luminance);

// How much of a picture has each tone (the power 1/2.2 of its luminance): shares from black to white, of the most
// common one.
std::vector<float> tone_shares(const Raster16& picture, const LightCurve& curve);

// toned() and the profile's encoding as a table over the square root of light, which has its fine steps where samples
// have theirs (kernels/develop.h): right within a hundredth of a 16-bit sample. Light beyond four times white counts as
// that.
class ToneTable {
  public:
    ToneTable(const Look& look, const LightCurve& curve);
    const float* data() const { return samples_.data(); }
    // The 16-bit sample, rounded, of light from 0 up.
    std::uint16_t sample(float light) const;

  private:
    std::vector<float> samples_;
};

}  // namespace bp
