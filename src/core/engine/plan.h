// How a merge goes through its frames within a budget of memory, reckoned before any work is done.
#pragma once

#include <cstddef>
#include <vector>

#include "base/result.h"
#include "engine/placed_rows.h"

namespace bp {

// What the plan must know of rows that are read in step with others.
struct RowCost {
    RowNeeds needs;
    std::size_t row_bytes = 0;    // of a row that is held; 0 when the whole frame is in memory already
    std::size_t fixed_bytes = 0;  // whatever the height: an open decoder, rows that stages read above and below
    bool read_in_turn = true;     // from a file or from scratch; not what is made of a frame that is in memory
};

struct StripPlan {
    // Beyond this, higher bands were measured to gain nothing: the rows leave the caches in any case.
    static constexpr std::size_t comfortable_bytes = std::size_t(512) << 20;

    // Higher bands of a few frames take memory whose making costs what switching decoders less often saves.
    static constexpr int highest_band = 128;

    // Where nothing is read higher ones gain nothing, and their memory has to be made.
    static constexpr int highest_unread_band = 32;

    std::vector<Band> bands;
    int band_rows = 0;
    // What one thread resamples and merges at a time: a row where nothing is resampled, else so little of all frames
    // that it stays in the caches between the two, sparse ones apart. Pieces begin at multiples of this on the canvas.
    Size piece;
    std::vector<int> windows;    // rows held for each cost
    std::size_t peak_bytes = 0;  // what all of it will take, by reckoning
    int frames_in_scratch = 0;   // that come from the scratch disk
};

// The pieces of a band.
std::vector<Rect> pieces_of(const Band& band, const Rect& region, Size piece);
// The highest bands that the budget allows, but no higher than makes a merge faster. `frames` is what a failure counts,
// `resampled` the takes that are resampled, `sparse` those that are so in few places. Fails with a sentence that says
// how much is needed when not even the lowest band fits.
Result<StripPlan> plan_strips(const std::vector<RowCost>& costs, std::size_t frames, std::size_t resampled,
                              const Rect& region, int channels, std::size_t budget_bytes, std::size_t sparse = 0);
Failure too_little_memory(std::size_t frames, std::size_t needed_bytes, std::size_t budget_bytes);

}  // namespace bp
