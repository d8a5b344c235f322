#include "finish/curve.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

std::vector<Point> with_ends(const Curve& curve) {
    std::vector<Point> out = curve.points;
    if (out.empty() || out.front().x > 0) out.insert(out.begin(), Point{0, 0});
    if (out.back().x < 1) out.push_back({1, 1});
    return out;
}

double slope(const Point& a, const Point& b) {
    return (b.y - a.y) / (b.x - a.x);
}

// Where the curve does not overshoot: nothing at a turn, else the harmonic mean of the slopes to either side.
double tangent(const std::vector<Point>& points, std::size_t at) {
    if (at == 0) return slope(points[0], points[1]);
    if (at + 1 == points.size()) return slope(points[at - 1], points[at]);
    const double before = slope(points[at - 1], points[at]), after = slope(points[at], points[at + 1]);
    if (before * after <= 0) return 0;
    const double left = points[at].x - points[at - 1].x, right = points[at + 1].x - points[at].x;
    const double a = 2 * right + left, b = right + 2 * left;
    return (a + b) / (a / before + b / after);
}

}  // namespace

double curve_at(const Curve& curve, double tone) {
    if (curve.points.empty()) return tone;
    const std::vector<Point> points = with_ends(curve);
    if (tone <= 0) return points.front().y;
    if (tone >= 1) return points.back().y + (tone - 1);
    const auto after =
        std::upper_bound(points.begin(), points.end(), tone, [](double v, const Point& p) { return v < p.x; });
    const auto i = std::size_t(after - points.begin()) - 1;
    const Point &a = points[i], &b = points[i + 1];
    const double width = b.x - a.x, t = (tone - a.x) / width;
    const double from = tangent(points, i) * width, to = tangent(points, i + 1) * width;
    const double square = t * t, cube = square * t;
    return (2 * cube - 3 * square + 1) * a.y + (cube - 2 * square + t) * from + (3 * square - 2 * cube) * b.y +
           (cube - square) * to;
}

Curve tidied(Curve curve) {
    std::erase_if(curve.points, [](const Point& p) { return !std::isfinite(p.x) || !std::isfinite(p.y); });
    for (Point& p : curve.points) p = {std::clamp(p.x, 0.0, 1.0), std::clamp(p.y, 0.0, 1.0)};
    std::stable_sort(curve.points.begin(), curve.points.end(),
                     [](const Point& a, const Point& b) { return a.x < b.x; });
    Curve out;
    for (Point p : curve.points) {
        if (out.points.size() == Curve::most_points) break;
        if (!out.points.empty() && p.x < out.points.back().x + Curve::nearest) continue;
        // What lies so near an end that the curve would be a wall there is that end.
        if (p.x < Curve::nearest) p.x = 0;
        if (p.x > 1 - Curve::nearest) p.x = 1;
        if (!out.points.empty()) p.y = std::max(p.y, out.points.back().y);
        out.points.push_back(p);
    }
    return out;
}

}  // namespace bp
