#include <algorithm>
#include <cmath>

#include "kernels/rows.h"
#include "kernels/warp.h"

namespace bp::kernels {
namespace {

template <class T>
void hold(const RowsAtHand<T>& source, int channels, RowPlaces& places, int y, std::span<const Span> spans,
          const WarpTarget& out) {
    const Rect& area = source.area;
    for (std::size_t i = 0; i < spans.size(); ++i) {
        if (spans[i].empty()) continue;
        places.go_to(y + int(i));
        std::uint16_t* row = out.samples + i * out.stride;
        for (int x = spans[i].begin; x < spans[i].end; ++x) {
            const Point at = places.at(x);
            const int u = int(std::floor(at.x)), v = int(std::floor(at.y));
            for (int c = 0; c < channels; ++c) {
                T most = 0;
                for (int down = v - 1; down <= v + 2; ++down) {
                    const T* from = source.rows[std::clamp(down, area.top, area.bottom() - 1) - area.top];
                    for (int across = u - 1; across <= u + 2; ++across) {
                        const int column = std::clamp(across, area.left, area.right() - 1) - area.left;
                        most = std::max(most, from[std::ptrdiff_t(column) * channels + c]);
                    }
                }
                std::uint16_t& held = row[std::ptrdiff_t(x - out.left) * channels + c];
                held = std::min(held, to_16(most));
            }
        }
    }
}

}  // namespace

void hold_to_source(const RowsAtHand<std::uint8_t>& source, int channels, RowPlaces& places, int y,
                    std::span<const Span> spans, const WarpTarget& out) {
    hold(source, channels, places, y, spans, out);
}
void hold_to_source(const RowsAtHand<std::uint16_t>& source, int channels, RowPlaces& places, int y,
                    std::span<const Span> spans, const WarpTarget& out) {
    hold(source, channels, places, y, spans, out);
}

}  // namespace bp::kernels
