#include "engine/placing_loss.h"

#include <cmath>

namespace bp {
namespace {

// A frame that is turned or bent lies at all parts of a pixel somewhere.
constexpr int all_parts = 8;
constexpr double steady_px = 0.1;  // over the picture

}  // namespace

PlacedParts placed_parts(const Pile& pile) {
    const Mode mode = pile.methods.sky.mode;
    const bool adds_up = mode == Mode::mean || mode == Mode::clipped_mean || mode == Mode::median || mode == Mode::one;
    PlacedParts out;
    if (!adds_up || pile.zones) return out;
    const Point middle{pile.size.width / 2.0, pile.size.height / 2.0};
    const Point corners[] = {{0, 0}, {double(pile.size.width), 0}, {0, double(pile.size.height)}};
    for (const int id : merged_ids(pile, Zone::sky)) {
        const Placement place = placement(pile, *find_frame(pile, id));
        const auto off_at = [&](Point p) {
            const Point from = place.to_frame(p);
            return Point{from.x - p.x, from.y - p.y};
        };
        const Point off = off_at(middle);
        bool steady = true;
        for (const Point& corner : corners) {
            const Point there = off_at(corner);
            steady = steady && std::abs(there.x - off.x) < steady_px && std::abs(there.y - off.y) < steady_px;
        }
        const auto part = [](double at) { return at - std::floor(at); };
        for (int k = 0; k < all_parts; ++k) {
            out.across.push_back(steady ? part(off.x) : double(k) / all_parts);
            out.down.push_back(steady ? part(off.y) : double(k) / all_parts);
        }
    }
    return out;
}

}  // namespace bp
