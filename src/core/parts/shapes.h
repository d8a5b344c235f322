// Shapes in masks.
#pragma once

#include <span>
#include <utility>

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
    friend bool operator==(const DrawnShape&, const DrawnShape&) = default;
};

// An ellipse or a ramp as it stands alone, at a place of the picture, 0 to 1. An ellipse falls from all to nothing over
// a share of the way from its border to its middle: `soft` 0 is a hard border, 1 falls from the very middle.
double share_at(const DrawnShape& shape, double soft, Point p);
Mask mask_of(const DrawnShape& shape, double soft, Size size);

// The mask with as much of the shape kept at least, or given back.
Mask with_shape(Mask mask, const DrawnShape& shape, bool keep);

// A mask of what lies along a polyline: all of it within `width` / 2, and falling to nothing over `soft` pixels about
// there.
Mask along(std::span<const Point> polyline, double width, double soft, Size size);

// The band along which a long and narrow mask lies: as long as what it keeps at half and more, and of the same area. Of
// one that along() made from two points it is the band between them, to within a pixel.
DrawnShape band_around(const Mask& mask);

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
// As much of the mask as the other keeps.
Mask within(Mask mask, const Mask& other);
// The mask without the other: at most what the other leaves.
Mask without(Mask mask, const Mask& other);
// Two masks of one size, and all that both keep left to the one of which more than the other keeps lies nearer: they
// part in the middle of where they met. One that keeps nothing alone is left nothing; of two alike the second stays.
std::pair<Mask, Mask> parted(Mask a, Mask b);

}  // namespace bp
