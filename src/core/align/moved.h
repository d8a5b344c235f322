// A frame's place in the numbers that a person knows.
#pragma once

#include "align/align.h"

namespace bp {

struct MovedBy {
    double right_px = 0;  // of the middle of the picture
    double down_px = 0;
    double turn_degrees = 0;  // with the clock
    double scale = 1;
    friend bool operator==(const MovedBy&, const MovedBy&) = default;
};

MovedBy moved_by(const Alignment& place, Size size);

// From canvas to canvas: what moves a frame that lies by `now` so that it lies by `then`.
Matrix change_between(const MovedBy& now, const MovedBy& then, Size size);

// Turns by `radians` (with the clock) and scales about a point of the canvas.
Matrix turned_and_scaled(double radians, double scale, Point pivot);

}  // namespace bp
