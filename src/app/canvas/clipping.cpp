#include "app/canvas/clipping.h"

#include "base/parallel.h"

namespace bp::app {

QImage clipping_of(const QImage& picture, QColor hatch) {
    constexpr int period = 6;
    constexpr int width = 2;
    QImage out(picture.size(), QImage::Format_ARGB32_Premultiplied);
    out.fill(Qt::transparent);
    uchar* const first = out.bits();
    const QRgb colour = hatch.rgb();
    parallel_for(0, picture.height(), [&](int y) {
        const auto* in = reinterpret_cast<const QRgb*>(picture.constScanLine(y));
        auto* to = reinterpret_cast<QRgb*>(first + qsizetype(y) * out.bytesPerLine());
        for (int x = 0; x < picture.width(); ++x) {
            const bool white = qRed(in[x]) == 255 || qGreen(in[x]) == 255 || qBlue(in[x]) == 255;
            const bool black = (in[x] & 0xffffffU) == 0;
            if ((white && (x + y) % period < width) || (black && (x - y + (1 << 20) * period) % period < width))
                to[x] = colour;
        }
    });
    return out;
}

}  // namespace bp::app
