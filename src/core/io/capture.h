// Capture data: when and how a frame was exposed (Exiv2).
#pragma once

#include <array>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace bp {

// Where on earth, by the camera's receiver: degrees north and east, and metres above the sea.
struct Whereabouts {
    double north = 0, east = 0;
    std::optional<double> above_m;
    friend bool operator==(const Whereabouts&, const Whereabouts&) = default;
};

struct CaptureData {
    // Begin of the exposure in seconds since 1970-01-01 00:00 by the camera's own clock, with its sub-seconds.
    std::optional<double> captured;
    std::optional<double> exposure_s;
    std::optional<double> iso;
    std::optional<double> aperture;  // f-number
    std::optional<double> focal_mm;
    std::string camera, lens;
    std::string serial;  // of the camera's body
    std::optional<Whereabouts> where;
    // What a merged picture is made of, in words, and of how many frames; empty and 0 for a frame.
    std::string made_of;
    int frames = 0;
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
// An angle from 0 on as degrees, minutes and seconds.
std::array<double, 3> in_minutes(double degrees);
CaptureTime capture_time(double seconds);

// "2026-09-12T22:14:05.250"; milliseconds.
std::string time_text(double seconds);

}  // namespace bp
