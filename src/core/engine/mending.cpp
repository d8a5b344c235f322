#include "engine/mending.h"

#include <algorithm>
#include <cmath>

#include "engine/light_there.h"
#include "engine/render.h"

namespace bp {

Result<Mended> mended_spot(const Pile& pile, Point at, double width_px, int coarsest, FrameStore& store, Job& job) {
    constexpr double wide_enough = 6;  // pixels of the level
    int level = 0;
    while (level < coarsest && std::ldexp(width_px, -level - 1) >= wide_enough) ++level;
    const double unit = double(1 << level), width = width_px / unit;
    const Point there{(at.x + 0.5) / unit - 0.5, (at.y + 0.5) / unit - 0.5};
    const int around = int(std::ceil((Mended::furthest + 1) * width)) + 4;
    const Rect region = intersect(
        {int(std::floor(there.x)) - around, int(std::floor(there.y)) - around, 2 * around + 1, 2 * around + 1},
        at_level(canvas_of(pile), level));
    Mended out;
    out.way = {at};
    out.width_px = width_px;
    if (region.empty()) return out;
    const Result<Raster16> picture = composed(pile, store, region, level, job);
    if (!picture.ok()) return picture.failure();
    Sheet piece(region, pile.channels);
    kernels::light_of(picture.value().data().data(), piece.light.size(),
                      light_there(pile.profile, pile.channels)->tables(), piece.light.data());
    const Point from = best_source(piece, there, width);
    out.from = {from.x * unit, from.y * unit};
    return out;
}

}  // namespace bp
