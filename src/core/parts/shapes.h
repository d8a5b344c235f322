// Shapes in masks.
#pragma once

#include <span>

#include "image/mask.h"

namespace bp {

enum class ShapeKind { ellipse, band, ramp };

// What a drag from one point to another draws: the ellipse that fills the rectangle between them; a straight band of
// a width from the one to the other with round ends; or a ramp over all of the picture, that is whole on the side of
// the first, nothing on that of the second, and falls evenly from the one to the other. In pixels of the mask.
struct DrawnShape {
    ShapeKind kind = ShapeKind::ellipse;
    Point from, to;
    double width = 1;  // of a band

    // How much of it there is at a pixel's centre, 0 to 1: all or nothing but for a ramp.
    double at(Point p) const;
    bool has(Point p) const { return at(p) >= 0.5; }
    Rect bounds() const;  // of a ramp all there is
};

// The mask with as much of the shape kept at least, or given back.
Mask with_shape(Mask mask, const DrawnShape& shape, bool keep);

// A mask of what lies along a polyline: all of it within `width` / 2, and falling to nothing over `soft` pixels about
// there.
Mask along(std::span<const Point> polyline, double width, double soft, Size size);

// Adds to a mask what an outline found at a level keeps: `outline` is 255 there, and lies in `box` of the level.
void add_outline(Mask& mask, const Raster8& outline, const Rect& box, int level);

// A mask of which all that is kept at half and more reaches `by` pixels further, up to widest_growth, and is kept
// whole; for one below 0 so much less. The border is hard.
Mask grown(const Mask& mask, double by);
inline constexpr double widest_growth = 500;
// A mask that keeps what this one gives back, by as much.
Mask swapped(const Mask& mask);
// Both masks together: the larger value everywhere.
Mask united(Mask mask, const Mask& other);
// The mask without the other: at most what the other leaves.
Mask without(Mask mask, const Mask& other);

}  // namespace bp
