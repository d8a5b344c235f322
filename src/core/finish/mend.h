// Spots and lines of a picture mended from what surrounds them.
#pragma once

#include <memory>
#include <vector>

#include "finish/sheet.h"

namespace bp {

// In pixels of the reference, level 0. One point is a spot, more are a line drawn along something thin.
struct Mended {
    int id = 0;  // unique in the finish
    std::vector<Point> way;
    double width_px = 20;
    Point from;  // a spot: where what takes its place lies, off the spot
    bool on = true;
    static constexpr double narrowest = 2, widest = 120;
    static constexpr double furthest = 3;  // that `from` lies off, in widths
    static constexpr std::size_t most_points = 500;
    friend bool operator==(const Mended&, const Mended&) = default;
};

// A spot becomes what lies at `from`, with its light drawn to that of its own border (Farbman et al., Coordinates for
// instant image cloning, 2009: mean-value coordinates of a ring). A line becomes, piece by piece, what lies beside it
// where both of its borders look most alike, drawn to the light of both. All read the picture before any is mended.
// Nothing beyond half of the width and a pixel changes.
std::shared_ptr<const FinishTool> mend_tool(const std::vector<Mended>& mended, int level);

// How far a place may be from the middle of one and still belong to it; below 0 inside.
double distance_to(const Mended& mended, Point p);

// Where a spot is best mended from: the place around it, of this piece of a picture in light, whose ring is most like
// that of the spot, and which is least uneven. `at` and `width_px`: in pixels of the piece.
Point best_source(const Sheet& piece, Point at, double width_px);

}  // namespace bp
