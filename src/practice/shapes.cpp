#include "practice/shapes.h"

#include <algorithm>
#include <cmath>
#include <memory>

namespace bp::practice {
namespace {

// Far from the limits of numbers, where std::hypot takes several times as long: shapes are asked millions of times.
double length(double x, double y) {
    return std::sqrt(x * x + y * y);
}

Box grown(const Box& box, double by) {
    return {box.left - by, box.top - by, box.right + by, box.bottom + by};
}

Box around(const std::vector<Point>& points, double by) {
    Box box{points[0].x, points[0].y, points[0].x, points[0].y};
    for (const Point& p : points)
        box = {std::min(box.left, p.x), std::min(box.top, p.y), std::max(box.right, p.x), std::max(box.bottom, p.y)};
    return grown(box, by);
}

double segment_distance(Point p, Point a, Point b, double& t) {
    const double dx = b.x - a.x;
    const double dy = b.y - a.y;
    const double length2 = dx * dx + dy * dy;
    t = length2 > 0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / length2, 0.0, 1.0) : 0.0;
    return length(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

Point rotate(Point p, Point pivot, double radians) {
    const double c = std::cos(radians);
    const double s = std::sin(radians);
    return {pivot.x + c * (p.x - pivot.x) - s * (p.y - pivot.y), pivot.y + s * (p.x - pivot.x) + c * (p.y - pivot.y)};
}

}  // namespace

Shape circle(Point c, double radius) {
    return {{c.x - radius, c.y - radius, c.x + radius, c.y + radius},
            [=](Point p) { return length(p.x - c.x, p.y - c.y) - radius; }};
}

Shape ellipse(Point c, double a, double b, double radians) {
    const double most = std::max(a, b);
    return {{c.x - most, c.y - most, c.x + most, c.y + most}, [=](Point p) {
                const Point q = rotate(p, c, -radians);
                const double x = q.x - c.x;
                const double y = q.y - c.y;
                const double k0 = length(x / a, y / b);
                const double k1 = length(x / (a * a), y / (b * b));
                return k1 < 1e-9 ? -std::min(a, b) : k0 * (k0 - 1) / k1;
            }};
}

Shape capsule(Point a, Point b, double ra, double rb) {
    return {around({a, b}, std::max(ra, rb)), [=](Point p) {
                double t = 0;
                const double d = segment_distance(p, a, b, t);
                return d - (ra + (rb - ra) * t);
            }};
}

Shape bar(double left, double top, double right, double bottom, double rounding) {
    return {{left, top, right, bottom}, [=](Point p) {
                const double x = std::abs(p.x - (left + right) / 2) - (right - left) / 2 + rounding;
                const double y = std::abs(p.y - (top + bottom) / 2) - (bottom - top) / 2 + rounding;
                return length(std::max(x, 0.0), std::max(y, 0.0)) + std::min(std::max(x, y), 0.0) - rounding;
            }};
}

Shape polygon(std::vector<Point> corners) {
    const Box box = around(corners, 0);
    return {box, [corners = std::move(corners)](Point p) {
                double best = 1e18;
                bool inside = false;
                for (std::size_t i = 0, j = corners.size() - 1; i < corners.size(); j = i++) {
                    double t = 0;
                    best = std::min(best, segment_distance(p, corners[i], corners[j], t));
                    if ((corners[i].y > p.y) != (corners[j].y > p.y) &&
                        p.x < (corners[j].x - corners[i].x) * (p.y - corners[i].y) / (corners[j].y - corners[i].y) +
                                  corners[i].x)
                        inside = !inside;
                }
                return inside ? -best : best;
            }};
}

Shape rope(const std::vector<Point>& points, double half_width) {
    return {around(points, half_width), [=](Point p) {
                double best = 1e18;
                double t = 0;
                for (std::size_t i = 0; i + 1 < points.size(); ++i)
                    best = std::min(best, segment_distance(p, points[i], points[i + 1], t));
                return best - half_width;
            }};
}

Shape join(std::vector<Shape> shapes) {
    Box box = shapes[0].box;
    for (const Shape& s : shapes)
        box = {std::min(box.left, s.box.left), std::min(box.top, s.box.top), std::max(box.right, s.box.right),
               std::max(box.bottom, s.box.bottom)};
    return {box, [shapes = std::move(shapes)](Point p) {
                double best = 1e18;
                for (const Shape& s : shapes) best = std::min(best, s.distance(p));
                return best;
            }};
}

Shape both(Shape a, Shape b) {
    const Box box{std::max(a.box.left, b.box.left), std::max(a.box.top, b.box.top), std::min(a.box.right, b.box.right),
                  std::min(a.box.bottom, b.box.bottom)};
    return {box, [a = std::move(a), b = std::move(b)](Point p) { return std::max(a.distance(p), b.distance(p)); }};
}

Shape without(Shape a, Shape b) {
    const Box box = a.box;
    return {box, [a = std::move(a), b = std::move(b)](Point p) { return std::max(a.distance(p), -b.distance(p)); }};
}

Shape mirrored(Shape shape, double x) {
    const Box box{2 * x - shape.box.right, shape.box.top, 2 * x - shape.box.left, shape.box.bottom};
    return {box, [shape = std::move(shape), x](Point p) { return shape.distance({2 * x - p.x, p.y}); }};
}

Shape turned(Shape shape, Point pivot, double radians) {
    const Box& b = shape.box;
    std::vector<Point> corners{{b.left, b.top}, {b.right, b.top}, {b.right, b.bottom}, {b.left, b.bottom}};
    for (Point& c : corners) c = rotate(c, pivot, radians);
    const Box box = around(corners, 0);
    return {box,
            [shape = std::move(shape), pivot, radians](Point p) { return shape.distance(rotate(p, pivot, -radians)); }};
}

Shape moved(Shape shape, double dx, double dy) {
    const Box box{shape.box.left + dx, shape.box.top + dy, shape.box.right + dx, shape.box.bottom + dy};
    return {box, [shape = std::move(shape), dx, dy](Point p) { return shape.distance({p.x - dx, p.y - dy}); }};
}

Shape below(std::function<double(double)> height, Box box) {
    return {box, [height = std::move(height)](Point p) { return height(p.x) - p.y; }};
}

}  // namespace bp::practice
