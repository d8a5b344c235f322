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

// How many stops above white the light of a frame of such gains goes on before the look makes all of it white: 0 where
// white is white, at most 6. Of a grey picture the gain of green counts.
int stops_beyond_white(const Look& look, const std::array<double, 3>& gains, const std::array<double, 3>& luminance,
                       int channels);

// The look with the warmth and the green to magenta that make grey of this light, as far as they go. `light`: of red,
// green and blue before the look; black stays as it is.
Look neutral_for(const Look& look, const std::array<double, 3>& light);

// How much of a picture has each tone (the power 1/2.2 of its luminance): shares from black to white, of the most
// common one.
std::vector<float> tone_shares(const Raster16& picture, const LightCurve& curve);

// How bright an area of a picture is, by channel and together.
struct ToneCounts {
    // Shares as tone_shares() gives them: of the luminance, then of red, green and blue; of a grey picture the first
    // alone.
    std::vector<std::vector<float>> shares;
    // Of the pixels, in the order of the channels.
    std::vector<double> black, white;
};
// `area`: in pixels of the picture. Looks at no more than some hundred thousand pixels, evenly spread.
ToneCounts tone_counts(const Raster16& picture, const Rect& area, const LightCurve& curve,
                       const std::array<double, 3>& luminance);

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
