// Reading pictures of every kind (kinds.h): JPEG by libjpeg-turbo, raw files by LibRaw, most others by libvips.
#pragma once

#include <array>
#include <filesystem>
#include <memory>
#include <optional>
#include <span>
#include <string>

#include "base/result.h"
#include "image/profile.h"
#include "image/raster.h"
#include "io/raw_dark.h"

namespace bp {

// How much a raw file's red, green and blue are strengthened so that white is white; green is 1.
using WhiteBalance = std::array<float, 3>;

// What the header of a picture says. Upright: the orientation tag is already taken into account.
struct PictureFacts {
    Size size;
    int channels = 3;  // 1 grey, 3 RGB; an alpha channel is left out
    int bits = 8;      // 8 or 16 a sample
    // Of light in floats, which goes on above white: samples are of what is up to white, unless asked for otherwise.
    bool beyond_white = false;
    Profile profile;
    std::optional<WhiteBalance> balance;  // the camera's, of raw files
    friend bool operator==(const PictureFacts&, const PictureFacts&) = default;
};

// Reads the header only. Refuses what cannot be used, with a sentence that says why.
Result<PictureFacts> probe_picture(const std::filesystem::path& file);

// Levels up to this are decoded scaled down where the format has it; those beyond are box averages of this one.
constexpr int scaled_levels = 3;

// Rows of one picture from top to bottom, decoded as they are asked for, so that only a few rows are held, and no file
// stays open. One reader serves one thread at a time; different readers are independent.
class RowReader {
  public:
    // `level` halves the picture that many times (scaled decode where the format has it, box average elsewhere).
    // `balance` takes the place of a raw file's own, so that the frames of a run agree; others have none.
    static Result<std::unique_ptr<RowReader>> open(const std::filesystem::path& file, int level,
                                                   const std::optional<WhiteBalance>& balance = std::nullopt,
                                                   const Developing& how = {});
    // The brightness of a picture whose file keeps it apart from colour (JPEG: Y of Rec. ITU-R BT.601, one 8-bit
    // channel), which costs about half of decoding all; null for others.
    static Result<std::unique_ptr<RowReader>> open_brightness(const std::filesystem::path& file, int level);
    // Y, Cb and Cr of the same kind of file, as three 8-bit channels: brightness and what open() gives, by way of
    // kernels::colours_apart(), at once. Levels up to scaled_levels; null beyond, and for files that are stored
    // otherwise.
    static Result<std::unique_ptr<RowReader>> open_apart(const std::filesystem::path& file, int level);
    virtual ~RowReader() = default;

    const PictureFacts& facts() const { return facts_; }
    Size size() const { return size_; }  // at `level`
    int bits() const { return bits_; }   // of the samples that read() gives: 8 or 16
    int channels() const { return facts_.channels; }
    std::size_t row_bytes() const {
        return std::size_t(size_.width) * std::size_t(facts_.channels) * std::size_t(bits_ / 8);
    }
    int rows_read() const { return next_; }
    // What the decoder takes from the first read() on, by measurement of its kind; the planning of memory goes by it.
    virtual std::size_t memory_bytes() const = 0;
    // True when the first read() takes in the whole picture: such readers should not be at work all at once.
    virtual bool whole() const { return false; }
    // Decodes the next rows, one to each pointer, of row_bytes() each; 16-bit samples need aligned pointers. Must not
    // go past the last row.
    virtual Status read(std::span<std::uint8_t* const> rows) = 0;
    // Passes the next rows over, which may be quicker than reading them. Must not go past the last row.
    virtual Status skip(int rows);

  protected:
    PictureFacts facts_;
    Size size_;
    int bits_ = 8;
    int next_ = 0;

  private:
    std::vector<std::uint16_t> passed_over_;  // a row, aligned for either kind of sample
};

// The whole picture at `level`, as 16-bit samples: an 8-bit value v becomes 257 v.
Result<Raster16> read_picture(const std::filesystem::path& file, int level = 0);

// Grey 8-bit pictures in memory, for masks.
Result<Raster8> decode_mask(const void* bytes, std::size_t size, const std::string& name);

}  // namespace bp
