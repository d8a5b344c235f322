#include "parts/light_field.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace bp {

void change_light(std::uint16_t* row, const LightField& by, int level, int y, int left, std::size_t pixels,
                  int channels, const LightCurve& curve) {
    constexpr double dark = LightField::below_black * LightCurve::full;
    const double pixel = std::ldexp(1.0, level);
    // Where a pixel of the row lies among the factors, and the two that it lies between.
    struct Place {
        int first, second;
        float part;
    };
    const auto place = [&](int at, int begin, int count) {
        const double p = std::clamp(((at + 0.5) * pixel - begin) / by.unit - 0.5, 0.0, count - 1.0);
        const int first = std::min(int(p), count - 1);
        return Place{first, std::min(first + 1, count - 1), float(p - first)};
    };
    const Place down = place(y, by.top, by.factors.height());
    const float* above = by.factors.row(down.first);
    const float* below = by.factors.row(down.second);
    for (std::size_t p = 0; p < pixels; ++p) {
        const Place across = place(left + int(p), by.left, by.factors.width());
        for (int c = 0; c < channels; ++c) {
            const int a = across.first * channels + c, b = across.second * channels + c;
            const float over = above[a] + (above[b] - above[a]) * across.part;
            const float under = below[a] + (below[b] - below[a]) * across.part;
            const double factor = over + (under - over) * down.part;
            std::uint16_t& sample = row[p * std::size_t(channels) + std::size_t(c)];
            sample = curve.sample((curve.light(sample) + dark) * factor - dark);
        }
    }
}

}  // namespace bp
