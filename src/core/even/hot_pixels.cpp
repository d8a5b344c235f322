#include "even/hot_pixels.h"

#include <algorithm>
#include <cstdlib>
#include <vector>

namespace bp {
namespace {

constexpr double least_light = 0.012;  // above its surroundings: fainter ones are lost in the rounding of 8 bits
constexpr double stands_out = 8;       // times the usual difference between neighbours here
// Of its own light that its neighbours beside, above and below may show, or lack, in the mean.
constexpr double most_beside = 0.14;
constexpr double most_lacking = 0.5;

}  // namespace

HotPixels find_hot_pixels(const Raster16& minimum, const LightCurve& curve) {
    HotPixels out;
    const int channels = minimum.channels();
    // The brightest channel tells: pixels glow under one colour of filter.
    const auto light = [&](int x, int y) {
        double most = 0;
        for (int c = 0; c < channels; ++c) most = std::max(most, double(curve.light(minimum.at(x, y, c))));
        return most / LightCurve::full;
    };
    constexpr int reach = 2;
    std::vector<double> around;
    for (int y = 0; y < minimum.height(); ++y)
        for (int x = 0; x < minimum.width(); ++x) {
            const double own = light(x, y);
            if (own < least_light) continue;
            around.clear();
            double beside = 0;
            int count = 0;
            for (int v = std::max(0, y - reach); v <= std::min(minimum.height() - 1, y + reach); ++v)
                for (int u = std::max(0, x - reach); u <= std::min(minimum.width() - 1, x + reach); ++u) {
                    const int steps = std::abs(u - x) + std::abs(v - y);
                    if (steps == 0) continue;
                    around.push_back(light(u, v));
                    if (steps > 1) continue;
                    beside += around.back();
                    ++count;
                }
            std::sort(around.begin(), around.end());
            const double ground = around[(around.size() - 1) / 2];
            const double excess = own - ground;
            // The upper quartile above the middle is what differs here by texture and noise.
            const double usual = around[around.size() * 3 / 4] - ground;
            if (excess < least_light || excess < stands_out * usual) continue;
            const double share = (beside / count - ground) / excess;
            if (share < most_beside && share > -most_lacking) out.push_back({x, y});
        }
    return out;
}

HotPixels at_level(const HotPixels& pixels, int level) {
    HotPixels out;
    for (const HotPixel& p : pixels) out.push_back({p.x >> level, p.y >> level});
    std::sort(out.begin(), out.end(),
              [](const HotPixel& a, const HotPixel& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

}  // namespace bp
