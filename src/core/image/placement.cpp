#include "image/placement.h"

#include <cmath>

namespace bp {

Point Lens::seen(Point straight) const {
    const double x = (straight.x - middle.x) / unit;
    const double y = (straight.y - middle.y) / unit;
    const double rr = x * x + y * y;
    const double factor = unit * (1 + rr * (k1 + k2 * rr));
    return {middle.x + x * factor, middle.y + y * factor};
}

Point Lens::straight(Point seen) const {
    const double x = (seen.x - middle.x) / unit;
    const double y = (seen.y - middle.y) / unit;
    const double wanted = std::hypot(x, y);
    if (wanted == 0) return seen;
    double r = wanted;
    for (int step = 0; step < 20; ++step) {
        const double rr = r * r;
        const double slope = 1 + rr * (3 * k1 + 5 * k2 * rr);
        if (slope <= 0) break;  // beyond where the lens still rises there is nothing to find
        const double change = (r * (1 + rr * (k1 + k2 * rr)) - wanted) / slope;
        r -= change;
        if (std::abs(change) < 1e-12) break;
    }
    const double factor = unit * r / wanted;
    return {middle.x + x * factor, middle.y + y * factor};
}

Lens at_level(const Lens& lens, int level) {
    const double scale = double(1 << level);
    return {{(lens.middle.x + 0.5) / scale - 0.5, (lens.middle.y + 0.5) / scale - 0.5},
            lens.unit / scale,
            lens.k1,
            lens.k2};
}

Lens from_level(const Lens& lens, int level) {
    const double scale = double(1 << level);
    return {{(lens.middle.x + 0.5) * scale - 0.5, (lens.middle.y + 0.5) * scale - 0.5},
            lens.unit * scale,
            lens.k1,
            lens.k2};
}

bool Placement::is_affine() const {
    return !lens && !flex && !after && sensor == Point{} && matrix.m()[6] == 0 && matrix.m()[7] == 0;
}

Point Placement::to_canvas(Point frame) const {
    const Point p{frame.x - sensor.x, frame.y - sensor.y};
    const Point straight = lens ? lens->seen(matrix(lens->straight(p))) : matrix(p);
    if (!flex) return after ? (*after)(straight) : straight;
    // A bend is small and smooth: going back by it leads there in a few steps.
    constexpr int steps = 30;
    Point out = straight;
    for (int i = 0; i < steps; ++i) {
        const Point d = flex->at(out);
        const Point next{straight.x - d.x, straight.y - d.y};
        const double change = std::hypot(next.x - out.x, next.y - out.y);
        out = next;
        if (change < 1e-9) break;
    }
    return after ? (*after)(out) : out;
}

Point Placement::to_frame(Point canvas) const {
    if (after) canvas = inverse(*after)(canvas);
    const Matrix back = inverse(matrix);
    const Point d = flex ? flex->at(canvas) : Point{};
    const Point bent{canvas.x + d.x, canvas.y + d.y};
    const Point p = lens ? lens->seen(back(lens->straight(bent))) : back(bent);
    return {p.x + sensor.x, p.y + sensor.y};
}

bool operator==(const Placement& a, const Placement& b) {
    return a.matrix == b.matrix && a.lens == b.lens && a.sensor == b.sensor && a.after == b.after &&
           same(a.flex, b.flex);
}

Placement at_level(const Placement& placement, int level) {
    const double scale = double(1 << level);
    Placement out{at_level(placement.matrix, level)};
    out.sensor = {placement.sensor.x / scale, placement.sensor.y / scale};
    if (placement.lens) out.lens = at_level(*placement.lens, level);
    out.flex = at_level(placement.flex, level);
    if (placement.after) out.after = at_level(*placement.after, level);
    return out;
}

Placement moved_on(Placement placement, const Matrix& matrix) {
    if (placement.is_affine())
        placement.matrix = matrix * placement.matrix;
    else
        placement.after = placement.after ? matrix * *placement.after : matrix;
    return placement;
}

}  // namespace bp
