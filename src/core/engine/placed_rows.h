// Rows of one frame on the canvas, a piece at a time.
#pragma once

#include <limits>
#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "engine/stages.h"
#include "engine/tiled_frame.h"
#include "image/run_mask.h"
#include "merge/row.h"

namespace bp {

// Canvas rows [first, second) that are made together.
using Band = std::pair<int, int>;
constexpr Band every_row{std::numeric_limits<int>::min(), std::numeric_limits<int>::max()};

// Adds the pixels of row y of a level, within `limits`, that a mask of level 1 touches: in stretches from left to right
// that do not touch each other.
void add_wanted(const RunMask& mask, int level, int y, kernels::Span limits, std::vector<kernels::Span>& out);

// Which rows of a frame each canvas row of a region reads.
class RowReaches {
  public:
    // Outside the canvas rows `wanted` the frame covers nothing.
    RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const Band& wanted = every_row);
    // It covers `only` these pixels of the canvas, of level 1, and is resampled; they must live as long as this.
    RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const RunMask& only);

    // It covers nothing outside a box of the canvas, in pixels of the level.
    RowReaches(const Placement& placed, int level, Size frame, const Rect& region, const Rect& box);

    bool resampled() const { return map_.has_value(); }
    bool sparse() const { return only_ != nullptr; }
    // The pixels of a sparse one.
    void add_wanted(int y, kernels::Span limits, std::vector<kernels::Span>& out) const {
        bp::add_wanted(*only_, level_, y, limits, out);
    }
    // False when nothing of it is wanted in a piece: quick, for sparse ones are many.
    bool shows_in(const Rect& piece) const;
    // Of a frame that is resampled.
    const kernels::SourceMap& map() const { return *map_; }
    // Canvas pixels of a row that a resampled frame covers; of a sparse one between the first and the last that is
    // wanted, which may lie beyond the frame and are dark then.
    kernels::Span span_of(int y) const { return spans_[std::size_t(y - region_.top)]; }
    // Frame rows [first, second) that a band reads; {height, 0} where it reads none.
    std::pair<int, int> of(const Band& band) const;
    bool wanted(int y) const { return y >= wanted_.first && y < wanted_.second; }
    Size frame() const { return frame_; }
    const Rect& region() const { return region_; }

  private:
    void reach_out(const kernels::Span& limits);

    std::optional<kernels::SourceMap> map_;
    Size frame_;
    Rect region_;
    Band wanted_ = every_row;
    const RunMask* only_ = nullptr;
    int level_ = 0;
    // Of a sparse one, where something is wanted: for so many rows a bit for each of 64 columns of cells.
    static constexpr int cell_rows = 8;
    int cell_width_ = 1;
    std::vector<std::uint64_t> cells_;
    std::vector<kernels::Span> spans_;       // by canvas row, for resampled frames
    std::vector<std::pair<int, int>> rows_;  // the same
};

// The rows of one frame that its takes read between them.
class RowNeeds {
  public:
    // A take, and the rows that are read above and below what it reaches. It must live as long as this.
    void add(const RowReaches& take, int beside = 0) { takes_.emplace_back(&take, beside); }
    bool any() const { return !takes_.empty(); }
    // Frame rows [first, second) for bands that follow each other, with `first` lowered to what any later band still
    // reads.
    std::vector<std::pair<int, int>> of(const std::vector<Band>& bands) const;
    // Rows that must be held at once to go through the bands: while a band is made ready the one before it is still
    // being merged.
    int window(const std::vector<Band>& bands) const;
    // True when a canvas row reads rows that lie so far apart that holding all between them is a waste: a tenth of the
    // frame.
    bool lies_across() const;

  private:
    std::pair<int, int> of(const Band& band) const;

    std::vector<std::pair<const RowReaches*, int>> takes_;
};

// One take: a frame's rows on the canvas. Rows that need no resampling are handed through, in 8 bits where the file has
// 8.
class PlacedRows {
  public:
    // Of rows that are ready wherever a piece reads them.
    PlacedRows(std::shared_ptr<const FrameRows> rows, const RowReaches& reaches, int channels);
    // Of tiles, for a frame that is resampled: `stages` are done to what a piece reads.
    PlacedRows(SharedTiles tiles, Stages stages, const RowReaches& reaches, int channels);

    bool resampled() const { return reaches_->resampled(); }
    bool shows_in(const Rect& piece) const { return reaches_->shows_in(piece); }
    // The rows of `piece`: rows[i] is that of canvas row piece.top + i and begins at column piece.left. A frame that is
    // resampled puts them into `samples`, which has room for the piece. Any thread.
    void take(const Rect& piece, std::uint16_t* samples, FrameRow* rows) const;

  private:
    // Rows of an area of the source at hand, of either kind.
    struct AtHand {
        std::vector<const std::uint8_t*> narrow;
        std::vector<const std::uint16_t*> wide;
        Rect area;
    };
    // What a thread works with, kept from call to call, because calls are many and small.
    struct Workspace {
        std::vector<kernels::Span> spans;         // of the rows of a piece
        std::vector<kernels::Span> wanted;        // of a sparse one, row after row of a piece,
        std::vector<std::size_t> next, row_ends;  // with the first of each row that is not done, and the end
        AtHand source;
        StagedBox box;  // of what comes from tiles
    };

    void take_sparse(const Rect& piece, std::uint16_t* samples, FrameRow* rows) const;
    void warp(const Rect& piece, const AtHand& source, kernels::RowPlaces& places, std::span<const kernels::Span> spans,
              std::uint16_t* samples, bool held) const;
    FrameRow own_row(const Rect& piece, int y) const;
    void rows_for(const Rect& piece, AtHand& out) const;
    void box_for(const Rect& piece, kernels::RowPlaces& places, Workspace& work) const;

    std::shared_ptr<const FrameRows> rows_;  // or
    SharedTiles tiles_;
    Stages stages_;  // of tiles
    const RowReaches* reaches_;
    int channels_;
};

}  // namespace bp
