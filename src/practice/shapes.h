// Shapes as signed distances (negative inside, in scene units), after the usual analytic formulas.
#pragma once

#include <functional>
#include <vector>

#include "image/geometry.h"

namespace bp::practice {

struct Box {
    double left, top, right, bottom;
};

struct Shape {
    Box box;
    std::function<double(Point)> distance;
};

Shape circle(Point centre, double radius);
// Axis-aligned half axes; the distance is exact on the outline and close to it.
Shape ellipse(Point centre, double half_width, double half_height, double radians = 0);
// Round-ended bar from a (radius ra) to b (radius rb).
Shape capsule(Point a, Point b, double ra, double rb);
Shape bar(double left, double top, double right, double bottom, double rounding = 0);
Shape polygon(std::vector<Point> corners);
// A polyline of given width.
Shape rope(const std::vector<Point>& points, double half_width);
Shape join(std::vector<Shape> shapes);
Shape both(Shape a, Shape b);
Shape without(Shape a, Shape b);
// Mirrored about the vertical line x, and turned about a point (x towards y).
Shape mirrored(Shape shape, double x);
Shape turned(Shape shape, Point pivot, double radians);
Shape moved(Shape shape, double dx, double dy);
// Everything below the curve y = height(x) (y grows downwards).
Shape below(std::function<double(double)> height, Box box);

}  // namespace bp::practice
