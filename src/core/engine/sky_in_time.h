// Lights of the sky at other times: where the sky has turned to. Internal to the engine's moving lights and knitting.
#pragma once

#include <map>
#include <memory>
#include <mutex>

#include "align/sky_motion.h"
#include "image/run_mask.h"
#include "kernels/source_map.h"

namespace bp {

// A turning sky in pixels of one level. All members may be called from any thread.
class SkyInTime {
  public:
    SkyInTime(const SkyMotion& sky, Size size, int level) : sky_(sky), size_(size), level_(level) {}

    // From where lights are to where they are so much later, a hundredth of a second more or less: pauses of a run are
    // alike, and no light comes far in that.
    std::shared_ptr<const kernels::SourceMap> later(double seconds);

  private:
    SkyMotion sky_;
    Size size_;
    int level_;
    std::mutex mutex_;
    std::map<long, std::shared_ptr<const kernels::SourceMap>> known_;  // by hundredths of a second
};

// Lights of one frame as they are expected from another.
class LightsInTime {
  public:
    // `there` leads from the other to this one; a pixel around the lights counts, too, and is in `lights`.
    LightsInTime(std::shared_ptr<const kernels::SourceMap> there, std::shared_ptr<const RunMask> lights)
        : there_(std::move(there)), lights_(std::move(lights)) {}
    // Whether it has the light that the other has at a pixel.
    bool have(int x, int y) const { return look(x, y) == Sight::light; }
    enum class Sight { beyond, dark, light };  // beyond its picture, in it, and a light there
    Sight look(int x, int y) const;

  private:
    std::shared_ptr<const kernels::SourceMap> there_;
    std::shared_ptr<const RunMask> lights_;
};

}  // namespace bp
