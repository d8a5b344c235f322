// The tone of a look: from linear light to samples.
#pragma once

#include <array>
#include <vector>

#include "even/look.h"
#include "image/profile.h"

namespace bp {

// Linear light, 0 to 1 and beyond, after floor, white point, shadows, highlights and contrast. Rises everywhere above
// the floor. Shadows, highlights and contrast act on the power 1/2.2 of light, which is about as the eye sees it.
double toned(const Look& look, double light);

// Gains of red, green and blue for the look's exposure, temperature and tint; grey keeps its luminance.
std::array<double, 3> gains_of(const Look& look, const std::array<double, 3>& luminance);

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
