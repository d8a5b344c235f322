#include "align/pole.h"

#include <cmath>

namespace bp {
namespace {

// Axis of a frame's turn in the reference's camera, as long as the sine of its angle.
std::array<double, 3> axis_of(const Alignment& frame) {
    const Lens& lens = *frame.lens;
    const Matrix to_pixels{{lens.unit, 0, lens.middle.x, 0, lens.unit, lens.middle.y, 0, 0, 1}};
    const Matrix turn = inverse(to_pixels) * frame.to_reference * to_pixels;
    const auto& m = turn.m();
    const double det =
        m[0] * (m[4] * m[8] - m[5] * m[7]) - m[1] * (m[3] * m[8] - m[5] * m[6]) + m[2] * (m[3] * m[7] - m[4] * m[6]);
    const double scale = 2 * std::cbrt(det);
    return {(m[7] - m[5]) / scale, (m[2] - m[6]) / scale, (m[3] - m[1]) / scale};
}

}  // namespace

std::optional<Point> pole_of(std::span<const Alignment> frames) {
    constexpr double least = 0.0017;  // a tenth of a degree
    constexpr double ahead = 0.05;    // of the axis's length
    double longest = least;
    std::optional<Point> out;
    for (const Alignment& frame : frames) {
        if (!frame.lens) continue;
        const auto axis = axis_of(frame);
        const double length = std::hypot(axis[0], axis[1], axis[2]);
        if (length <= longest) continue;
        longest = length;
        // Either end of the axis is a pole.
        out.reset();
        if (std::abs(axis[2]) < ahead * length) continue;
        const Lens& lens = *frame.lens;
        out = lens.seen({lens.middle.x + lens.unit * axis[0] / axis[2], lens.middle.y + lens.unit * axis[1] / axis[2]});
    }
    return out;
}

}  // namespace bp
