#include "even/look.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace bp {
namespace {

constexpr std::array<LookValue, 10> table{{
    {"exposure_ev", &Look::exposure_ev, -5, 5, 0.05, false},
    {"temperature", &Look::temperature, -100, 100, 1, true},
    {"tint", &Look::tint, -100, 100, 1, true},
    {"contrast", &Look::contrast, -100, 100, 1, false},
    {"highlights", &Look::highlights, -100, 100, 1, false},
    {"shadows", &Look::shadows, -100, 100, 1, false},
    {"floor", &Look::floor, 0, 100, 1, false},
    {"white", &Look::white, -100, 100, 1, false},
    {"saturation", &Look::saturation, -100, 100, 1, true},
    {"vibrance", &Look::vibrance, -100, 100, 1, true},
}};

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
    for (const LookValue& v : table) out.*v.value += own.*v.value;
    return limited(out);
}

}  // namespace bp
