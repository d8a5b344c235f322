#include <algorithm>
#include <cmath>

#include "kernels/rows.h"
#include "kernels/warp.h"

namespace bp::kernels {
namespace {

constexpr int side = 4;

// The brightest of the samples around a place, by channel.
template <int channels, class T>
void brightest(const T* const* rows, std::ptrdiff_t at, T* out) {
    T down[side * channels];
    for (int i = 0; i < side * channels; ++i)
        down[i] = std::max(std::max(rows[0][at + i], rows[1][at + i]), std::max(rows[2][at + i], rows[3][at + i]));
    for (int c = 0; c < channels; ++c)
        out[c] =
            std::max(std::max(down[c], down[channels + c]), std::max(down[2 * channels + c], down[3 * channels + c]));
}

template <int channels, class T>
void hold(const RowsAtHand<T>& source, RowPlaces& places, int y, std::span<const Span> spans, const WarpTarget& out) {
    // Whole numbers are cut off towards 0: places, which may lie a little before the frame, are made positive.
    constexpr int positive = 1 << 20;
    const Rect& area = source.area;
    const auto hold_one = [&](double at_x, double at_y, std::uint16_t* held) {
        const int left = int(at_x + positive) - positive - 1, top = int(at_y + positive) - positive - 1;
        const T* rows[side];
        for (int k = 0; k < side; ++k)
            rows[k] = source.rows[std::clamp(top + k, area.top, area.bottom() - 1) - area.top];
        T most[channels];
        if (left >= area.left && left + side <= area.right()) {
            brightest<channels>(rows, std::ptrdiff_t(left - area.left) * channels, most);
        } else {
            // The outermost samples go on beyond the edge.
            T copies[side][side * channels];
            for (int k = 0; k < side; ++k) {
                for (int across = 0; across < side; ++across) {
                    const int column = std::clamp(left + across, area.left, area.right() - 1) - area.left;
                    for (int c = 0; c < channels; ++c)
                        copies[k][across * channels + c] = rows[k][std::ptrdiff_t(column) * channels + c];
                }
                rows[k] = copies[k];
            }
            brightest<channels>(rows, 0, most);
        }
        for (int c = 0; c < channels; ++c) held[c] = std::min(held[c], to_16(most[c]));
    };
    for (std::size_t i = 0; i < spans.size(); ++i) {
        const Span& span = spans[i];
        if (span.empty()) continue;
        places.go_to(y + int(i));
        const KnotRow& knots = places.here();
        std::uint16_t* row = out.samples + i * out.stride;
        for (int k = floor_div(span.begin, knots.step); k * knots.step < span.end; ++k) {
            const Point &a = knots.knot(k), &b = knots.knot(k + 1);
            const int origin = k * knots.step;
            const double across = (b.x - a.x) / knots.step, down = (b.y - a.y) / knots.step;
            for (int x = std::max(span.begin, origin); x < std::min(span.end, origin + knots.step); ++x)
                hold_one(a.x + across * (x - origin), a.y + down * (x - origin),
                         row + std::ptrdiff_t(x - out.left) * channels);
        }
    }
}

template <class T>
void hold(const RowsAtHand<T>& source, int channels, RowPlaces& places, int y, std::span<const Span> spans,
          const WarpTarget& out) {
    if (channels == 3)
        hold<3>(source, places, y, spans, out);
    else
        hold<1>(source, places, y, spans, out);
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
