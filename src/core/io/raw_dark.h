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

// `scale` times a dark, or nothing.
struct RawDarkUse {
    std::shared_ptr<const RawDark> dark;
    double scale = 1;
};

}  // namespace bp
