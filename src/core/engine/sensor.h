// What a sensor adds and takes, undone before a frame is placed: darks subtracted, the shadows of spots lifted.
#pragma once

#include <memory>
#include <vector>

#include "engine/source.h"
#include "even/spots.h"
#include "even/tone.h"
#include "kernels/correct.h"
#include "kernels/source_map.h"

namespace bp {

// The tables that the work goes by; shared by all frames.
class SensorTables {
  public:
    SensorTables(const Profile& profile, int channels);
    kernels::LightTables tables() const { return {light_.data(), tone_.data()}; }

  private:
    std::vector<float> light_;
    ToneTable tone_;
};

// For one frame at one level. A value; copies share what they hold.
struct SensorWork {
    std::shared_ptr<const SensorTables> tables;
    SharedRaster dark;  // in the working profile, of the frame's size; null for none
    double dark_scale = 1;
    SharedSpots spots;  // of the level; null for none

    bool any() const { return dark || spots; }
};

// Pixels [left, left + pixels) of row y of the frame, in 16 bits.
template <class T>
void sensor_row(const SensorWork& work, int y, int left, int pixels, int channels, const T* in, std::uint16_t* out);

// The rows of a frame with that done to them, in 16 bits; only in the columns asked for.
std::unique_ptr<FrameRows> sensor_rows(std::unique_ptr<FrameRows> rows, SensorWork work, int channels,
                                       kernels::Span columns, int height);

}  // namespace bp
