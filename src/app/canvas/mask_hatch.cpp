#include "app/canvas/mask_hatch.h"

#include <cmath>
#include <vector>

#include "app/looks/theme.h"

namespace bp::app {
namespace {

constexpr int stripe = 7;      // screen pixels from line to line
constexpr int kept_from = 96;  // a mask value from which a pixel counts as kept

}  // namespace

QImage hatch_of(const Mask& mask, const QRect& shown, const QTransform& to_canvas) {
    QImage out(shown.size(), QImage::Format_ARGB32_Premultiplied);
    out.fill(Qt::transparent);
    // One pixel more on each side, which decides where the edge runs.
    const int stride = shown.width() + 2;
    const auto inside = [](int at, int length) { return at >= 0 && at < length; };
    std::vector<std::uint8_t> values(std::size_t(stride) * std::size_t(shown.height() + 2), 1);
    std::uint8_t* value = values.data();
    // Without a transform for each: this is asked for at every move of a brush.
    const double across = to_canvas.m11(), down = to_canvas.m12();
    for (int y = -1; y <= shown.height(); ++y) {
        const QPointF first = to_canvas.map(QPointF(shown.left() - 0.5, shown.top() + y + 0.5));
        for (int x = 0; x < stride; ++x, ++value) {
            const int column = int(std::floor(first.x() + x * across)), row = int(std::floor(first.y() + x * down));
            if (inside(column, mask.size().width) && inside(row, mask.size().height))
                *value = mask.at(column, row) >= kept_from ? 1 : 0;
        }
    }
    const auto kept = [&](int x, int y) {
        return values[std::size_t(y + 1) * std::size_t(stride) + std::size_t(x + 1)] != 0;
    };
    const QColor bright = theme().hatch;
    const QRgb edge = qPremultiply(qRgba(bright.red(), bright.green(), bright.blue(), 235));
    const QRgb line = qPremultiply(qRgba(bright.red(), bright.green(), bright.blue(), 105));
    const QRgb shade = qPremultiply(qRgba(0, 0, 0, 90));
    for (int y = 0; y < shown.height(); ++y) {
        auto* to = reinterpret_cast<QRgb*>(out.scanLine(y));
        for (int x = 0; x < shown.width(); ++x) {
            if (!kept(x, y)) continue;
            const bool border = !kept(x - 1, y) || !kept(x + 1, y) || !kept(x, y - 1) || !kept(x, y + 1);
            const int phase = (shown.left() + x + shown.top() + y) % stripe;
            if (border)
                to[x] = edge;
            else if (phase == 0)
                to[x] = line;
            else if (phase == 1)
                to[x] = shade;
        }
    }
    return out;
}

}  // namespace bp::app
