#include "align/pole.h"

#include <cmath>

#include "align/sky_model.h"

namespace bp {

std::optional<Point> pole_of(std::span<const Alignment> frames) {
    constexpr double least = 0.0017;  // a tenth of a degree
    constexpr double ahead = 0.05;    // of the axis's length
    double longest = least;
    std::optional<Point> out;
    for (const Alignment& frame : frames) {
        if (!frame.lens) continue;
        const auto axis = turn_of(frame);
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
