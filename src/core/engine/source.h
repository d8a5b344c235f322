// Rows of frames in the working profile, from memory or from a decoder that is open and advances.
#pragma once

#include <memory>
#include <optional>

#include "pile/pile.h"

namespace bp {

// What all frames are brought to before they meet.
struct WorkingSpace {
    Profile profile;
    int channels = 3;
};

// A window of rows that only moves down. One thread at a time.
class FrameRows {
  public:
    virtual ~FrameRows() = default;
    virtual Size size() const = 0;
    // Makes rows [first, last) of the frame readable; `first` must not be smaller than in an earlier call, and rows
    // above it are let go.
    virtual Status require(int first, int last) = 0;
    // A row that the latest require() covers.
    virtual const std::uint16_t* row(int y) const = 0;
};

std::unique_ptr<FrameRows> held_rows(SharedRaster raster);
// Fails when the file cannot be opened; later failures come from require().
Result<std::unique_ptr<FrameRows>> streamed_rows(const FrameFile& file, int level, const WorkingSpace& space);

// The whole frame at `level` in the working space.
Result<Raster16> read_frame(const FrameFile& file, int level, const WorkingSpace& space);

}  // namespace bp
