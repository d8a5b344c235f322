// The light of samples and the way back, for what works in light.
#pragma once

#include <memory>
#include <vector>

#include "even/tone.h"
#include "kernels/correct.h"

namespace bp {

// Of a profile; samples that go there and come back are the same.
class LightThere {
  public:
    LightThere(const Profile& profile, int channels);
    kernels::LightTables tables() const { return {light_.data(), tone_.data()}; }

  private:
    static constexpr std::size_t samples_of_16_bits = 65536;

    std::vector<float> light_;
    ToneTable tone_;
};

// Shared by all that ask for the same: those asked for last are kept. Any thread.
std::shared_ptr<const LightThere> light_there(const Profile& profile, int channels);

}  // namespace bp
