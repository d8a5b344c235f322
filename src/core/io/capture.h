// Capture data: when and how a frame was exposed (Exiv2).
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

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

// The data as the bytes of an Exif segment, with its heading.
std::vector<std::uint8_t> encode_capture(const CaptureData& data);

// A moment as Exif writes it: "2026:09:12 22:14:05" and "250" milliseconds.
struct CaptureTime {
    std::string date;
    std::string fraction;
};
CaptureTime capture_time(double seconds);

// "2026-09-12T22:14:05.250"; milliseconds.
std::string time_text(double seconds);

}  // namespace bp
