// Shapes in masks.
#pragma once

#include <span>

#include "image/mask.h"

namespace bp {

enum class ShapeKind { ellipse, band };

// What a drag from one point to another draws: the ellipse that fills the rectangle between them, or a straight band of
// a width from the one to the other with round ends. In pixels of the mask.
struct DrawnShape {
    ShapeKind kind = ShapeKind::ellipse;
    Point from, to;
    double width = 1;  // of a band

    // True for a pixel whose centre lies in it.
    bool has(Point p) const;
    Rect bounds() const;
};

// The mask with all of the shape kept, or given back.
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

}  // namespace bp
