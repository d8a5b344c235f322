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
    std::vector<bool> values(std::size_t(stride) * std::size_t(shown.height() + 2), true);
    for (int y = -1; y <= shown.height(); ++y)
        for (int x = 0; x < stride; ++x) {
            const QPointF p = to_canvas.map(QPointF(shown.left() + x - 0.5, shown.top() + y + 0.5));
            const int column = int(std::floor(p.x())), row = int(std::floor(p.y()));
            if (inside(column, mask.size().width) && inside(row, mask.size().height))
                values[std::size_t(y + 1) * std::size_t(stride) + std::size_t(x)] = mask.at(column, row) >= kept_from;
        }
    const auto kept = [&](int x, int y) {
        return values[std::size_t(y + 1) * std::size_t(stride) + std::size_t(x + 1)];
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
