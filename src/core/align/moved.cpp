#include "align/moved.h"

#include <cmath>
#include <numbers>

namespace bp {
namespace {

Point middle_of(Size size) {
    return {(size.width - 1) / 2.0, (size.height - 1) / 2.0};
}

}  // namespace

MovedBy moved_by(const Alignment& place, Size size) {
    const Point middle = middle_of(size);
    const Point p = place.placement().to_canvas(middle);
    const auto& m = place.to_reference.m();
    return {p.x - middle.x, p.y - middle.y, std::atan2(m[3], m[0]) * 180 / std::numbers::pi, std::hypot(m[0], m[3])};
}

Matrix change_between(const MovedBy& now, const MovedBy& then, Size size) {
    const Point middle = middle_of(size);
    const Point from{middle.x + now.right_px, middle.y + now.down_px};
    return Matrix::shift(then.right_px - now.right_px, then.down_px - now.down_px) *
           turned_and_scaled((then.turn_degrees - now.turn_degrees) * std::numbers::pi / 180, then.scale / now.scale,
                             from);
}

Matrix turned_and_scaled(double radians, double scale, Point pivot) {
    const double c = scale * std::cos(radians);
    const double s = scale * std::sin(radians);
    return {{c, -s, pivot.x - c * pivot.x + s * pivot.y, s, c, pivot.y - s * pivot.x - c * pivot.y, 0, 0, 1}};
}

}  // namespace bp
