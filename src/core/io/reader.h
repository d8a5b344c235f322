// Reading pictures: JPEG, PNG, TIFF (libvips).
#pragma once

#include <filesystem>
#include <memory>
#include <string>

#include "base/result.h"
#include "image/profile.h"
#include "image/raster.h"

namespace bp {

// What the header of a picture says. Upright: the orientation tag is already taken into account.
struct PictureFacts {
    Size size;
    int channels = 3;  // 1 grey, 3 RGB; an alpha channel is left out
    int bits = 8;      // 8 or 16 a sample
    Profile profile;
    friend bool operator==(const PictureFacts&, const PictureFacts&) = default;
};

// Reads the header only. Refuses what cannot be used, with a sentence that says why.
Result<PictureFacts> probe_picture(const std::filesystem::path& file);

// Rows of one picture from top to bottom, decoded as they are asked for, so that only a few rows are held. A picture
// whose orientation tag asks for a turn goes through a temporary file of libvips. One reader serves one thread at a
// time; different readers are independent.
class RowReader {
  public:
    // `level` halves the picture that many times (scaled decode where the format has it, box average elsewhere).
    static Result<std::unique_ptr<RowReader>> open(const std::filesystem::path& file, int level);
    virtual ~RowReader() = default;

    const PictureFacts& facts() const { return facts_; }
    Size size() const { return size_; }  // at `level`
    int rows_read() const { return next_; }
    // Reads the next `count` rows into `out` (width * channels samples each, 16 bit: an 8-bit value v becomes 257 v).
    // Must not go past the last row.
    virtual Status read(int count, std::uint16_t* out) = 0;

  protected:
    PictureFacts facts_;
    Size size_;
    int next_ = 0;
};

// The whole picture at `level`.
Result<Raster16> read_picture(const std::filesystem::path& file, int level = 0);

// Grey 8-bit pictures in memory, for masks.
Result<Raster8> decode_mask(const void* bytes, std::size_t size, const std::string& name);

}  // namespace bp
