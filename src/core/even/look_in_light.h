// A look done to light itself, beyond white and without rounding: for pictures on their way through finishing.
#pragma once

#include <array>
#include <vector>

#include "even/look.h"
#include "image/profile.h"

namespace bp {

// May be used from several threads at once.
class LookInLight {
  public:
    LookInLight(const Look& look, const Profile& profile, int channels);
    // In place: 32-bit floats, 1 being white, of as many channels.
    void run(float* light, std::size_t pixels) const;

  private:
    Look look_;
    int channels_;
    std::array<float, 3> gains_{1, 1, 1}, luminance_{};
    std::vector<float> roots_;  // as kernels::light_by() reads them; none: tones stay as they are
};

}  // namespace bp
