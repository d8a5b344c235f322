// Merging one row of frames that may each cover only a piece of it.
#pragma once

#include <algorithm>
#include <span>
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
    // Pixels that do not vote, in stretches from left to right that do not touch each other. None: all vote.
    std::span<const kernels::Span> silent = {};

    bool votes_at(int x) const {
        return x >= cover.begin && x < cover.end &&
               std::none_of(silent.begin(), silent.end(),
                            [x](const kernels::Span& s) { return x >= s.begin && x < s.end; });
    }
};

// Merges rows[k] (frame number k) over `width` pixels. A pixel is merged from the frames alone that cover it and vote;
// where none votes the reference of the tools shows, where none covers their background. `out` must not overlap a row.
// Pure; any thread.
void merge_row(Mode mode, const std::vector<FrameRow>& rows, int width, int channels, const MergeTools& tools,
               std::uint16_t* out);

}  // namespace bp
