// Capture data: when and how a frame was exposed (Exiv2).
#pragma once

#include <filesystem>
#include <optional>
#include <string>

#include "base/result.h"

namespace bp {

struct CaptureData {
    // Begin of the exposure in seconds since 1970-01-01 00:00 by the camera's own clock, with its sub-seconds.
    std::optional<double> captured;
    std::optional<double> exposure_s;
    std::optional<double> iso;
    std::optional<double> aperture;  // f-number
    std::optional<double> focal_mm;
    std::string camera;
    friend bool operator==(const CaptureData&, const CaptureData&) = default;
};

// A file without capture data gives empty fields; that is no failure.
CaptureData read_capture(const std::filesystem::path& file);

// Adds capture data to an existing JPEG, PNG or TIFF file of our own making.
Status write_capture(const std::filesystem::path& file, const CaptureData& data);

// "2026-09-12T22:14:05.250"; milliseconds.
std::string time_text(double seconds);

}  // namespace bp
