// Spots and lines of a picture mended from what surrounds them.
#pragma once

#include <map>
#include <memory>
#include <vector>

#include "finish/sheet.h"

namespace bp {

// What takes the place of what is mended: what surrounds it; a frame of the pile as it lies there, or the median of
// those that are merged.
enum class MendFrom { around, frame, median };

// In pixels of the reference, level 0. One point is a spot, more are a line drawn along something thin.
struct Mended {
    int id = 0;  // unique in the finish
    std::vector<Point> way;
    double width_px = 20;
    Point from;  // a spot: where what takes its place lies, off the spot
    MendFrom source = MendFrom::around;
    int frame = 0;  // counts where the source is one
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
// One that is mended from frames becomes what its source shows at the same place, with its light drawn in the same way;
// `sources`: by id what lies there, in pixels of the level, which holds mending_area(). One without is mended from
// around.
using MendSources = std::map<int, std::shared_ptr<const Sheet>>;
std::shared_ptr<const FinishTool> mend_tool(const std::vector<Mended>& mended, int level,
                                            const MendSources& sources = {});
// What of a source is read, in pixels of the level.
Rect mending_area(const Mended& mended, int level);

// How far a place may be from the middle of one and still belong to it; below 0 inside.
double distance_to(const Mended& mended, Point p);

// Where a spot is best mended from: the place around it, of this piece of a picture in light, whose ring is most like
// that of the spot, and which is least uneven. `at` and `width_px`: in pixels of the piece.
Point best_source(const Sheet& piece, Point at, double width_px);

}  // namespace bp
