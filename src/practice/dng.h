// Raw files as a camera writes them: DNG 1.4 with a Bayer mosaic. Internal to the practice camera.
#pragma once

#include <array>
#include <filesystem>

#include "base/result.h"
#include "image/raster.h"
#include "io/capture.h"

namespace bp::practice {

// The practice camera's sensor: 14 bits; a red and a blue filter that let through less than the green.
struct Sensor {
    static constexpr int black = 512;
    static constexpr int white = 16383;
    static constexpr std::array<double, 3> neutral{0.52, 1.0, 0.64};  // what a white object gives
    // Red at the top left, blue at the bottom right of every 2 x 2 pixels.
    static constexpr int colour_at(int x, int y) { return (x & 1) + (y & 1); }
};

// `mosaic`: one channel, black to white. `neutral`: what the camera takes for white.
Status write_dng(const std::filesystem::path& file, const Raster16& mosaic, const CaptureData& capture,
                 const std::array<double, 3>& neutral = Sensor::neutral);

}  // namespace bp::practice
