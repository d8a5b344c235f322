// Rows of frames in the working profile, from memory or from a decoder that is open and advances.
#pragma once

#include <cstring>
#include <memory>
#include <optional>
#include <variant>

#include "base/job.h"
#include "base/packing.h"
#include "pile/pile.h"

namespace bp {

// What all frames are brought to before they meet.
struct WorkingSpace {
    Profile profile;
    int channels = 3;
    std::optional<WhiteBalance> balance;  // for raw frames
    // One channel instead of three, for looking only: what files keep apart from colour (RowReader::open_brightness),
    // which is much faster, else a quarter of red, half of green and a quarter of blue.
    bool brightness = false;
};

// A row of a frame in 8 or in 16 bits: one of the pointers is set.
struct SourceRow {
    const std::uint8_t* narrow = nullptr;
    const std::uint16_t* wide = nullptr;
};

// A frame's samples in memory: in 8 bits when the file has them so and nothing had to be converted.
class FramePixels {
  public:
    FramePixels() = default;
    explicit FramePixels(Raster8 raster) : raster_(std::move(raster)) {}
    explicit FramePixels(Raster16 raster) : raster_(std::move(raster)) {}
    Size size() const;
    int channels() const;
    std::size_t bytes() const;
    SourceRow row(int y) const;
    Raster16 widened() const;
    int bits() const { return std::holds_alternative<Raster8>(raster_) ? 8 : 16; }

  private:
    std::variant<Raster8, Raster16> raster_;
};
using SharedPixels = std::shared_ptr<const FramePixels>;
void pack(Packer& to, const FramePixels& pixels);
void unpack(Unpacker& from, FramePixels& pixels);

// A window of rows that only moves down. One thread at a time; but rows may be read by others while require() makes
// later ones.
class FrameRows {
  public:
    virtual ~FrameRows() = default;
    virtual Size size() const = 0;
    virtual int bits() const = 0;
    // Makes rows [first, last) of the frame readable; `first` must not be smaller than in an earlier call, rows above
    // it are let go, and last - first must not exceed the height the window was made for.
    virtual Status require(int first, int last) = 0;
    // A row that the latest require() covers, from column left() on. It stays where it is until it is let go.
    virtual SourceRow row(int y) const = 0;
    virtual int left() const { return 0; }
};

std::unique_ptr<FrameRows> held_rows(SharedPixels pixels);

// A frame whose decoder is open. Made in two steps, because the height of the window is known only when all frames are.
class OpenFrame {
  public:
    virtual ~OpenFrame() = default;
    virtual Size size() const = 0;
    virtual int bits() const = 0;  // of a row in the working space: 8 or 16
    virtual std::size_t row_bytes() const = 0;
    virtual std::size_t decoder_bytes() const = 0;
    // True when the decoder takes in the whole frame before it gives a row.
    virtual bool whole() const = 0;
    // `place` numbers the frames that are read in step: their windows start at different places in a page, so that the
    // rows of many frames do not compete for the same lines of the cache. Once only.
    virtual std::unique_ptr<FrameRows> window(int rows, int place) = 0;
};
// Level 0 to scaled_levels. Fails when the file cannot be opened; later failures come from require().
Result<std::unique_ptr<OpenFrame>> open_frame(const FrameFile& file, int level, const WorkingSpace& space,
                                              const Developing& how = {});

// The whole frame at `level` in the working space.
Result<FramePixels> read_pixels(const FrameFile& file, int level, const WorkingSpace& space, Job& job,
                                const Developing& how = {});
Result<Raster16> read_frame(const FrameFile& file, int level, const WorkingSpace& space, Job& job);
// The brightness of a frame, about as brightness_of() has it: from what the file keeps apart from colour where it does,
// which is much faster, else from all of it. `curve` is that of the working space.
Result<RasterF> read_brightness(const FrameFile& file, int level, const WorkingSpace& space, const LightCurve& curve,
                                Job& job);
// The same from one reading of the file that gives the frame's samples, too, as read_pixels() does. `pixels` is null
// where that would take longer than two readings.
struct BrightnessAndPixels {
    RasterF brightness;
    SharedPixels pixels;
};
Result<BrightnessAndPixels> read_brightness_and_pixels(const FrameFile& file, int level, const WorkingSpace& space,
                                                       const LightCurve& curve, Job& job);
// Box averages of 2^levels pixels a side. Levels beyond scaled_levels are made so from that level, whether it is at
// hand or decoded for it.
FramePixels further(const FramePixels& pixels, int levels);

}  // namespace bp
