// Writing pictures: 16-bit TIFF and PNG, 8-bit of all, JPEG (libvips).
#pragma once

#include <filesystem>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

#include "base/files.h"
#include "base/result.h"
#include "image/profile.h"
#include "image/raster.h"
#include "io/capture.h"

namespace bp {

enum class Format { tiff, png, jpeg };

struct FormatEntry {
    Format format;
    std::string_view ending;  // with the dot, lower case
    int most_bits;
};

std::span<const FormatEntry> formats();
// By the ending of the name, in any case.
std::optional<FormatEntry> format_of(const std::filesystem::path& file);

struct WriteOptions {
    int bits = 16;     // 8 or 16; a format that has only 8 takes 8
    int quality = 92;  // 1 to 100, JPEG only
    Sync sync = Sync::yes;
};

// Writes through a neighbouring file (write_whole), with the profile's bytes and the capture data. 16-bit samples
// become 8-bit ones by division by 257, rounded to nearest.
Status write_picture(const std::filesystem::path& file, const Raster16& picture, const Profile& profile,
                     const WriteOptions& options, const CaptureData& capture);

// A grey 8-bit mask as the bytes of a PNG file.
Result<std::vector<std::uint8_t>> encode_mask(const Raster8& mask);

}  // namespace bp
