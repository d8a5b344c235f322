// The body of mend_row(). Included by hot_pixels.h alone.
#pragma once

#include <algorithm>

namespace bp {

template <class T, class Row>
void mend_row(const HotPixels& pixels, int y, int left, int columns, int height, int channels, const Row& row, T* out) {
    const auto before = [](const HotPixel& a, const HotPixel& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; };
    const auto is_hot = [&](int x, int v) {
        return std::binary_search(pixels.begin(), pixels.end(), HotPixel{x, v}, before);
    };
    auto here = std::lower_bound(pixels.begin(), pixels.end(), HotPixel{left, y}, before);
    for (; here != pixels.end() && here->y == y && here->x < left + columns; ++here) {
        const int x = here->x;
        const HotPixel around[] = {{x, y - 1}, {x - 1, y}, {x + 1, y}, {x, y + 1}};
        for (int c = 0; c < channels; ++c) {
            unsigned sum = 0, count = 0;
            for (const HotPixel& p : around) {
                if (p.x < left || p.x >= left + columns || p.y < 0 || p.y >= height || is_hot(p.x, p.y)) continue;
                sum += row(p.y)[(p.x - left) * channels + c];
                ++count;
            }
            if (count > 0) out[(x - left) * channels + c] = T((sum + count / 2) / count);
        }
    }
}

}  // namespace bp
