// Capture data of raw files whose kind Exiv2 does not know, as LibRaw has it. Internal to the room.
#pragma once

#include <ctime>
#include <filesystem>
#include <optional>
#include <string>

namespace bp::io {

struct RawCapture {
    std::time_t taken = 0;  // the camera's clock, taken for local time; 0 when unknown, like the rest
    float exposure_s = 0;
    float iso = 0;
    float aperture = 0;
    float focal_mm = 0;
    std::string camera;
};
std::optional<RawCapture> raw_capture(const std::filesystem::path& file);

}  // namespace bp::io
