// A part on its way into the picture: what of its frame it shows where, and how strongly.
#pragma once

#include <memory>
#include <optional>

#include "engine/zone_rows.h"
#include "parts/light_field.h"

namespace bp {

// What was solved of a part's edge (part_edges.h): the mask that counts in place of its own, and how its light changes.
struct SolvedEdge {
    // In pixels of level 0 of the canvas that begin at (left, top), which are multiples of Mask::tile.
    Mask mask;
    int left = 0, top = 0;
    std::optional<LightField> light;

    std::size_t bytes() const;
};
using SharedEdge = std::shared_ptr<const SolvedEdge>;

// A part's own mask as it lies on the canvas, with the place that the part has. It is seen through a window of its
// bounds, whose memory it takes. Any thread.
class LaidMask {
  public:
    // The pile and the part must live as long.
    LaidMask(const Pile& pile, const Part& part, int level);

    // Canvas pixels of the level beyond which it is 0.
    const Rect& bounds() const { return bounds_; }
    void read_row(int y, int left, int width, std::uint8_t* out) const;

  private:
    const Mask* mask_;
    int level_;
    Rect bounds_;
    // Of one that has a place of its own, which may be read at a coarser level where it is made small.
    Matrix to_window_;
    Rect window_area_;
    Raster8 window_;
};

// Canvas pixels of level 0 beyond which a part never shows, whatever its edge: its mask where it lies, and the band.
Rect reach_of(const Pile& pile, const Part& part);

// Rows of one part at a level. Any thread.
class PartRows {
  public:
    // Without an edge the part's own mask counts. Adds what it takes to the gathering, which must live as long.
    PartRows(const Pile& pile, const Part& part, SharedEdge edge, Gathering& gathering, int level);

    // Canvas pixels of the level beyond which it shows nothing.
    Rect bounds() const;
    const Part& part() const { return part_; }
    // What is kept of it in pixels of row y, from canvas column `left` on.
    void read_mask(int y, int left, int width, std::uint8_t* out) const;
    // Lays it over a piece of row, which begins at columns.begin.
    void lay(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
             std::uint16_t* out) const;
    // What it would lay down there: its frame's own samples, placed, looked at as the part is and without the light
    // that is taken off. The row may point into `scratch`.
    FrameRow over(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
                  std::vector<std::uint16_t>& scratch) const;

  private:
    const Pile& pile_;
    const Part& part_;
    SharedEdge edge_;
    const Gathering& gathering_;
    int level_;
    std::optional<LaidMask> own_;
    std::optional<std::size_t> placed_;  // its row among all rows, or
    Gathering::Places at_;
    LightCurve curve_;
};

// What a part would lay down in a region of a level, and where there is anything of it: 255, elsewhere 0.
struct PartAlone {
    Raster16 samples;
    Raster8 covered;
};
Result<PartAlone> part_alone(const Pile& pile, const Part& part, FrameStore& store, const Rect& region, int level,
                             Job& job);

}  // namespace bp
