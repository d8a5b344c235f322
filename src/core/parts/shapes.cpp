#include "parts/shapes.h"

#include <algorithm>
#include <cmath>

namespace bp {

bool DrawnShape::has(Point p) const {
    if (kind == ShapeKind::ellipse) {
        // A pixel that was clicked has an extent of its own.
        const double across = std::max(0.5, std::abs(to.x - from.x) / 2);
        const double down = std::max(0.5, std::abs(to.y - from.y) / 2);
        return std::hypot((p.x - (from.x + to.x) / 2) / across, (p.y - (from.y + to.y) / 2) / down) <= 1;
    }
    const double dx = to.x - from.x;
    const double dy = to.y - from.y;
    const double squared = dx * dx + dy * dy;
    const double along =
        squared > 0 ? std::clamp(((p.x - from.x) * dx + (p.y - from.y) * dy) / squared, 0.0, 1.0) : 0.0;
    return std::hypot(p.x - from.x - along * dx, p.y - from.y - along * dy) <= width / 2;
}

Rect DrawnShape::bounds() const {
    const double reach = kind == ShapeKind::band ? width / 2 + 1 : 1;
    const int left = int(std::floor(std::min(from.x, to.x) - reach));
    const int top = int(std::floor(std::min(from.y, to.y) - reach));
    return {left, top, int(std::ceil(std::max(from.x, to.x) + reach)) + 1 - left,
            int(std::ceil(std::max(from.y, to.y) + reach)) + 1 - top};
}

Mask with_shape(Mask mask, const DrawnShape& shape, bool keep) {
    mask.edit(shape.bounds(), [&](int x, int y, std::uint8_t old) {
        if (!shape.has({double(x), double(y)})) return old;
        return keep ? std::uint8_t(255) : std::uint8_t(0);
    });
    return mask;
}

}  // namespace bp
