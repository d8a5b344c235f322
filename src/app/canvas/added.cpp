#include "app/canvas/added.h"

#include <QColor>
#include <algorithm>

namespace bp::app {

void hatch_added(QImage& image, const Raster16& with, const Raster16& without, QColor hatch) {
    constexpr int stripe = 3;
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x) {
            const std::ptrdiff_t at = std::ptrdiff_t(x) * with.channels();
            if (std::equal(with.row(y) + at, with.row(y) + at + with.channels(), without.row(y) + at)) continue;
            // Places are small: what lies between the lines is dark, so that they are seen on bright trails, too.
            image.setPixelColor(x, y, (x + y) % stripe == 0 ? hatch : QColor(0, 0, 0));
        }
}

}  // namespace bp::app
