// What a camera's sensor gives in the dark, to be subtracted from raw files before they are developed.
#pragma once

#include <filesystem>
#include <memory>
#include <vector>

#include "base/fingerprint.h"
#include "base/result.h"
#include "image/geometry.h"

namespace bp {

// The mean of dark raw files, in steps of the sensor above its black, one value for each of its pixels.
struct RawDark {
    Size size;  // of the sensor, borders included
    std::vector<float> above_black;
    Fingerprint values{};  // of `above_black`
    std::size_t bytes() const { return above_black.size() * sizeof(float); }
};
Result<std::shared_ptr<const RawDark>> mean_raw_dark(const std::vector<std::filesystem::path>& files);

// How the samples of a file are made, where it leaves that open.
struct Developing {
    std::shared_ptr<const RawDark> dark;  // subtracted `scale` times from the mosaic of a raw file; null for none
    double scale = 1;
    // Of light in floats: it is halved so many times, and what was up to 2 to this power times white is kept.
    int stops = 0;
};

}  // namespace bp
