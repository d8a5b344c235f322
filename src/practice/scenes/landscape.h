// Hills, water, clouds and stone that several scenes share.
#pragma once

#include "practice/canvas.h"

namespace bp::practice {

// The outline of a hill: y for x, around `base`, rising and falling by `swing`, with features `width` long.
std::function<double(double)> ridge(std::uint64_t seed, double base, double swing, double width);

// Paints everything below `waterline` as water that mirrors what is above: ripples of `ripple` scene units, tinted and
// dimmed towards the viewer.
void paint_water(Canvas& canvas, double waterline, double bottom, std::uint64_t seed, double ripple, Rgb tint,
                 double clarity);
// Where the mirror of a water point lies, for things that move.
Point mirrored_in_water(Point p, double waterline, std::uint64_t seed, double ripple);

// Masonry of `course` high stones: brightness factor around 1.
double masonry(std::uint64_t seed, Point p, double course);

}  // namespace bp::practice
