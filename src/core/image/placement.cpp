#include "image/placement.h"

#include <algorithm>
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

Point Bend::operator()(Point canvas) const {
    const double u = std::clamp(canvas.x / step, 0.0, double(nodes.width - 1));
    const double v = std::clamp(canvas.y / step, 0.0, double(nodes.height - 1));
    const int x = std::min(int(u), nodes.width - 2);
    const int y = std::min(int(v), nodes.height - 2);
    const double a = u - x;
    const double b = v - y;
    const auto between = [&](const std::vector<float>& values) {
        const float* top = values.data() + std::size_t(y) * std::size_t(nodes.width) + x;
        const float* bottom = top + nodes.width;
        return (double(top[0]) * (1 - a) + double(top[1]) * a) * (1 - b) +
               (double(bottom[0]) * (1 - a) + double(bottom[1]) * a) * b;
    };
    return {between(dx), between(dy)};
}

bool Placement::is_affine() const {
    return !lens && !bend && sensor == Point{} && matrix.m[6] == 0 && matrix.m[7] == 0;
}

Point Placement::to_canvas(Point frame) const {
    Point p{frame.x - sensor.x, frame.y - sensor.y};
    p = matrix(lens ? lens->straight(p) : p);
    if (lens) p = lens->seen(p);
    if (!bend) return p;
    // The bend is known on the canvas: a few steps find the place that is led here.
    Point canvas = p;
    for (int step = 0; step < 10; ++step) {
        const Point shift = (*bend)(canvas);
        canvas = {p.x - shift.x, p.y - shift.y};
    }
    return canvas;
}

Point Placement::to_frame(Point canvas) const {
    if (bend) {
        const Point shift = (*bend)(canvas);
        canvas = {canvas.x + shift.x, canvas.y + shift.y};
    }
    Point p = lens ? lens->straight(canvas) : canvas;
    p = inverse(matrix)(p);
    if (lens) p = lens->seen(p);
    return {p.x + sensor.x, p.y + sensor.y};
}

bool operator==(const Placement& a, const Placement& b) {
    const bool same_bend = a.bend == b.bend || (a.bend && b.bend && *a.bend == *b.bend);
    return a.matrix == b.matrix && a.lens == b.lens && a.sensor == b.sensor && same_bend;
}

Placement at_level(const Placement& placement, int level) {
    Placement out;
    const double scale_down = double(1 << level);
    out.sensor = {placement.sensor.x / scale_down, placement.sensor.y / scale_down};
    out.matrix = at_level(placement.matrix, level);
    if (placement.lens) out.lens = at_level(*placement.lens, level);
    if (placement.bend && level > 0) {
        const auto scale = float(1 << level);
        auto bend = std::make_shared<Bend>(*placement.bend);
        bend->step /= double(scale);
        for (float& v : bend->dx) v /= scale;
        for (float& v : bend->dy) v /= scale;
        out.bend = std::move(bend);
    } else {
        out.bend = placement.bend;
    }
    return out;
}

}  // namespace bp
