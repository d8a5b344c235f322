// The ways to rows of a picture that RowReader::open chooses among. Internal to the room.
#pragma once

#include "io/file_bytes.h"
#include "io/kinds.h"
#include "io/reader.h"
#include "io/vips.h"

namespace bp::io {

// In the words, %1 is the file's name and %2 the first of `values`.
template <std::size_t length>
Failure refuse(const std::filesystem::path& file, const char (&words)[length], std::vector<Saying> values = {}) {
    values.insert(values.begin(), file.filename().string());
    return {Fault::input, file.string(), {words, std::move(values)}};
}

// Of a file that a library could not make sense of: that its bytes could not be had, or else that they are wrong.
Failure unreadable(const FileBytes& bytes);

// How a picture is to be turned to stand upright, by the numbers of the orientation tag (Exif 2.32, 4.6.4).
enum class Orientation {
    upright = 1,
    mirrored = 2,
    half_turn = 3,
    flipped = 4,
    transposed = 5,
    quarter_right = 6,
    transversed = 7,
    quarter_left = 8,
};
// What the facts of the stored picture become.
PictureFacts upright(PictureFacts stored, Orientation orientation);
// The upright rows of a stored picture, which is taken in whole.
std::unique_ptr<RowReader> turned_rows(std::unique_ptr<RowReader> stored, Orientation orientation);

// The kind of JPEG by its first bytes, and what its header says of the stored picture.
bool is_jpeg(const FileBytes& bytes);
struct JpegHead {
    PictureFacts facts;
    bool inks = false;   // four of them, which this does not decode: nothing else is told
    bool apart = false;  // brightness and colour are stored apart
    Orientation orientation = Orientation::upright;
};
Result<JpegHead> jpeg_head(const FileBytes& bytes);
// TIFF of floats of 16 bits, at full size as it is stored; no rows for what is none. `stops`: as in Developing.
struct Halves {
    std::unique_ptr<RowReader> rows;
    Orientation orientation = Orientation::upright;
};
Result<Halves> half_rows(const FileBytes& bytes, int stops);
// JPEG, scaled down by 2^level in the decoder (level 0 to 3). `facts` are those of the file. `apart`: its three
// channels as it stores them.
Result<std::unique_ptr<RowReader>> jpeg_rows(const FileBytes& bytes, const PictureFacts& facts, int level, bool apart);

// Any picture that is open in libvips. `whole`: its loader takes in the whole picture first. `stops`: as in Developing.
std::unique_ptr<RowReader> vips_rows(const FileBytes& bytes, Image image, PictureFacts facts, bool whole, int stops);

// Light in floats, 1 being white, as sRGB samples of 16 bits, halved `stops` times; what is then above white is white.
class SamplesOfFloats {
  public:
    SamplesOfFloats(int channels, int stops);
    std::uint16_t operator()(float light) const { return light > 0 ? curve_.sample(double(light) * white_) : 0; }

  private:
    LightCurve curve_;
    double white_;  // what light of 1 becomes
};

// Raw files by LibRaw.
Result<PictureFacts> raw_facts(const std::filesystem::path& file);
Result<std::unique_ptr<RowReader>> raw_rows(const std::filesystem::path& file, int level,
                                            const std::optional<WhiteBalance>& balance, const Developing& how);

// Means over boxes of 2^level pixels a side, in 16 bits.
std::unique_ptr<RowReader> boxed_rows(std::unique_ptr<RowReader> rows, int level);

}  // namespace bp::io
