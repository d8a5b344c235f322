// A frame on the scratch disk, for those that cannot come row by row: decoded once, then read in any order.
#pragma once

#include <memory>

#include "base/job.h"
#include "base/scratch.h"
#include "engine/source.h"
#include "kernels/warp.h"

namespace bp {

// The samples of a frame in the working space, in square tiles, so that a turned band of the canvas touches few bytes
// that it does not need. May be read from any thread.
class TiledFrame {
  public:
    static constexpr int side = 64;

    // Takes in all rows of `open`, whose window is used up by it. Fails as the frame's file or the scratch does, or
    // when the job is stopped.
    static Result<std::shared_ptr<const TiledFrame>> make(OpenFrame& open, Scratch& scratch, Job& job);
    // Bytes of scratch that a frame takes.
    static std::size_t bytes_for(Size size, std::size_t pixel_bytes);

    Size size() const { return size_; }
    int bits() const { return bits_; }
    std::size_t pixel_bytes() const { return pixel_; }
    // Copies `box`, which lies in the frame, to `out`, whose rows are `stride` bytes apart.
    void read(const Rect& box, std::uint8_t* out, std::size_t stride) const;
    // Rows [first, last) will not be read soon: what was read of them leaves the memory.
    void let_go(int first, int last) const;

  private:
    TiledFrame(Size size, int bits, std::size_t pixel_bytes, std::unique_ptr<Scratch::Piece> piece);
    std::size_t tile_bytes() const { return std::size_t(side) * side * pixel_; }
    std::size_t tiles_across() const { return std::size_t(size_.width + side - 1) / side; }
    std::size_t offset_of(int x, int y) const;

    Size size_;
    int bits_;
    std::size_t pixel_;
    std::unique_ptr<Scratch::Piece> piece_;
};
using SharedTiles = std::shared_ptr<const TiledFrame>;

// Rows of a tiled frame from column `columns.begin` up to `columns.end`, in a window of `height`.
std::unique_ptr<FrameRows> tiled_rows(SharedTiles tiles, kernels::Span columns, int height);

}  // namespace bp
