// Writing pictures row by row: TIFF (libtiff), PNG, JPEG, WebP, JPEG XL (libvips) and OpenEXR.
#pragma once

#include <filesystem>
#include <functional>
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

enum class Format { tiff, png, jpeg, webp, jxl, exr };

struct FormatEntry {
    Format format;
    std::string_view ending;  // with the dot, lower case
    int least_bits, most_bits;
    int longest_side;  // pixels that the format can tell
};

std::span<const FormatEntry> formats();
// By the ending of the name, in any case.
std::optional<FormatEntry> format_of(const std::filesystem::path& file);

// The ending that a pile has for a format.
std::string standard_ending(Format format);

struct WriteOptions {
    int bits = 16;     // 8, 16 or, for OpenEXR, 32; a format takes the nearest that it has. Floats from 16 in OpenEXR
    int quality = 92;  // 1 to 100, for JPEG, WebP and JPEG XL, where 100 loses nothing
    Sync sync = Sync::yes;
};

// What stands in a picture's file besides its samples.
struct PictureHead {
    Size size;
    int channels = 3;  // 1 or 3; in layers (layered_writer.h) one more
    Profile profile;
    CaptureData capture;
    double dpi = 0;  // pixels on an inch of paper; 0: nothing is said of that
};

// Rows of a picture on their way to a file, so that only a few are in memory. One call at a time.
class RowWriter {
  public:
    virtual ~RowWriter() = default;
    // The next rows, of 16-bit samples. For a file of 8 bits they become 8-bit ones by division by 257, rounded to
    // nearest; in OpenEXR linear light, 1 being white.
    virtual Status write(std::span<const std::uint16_t* const> rows) = 0;
    // After the last row: the file is complete when this is well.
    virtual Status finish() = 0;
};

// Writes a picture through a neighbouring file (write_whole): `fill` is given a writer and must give it all rows.
// Failures of `fill` that are no failures to write come back as they are.
Status write_picture(const std::filesystem::path& file, const PictureHead& head, const WriteOptions& options,
                     const std::function<Status(RowWriter&)>& fill);
Status write_picture(const std::filesystem::path& file, const Raster16& picture, const Profile& profile,
                     const WriteOptions& options, const CaptureData& capture);

// A grey 8-bit mask as the bytes of a PNG file.
Result<std::vector<std::uint8_t>> encode_mask(const Raster8& mask);

}  // namespace bp
