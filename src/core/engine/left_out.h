// Which pixels of a frame take no part in a merge, wherever the frame lies.
#pragma once

#include <optional>
#include <vector>

#include "engine/placed_rows.h"
#include "image/mask.h"

namespace bp {

// Of a mask in pixels of the frame, level 0, seen at a level: those at half and more are left out. The mask must live
// as long as this. Any thread.
class LeftOut {
  public:
    LeftOut(const Mask& mask, int level);

    // Adds the stretches of canvas row `y` that are left out, from left to right and counted from column `left`;
    // `cover` is what the take covers of the row, counted so, too. A resampled pixel goes by the nearest one of the
    // frame.
    void add_silence(const RowReaches& reaches, kernels::RowPlaces* places, int y, int left, kernels::Span cover,
                     std::vector<kernels::Span>& out) const;
    // Whether the rows of the frame that a band reads have any of it.
    bool touches(std::pair<int, int> rows) const {
        return !bounds_.empty() && rows.first <= bounds_.bottom() && rows.second >= bounds_.top;
    }

  private:
    bool at(int x, int y) const;

    const Mask* mask_;
    Rect bounds_;                    // pixels of the level
    std::optional<Raster8> scaled_;  // of the bounds, above level 0
};

}  // namespace bp
