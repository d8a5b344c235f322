#include "parts/place.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace bp {
namespace {

constexpr double degree = std::numbers::pi / 180;

Point middle_of(Size size) {
    return {(size.width - 1) / 2.0, (size.height - 1) / 2.0};
}

}  // namespace

Matrix matrix_of(const PartPlace& place, Size reference) {
    const Point middle = middle_of(reference);
    const double c = place.scale * std::cos(place.turn_degrees * degree);
    const double s = place.scale * std::sin(place.turn_degrees * degree);
    const double across = place.mirrored ? -1 : 1;
    return Matrix::shift(middle.x + place.moved.x, middle.y + place.moved.y) *
           Matrix({c * across, -s, 0, s * across, c, 0, 0, 0, 1}) * Matrix::shift(-middle.x, -middle.y);
}

PartPlace place_of(const Matrix& matrix, Size reference) {
    const auto& m = matrix.m();
    PartPlace out;
    out.mirrored = matrix.determinant() < 0;
    const double across = out.mirrored ? -1 : 1;
    out.scale = std::clamp(std::hypot(m[0], m[3]), PartPlace::smallest, PartPlace::largest);
    out.turn_degrees = std::clamp(std::atan2(m[3] * across, m[0] * across) / degree, -180.0, 180.0);
    const Point middle = middle_of(reference), to = matrix(middle);
    out.moved = {to.x - middle.x, to.y - middle.y};
    return out;
}

}  // namespace bp
