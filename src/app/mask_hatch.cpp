#include "app/mask_hatch.h"

#include <cmath>
#include <vector>

#include "app/theme.h"

namespace bp::app {
namespace {

constexpr int stripe = 7;      // screen pixels from line to line
constexpr int kept_from = 96;  // a mask value from which a pixel counts as kept

}  // namespace

QImage hatch_of(const Mask& mask, QSize pixels, Point origin, double zoom) {
    QImage out(pixels, QImage::Format_ARGB32_Premultiplied);
    out.fill(Qt::transparent);
    const int width = pixels.width();
    const int height = pixels.height();
    std::vector<std::uint8_t> values(std::size_t(width) * std::size_t(height));
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x)
            values[std::size_t(y) * std::size_t(width) + std::size_t(x)] =
                mask.at(int(std::floor(origin.x + (x + 0.5) / zoom)), int(std::floor(origin.y + (y + 0.5) / zoom)));
    const auto kept = [&](int x, int y) {
        if (x < 0 || y < 0 || x >= width || y >= height) return true;
        return values[std::size_t(y) * std::size_t(width) + std::size_t(x)] >= kept_from;
    };
    const QColor bright = theme().hatch;
    const QRgb edge = qPremultiply(qRgba(bright.red(), bright.green(), bright.blue(), 235));
    const QRgb line = qPremultiply(qRgba(bright.red(), bright.green(), bright.blue(), 105));
    const QRgb shade = qPremultiply(qRgba(0, 0, 0, 90));
    for (int y = 0; y < height; ++y) {
        auto* to = reinterpret_cast<QRgb*>(out.scanLine(y));
        for (int x = 0; x < width; ++x) {
            if (!kept(x, y)) continue;
            const bool border = !kept(x - 1, y) || !kept(x + 1, y) || !kept(x, y - 1) || !kept(x, y + 1);
            const int phase = (x + y) % stripe;
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
