// Pixels of the sensor that glow by themselves.
#pragma once

#include <algorithm>
#include <vector>

#include "base/shared.h"
#include "image/geometry.h"
#include "image/profile.h"
#include "image/raster.h"

namespace bp {

struct HotPixel {
    int x = 0;
    int y = 0;
    friend bool operator==(const HotPixel&, const HotPixel&) = default;
};
// By rows from the top, each from the left; no two alike.
using HotPixels = std::vector<HotPixel>;
using SharedHotPixels = Shared<HotPixels>;

// In the minimum of frames in sensor place, level 0: what moves is gone from it, what glows stands there as a single
// pixel. A star near the pole stays, too, but a lens spreads it over its neighbours. Pure; any thread.
HotPixels find_hot_pixels(const Raster16& minimum, const LightCurve& curve);

// The same pixels in pictures of `level`: each that holds one.
HotPixels at_level(const HotPixels& pixels, int level);

// Replaces those of the pixels of row y in [begin, end) by the mean of their neighbours above, below and beside that
// are not hot. `sample(x, v, c)` is that of the frame, one pixel around what is asked for; `out` begins at pixel
// `begin`.
template <class T, class Sample>
void mend_row(const HotPixels& pixels, int y, int begin, int end, Size frame, int channels, const Sample& sample,
              T* out) {
    const auto before = [](const HotPixel& a, const HotPixel& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; };
    const auto is_hot = [&](int x, int v) {
        return std::binary_search(pixels.begin(), pixels.end(), HotPixel{x, v}, before);
    };
    auto here = std::lower_bound(pixels.begin(), pixels.end(), HotPixel{begin, y}, before);
    for (; here != pixels.end() && here->y == y && here->x < end; ++here) {
        const int x = here->x;
        const HotPixel around[] = {{x, y - 1}, {x - 1, y}, {x + 1, y}, {x, y + 1}};
        for (int c = 0; c < channels; ++c) {
            unsigned sum = 0, count = 0;
            for (const HotPixel& p : around) {
                if (p.x < 0 || p.x >= frame.width || p.y < 0 || p.y >= frame.height || is_hot(p.x, p.y)) continue;
                sum += sample(p.x, p.y, c);
                ++count;
            }
            if (count > 0) out[(x - begin) * channels + c] = T((sum + count / 2) / count);
        }
    }
}

}  // namespace bp
