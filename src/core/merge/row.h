// Merging one row of frames that may each cover only a piece of it.
#pragma once

#include <vector>

#include "kernels/warp.h"
#include "merge/modes.h"

namespace bp {

// A frame's share in a row, in 8 or in 16 bits: one of the pointers is set. It points at pixel 0 of the row, also where
// the cover begins later; only the pixels of `cover` are read.
struct FrameRow {
    const std::uint8_t* narrow = nullptr;
    const std::uint16_t* wide = nullptr;
    kernels::Span cover;
    // One a pixel, from pixel 0 of the row: 255 where it votes, 0 where it does not. Null: all do.
    const std::uint8_t* votes = nullptr;
};

// Merges rows[k] (frame number k) over `width` pixels. A pixel is merged from the frames alone that cover it and vote;
// where none votes the reference of the tools shows, where none covers it is 0. `out` must not overlap a row. Pure; any
// thread.
void merge_row(Mode mode, const std::vector<FrameRow>& rows, int width, int channels, const MergeTools& tools,
               std::uint16_t* out);

}  // namespace bp
