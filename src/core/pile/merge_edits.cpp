// The edits that say how frames become one picture.
#include <algorithm>
#include <cmath>

#include "pile/edits.h"
#include "pile/method_in.h"

namespace bp {

Pile with_mode(Pile pile, Mode mode, Zone zone) {
    method_in(pile, zone).mode = mode;
    return pile;
}

Pile with_knit(Pile pile, const Knit& knit) {
    const double longest = std::isfinite(knit.longest_s) ? knit.longest_s : Knit{}.longest_s;
    pile.knit = {knit.on, std::clamp(longest, 0.0, Knit::longest_pause_s)};
    return pile;
}

Pile with_taper(Pile pile, const Taper& taper, Zone zone) {
    Taper& own = method_in(pile, zone).taper;
    own = taper;
    if (!std::isfinite(own.over)) own.over = 1;
    own.over = std::clamp(own.over, Taper::shortest, 1.0);
    const auto inside = [](double at) {
        return std::isfinite(at) ? std::clamp(at, Taper::nearest_knot, 1 - Taper::nearest_knot) : 0.5;
    };
    own.knot = {inside(own.knot.x), inside(own.knot.y)};
    return pile;
}

MergeSettings merge_settings_of(const Pile& pile) {
    return {pile.methods, pile.knit, pile.light};
}

Pile with_merge_settings(Pile pile, const MergeSettings& settings) {
    for (const Zone zone : both_zones) {
        const Model model = pile.methods[zone].model;
        pile.methods[zone] = settings.methods[zone];
        pile.methods[zone].model = model;
    }
    pile.knit = settings.knit;
    pile.light = settings.light;
    return pile;
}

Pile with_soft_white(Pile pile, bool soft, Zone zone) {
    method_in(pile, zone).soft_white = soft;
    return pile;
}

Pile with_head(Pile pile, const Head& head, Zone zone) {
    Head& own = method_in(pile, zone).head;
    own = head;
    own.frames = std::clamp(own.frames, 1, Head::most_frames);
    own.apart = std::clamp(own.apart, 0, Head::most_apart);
    const double radius = own.softening.radius_px;
    own.softening.radius_px = std::isfinite(radius) ? std::clamp(radius, 0.0, Softening::widest_px) : 0;
    return pile;
}

Pile with_choice_by(Pile pile, By by, Zone zone) {
    method_in(pile, zone).by = by;
    return pile;
}

}  // namespace bp
