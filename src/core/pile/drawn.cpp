#include "pile/drawn.h"

#include <cmath>

namespace bp {
namespace {

bool drawn_on(const Pile& pile) {
    return !pile.parts.empty() || pile.zones || pile.crop || !pile.trust.empty() || !pile.finish.places.empty() ||
           !pile.finish.mended.empty();
}

}  // namespace

double moved_under_drawing(const Pile& before, const Pile& after) {
    if (before.reference == after.reference || !drawn_on(after)) return 0;
    const Frame* frame = find_frame(before, after.reference);
    const std::optional<Alignment> place = frame ? frame->places.sky : std::nullopt;
    if (!place || !place->aligned) return 0;
    const Point middle{0.5 * before.size.width, 0.5 * before.size.height};
    const Point was = place->placement().to_canvas(middle);
    return std::hypot(was.x - middle.x, was.y - middle.y);
}

}  // namespace bp
