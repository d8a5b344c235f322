#include "even/look.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace bp {
namespace {

constexpr std::array<LookValue, 10> table{{
    {"exposure_ev", &Look::exposure_ev, -5, 5, 0.05},
    {"temperature", &Look::temperature, -100, 100, 1},
    {"tint", &Look::tint, -100, 100, 1},
    {"contrast", &Look::contrast, -100, 100, 1},
    {"highlights", &Look::highlights, -100, 100, 1},
    {"shadows", &Look::shadows, -100, 100, 1},
    {"floor", &Look::floor, 0, 100, 1},
    {"white", &Look::white, -100, 100, 1},
    {"saturation", &Look::saturation, -100, 100, 1},
    {"vibrance", &Look::vibrance, -100, 100, 1},
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
