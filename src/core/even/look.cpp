#include "even/look.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace bp {
namespace {

constexpr std::array<LookValue, 13> table{{
    {"exposure_ev", &Look::exposure_ev, -5, 5, 0.05, false, true},
    {"contrast", &Look::contrast, -100, 100, 1, false, true},
    {"floor", &Look::floor, 0, 100, 1, false, true},
    {"deep", &Look::deep, -100, 100, 1, false, true},
    {"middle", &Look::middle, -100, 100, 1, false, true},
    {"bright", &Look::bright, -100, 100, 1, false, true},
    {"peak", &Look::peak, -100, 100, 1, false, true},
    {"warmth", &Look::warmth, -100, 100, 1, true, true},
    {"green_to_magenta", &Look::green_to_magenta, -100, 100, 1, true, true},
    {"colour_strength", &Look::colour_strength, -100, 100, 1, true, true},
    {"pale_colours", &Look::pale_colours, -100, 100, 1, true, true},
    {"hue_at", &Look::hue_at, 0, 360, 1, true, false},
    {"hue_turn", &Look::hue_turn, -60, 60, 1, true, false},
}};
// A value without a line would be accepted and never saved.
static_assert(sizeof(Look) == table.size() * sizeof(double));

}  // namespace

std::span<const LookValue> look_values() {
    return table;
}

Look limited(Look look) {
    for (const LookValue& v : table) {
        double& value = look.*v.value;
        value = std::isfinite(value) ? std::clamp(value, v.least, v.most) : 0;
    }
    return look;
}

Look on_top(const Look& below, const Look& own) {
    Look out = below;
    for (const LookValue& v : table) {
        if (v.adds)
            out.*v.value += own.*v.value;
        else if (own.hue_turn != 0)
            out.*v.value = own.*v.value;
    }
    return limited(out);
}

}  // namespace bp
