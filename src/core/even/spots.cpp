#include "even/spots.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "base/median.h"

namespace bp {
namespace {

constexpr double ring_from = 1.25;  // radii
constexpr double ring_to = 2.2;
constexpr double least_ring_px = 4;    // beyond the spot, so that small ones have a ring, too
constexpr double least_passing = 0.2;  // what holds back more cannot be brought back

double ring_inner(double radius) {
    return std::max(ring_from * radius, radius + 1.5);
}
double ring_outer(double radius) {
    return std::max(ring_to * radius, radius + 1.5 + least_ring_px);
}

// light = a + b x + c y, and how much the ring departs from it.
struct Plane {
    double a = 0, b = 0, c = 0;
    double spread = 0;
    double at(double x, double y) const { return a + b * x + c * y; }
};

// Least squares in 3 unknowns, by Cramer's rule.
Plane plane_through(const std::vector<std::array<double, 3>>& points, const std::vector<double>& weights) {
    double n = 0, x = 0, y = 0, xx = 0, xy = 0, yy = 0, v = 0, xv = 0, yv = 0;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const double w = weights[i];
        const auto& [px, py, pv] = points[i];
        n += w;
        x += w * px;
        y += w * py;
        xx += w * px * px;
        xy += w * px * py;
        yy += w * py * py;
        v += w * pv;
        xv += w * px * pv;
        yv += w * py * pv;
    }
    const double det = n * (xx * yy - xy * xy) - x * (x * yy - xy * y) + y * (x * xy - xx * y);
    Plane out;
    if (n <= 0 || std::abs(det) < 1e-9) {
        out.a = n > 0 ? v / n : 0;
        return out;
    }
    out.a = (v * (xx * yy - xy * xy) - x * (xv * yy - xy * yv) + y * (xv * xy - xx * yv)) / det;
    out.b = (n * (xv * yy - xy * yv) - v * (x * yy - xy * y) + y * (x * yv - xv * y)) / det;
    out.c = (n * (xx * yv - xv * xy) - x * (x * yv - xv * y) + v * (x * xy - xx * y)) / det;
    return out;
}

// Robust: what stands apart in the ring, a star or a branch, is left out after a first fit.
Plane plane_of_ring(const RasterF& light, const Rect& area, Point at, double radius) {
    std::vector<std::array<double, 3>> points;
    for (int y = 0; y < light.height(); ++y)
        for (int x = 0; x < light.width(); ++x) {
            const double dx = area.left + x - at.x;
            const double dy = area.top + y - at.y;
            const double d = std::hypot(dx, dy);
            if (d >= ring_inner(radius) && d <= ring_outer(radius)) points.push_back({dx, dy, light.at(x, y, 0)});
        }
    if (points.empty()) return {};
    std::vector<double> weights(points.size(), 1);
    Plane plane;
    for (int round = 0; round < 3; ++round) {
        plane = plane_through(points, weights);
        std::vector<double> off;
        off.reserve(points.size());
        for (const auto& [x, y, v] : points) off.push_back(std::abs(v - plane.at(x, y)));
        std::vector<double> sorted = off;
        plane.spread = 1.4826 * middle_of(sorted);
        for (std::size_t i = 0; i < points.size(); ++i) weights[i] = off[i] <= 2.5 * plane.spread + 1e-9 ? 1 : 0;
    }
    return plane;
}

// The light at a place of the sensor, straight between pixels; none outside of what is known.
std::optional<double> light_at(const RasterF& light, const Rect& area, Point p) {
    const double u = p.x - area.left;
    const double v = p.y - area.top;
    const int x = int(std::floor(u));
    const int y = int(std::floor(v));
    if (x < 0 || y < 0 || x + 1 >= light.width() || y + 1 >= light.height()) return std::nullopt;
    const double a = u - x;
    const double b = v - y;
    return (1 - b) * ((1 - a) * light.at(x, y, 0) + a * light.at(x + 1, y, 0)) +
           b * ((1 - a) * light.at(x, y + 1, 0) + a * light.at(x + 1, y + 1, 0));
}

struct Weighted {
    double value, weight;
};

double weighted_median(std::vector<Weighted>& values) {
    std::sort(values.begin(), values.end(), [](const Weighted& a, const Weighted& b) { return a.value < b.value; });
    double sum = 0;
    for (const Weighted& v : values) sum += v.weight;
    double half = 0;
    for (const Weighted& v : values) {
        half += v.weight;
        if (half >= sum / 2) return v.value;
    }
    return 1;
}

// How bright every view is beside the first, from what both show.
std::vector<double> gains_of(const std::vector<SpotView>& views, const Rect& area) {
    constexpr int points = 24;  // each way
    std::vector<double> out;
    for (const SpotView& view : views) {
        std::vector<double> ratios;
        for (int j = 0; j < points; ++j)
            for (int i = 0; i < points; ++i) {
                const Point p{area.left + (area.width - 1.0) * i / (points - 1),
                              area.top + (area.height - 1.0) * j / (points - 1)};
                const auto first = light_at(views.front().light, area, p);
                const auto other = light_at(view.light, area, view.place.to_frame(views.front().place.to_canvas(p)));
                if (first && other && *first > 1e-4) ratios.push_back(*other / *first);
            }
        out.push_back(ratios.empty() ? 1 : std::max(1e-3, middle_of(ratios)));
    }
    return out;
}

// A mean over a few pixels, wider for larger spots: few frames leave noise.
RasterF smoothed(const RasterF& in, int reach) {
    RasterF out(in.size(), 1);
    for (int y = 0; y < in.height(); ++y)
        for (int x = 0; x < in.width(); ++x) {
            double sum = 0, count = 0;
            for (int v = std::max(0, y - reach); v <= std::min(in.height() - 1, y + reach); ++v)
                for (int u = std::max(0, x - reach); u <= std::min(in.width() - 1, x + reach); ++u) {
                    sum += in.at(u, v, 0);
                    ++count;
                }
            out.at(x, y, 0) = float(sum / count);
        }
    return out;
}

}  // namespace

bool operator==(const SensorSpot& a, const SensorSpot& b) {
    return a.at == b.at && a.radius_px == b.radius_px && a.area == b.area &&
           (a.passes == b.passes || (a.passes && b.passes && a.passes->data() == b.passes->data()));
}

Rect around_spot(Point at, double radius_px) {
    const double reach = ring_outer(radius_px) + 1;
    const int left = int(std::floor(at.x - reach));
    const int top = int(std::floor(at.y - reach));
    return {left, top, int(std::ceil(at.x + reach)) + 1 - left, int(std::ceil(at.y + reach)) + 1 - top};
}

SensorSpot measured_spot(Point at, double radius_px, const std::vector<SpotView>& views, const Rect& area) {
    SensorSpot out{at, radius_px, intersect(around_spot(at, radius_px), area), nullptr};
    const Rect& here = out.area;
    std::vector<Plane> planes;
    std::vector<double> weights;
    for (const SpotView& view : views) {
        const Plane plane = plane_of_ring(view.light, area, at, radius_px);
        const double level = std::max(1e-6, plane.a);
        const double unrest = plane.spread / level;
        planes.push_back(plane);
        // Black frames say nothing.
        weights.push_back(plane.a > 1e-4 ? 1 / (unrest * unrest + 1e-5) : 0);
    }
    const std::vector<double> gains = gains_of(views, area);
    // What the other views show at the place that a view has at sensor pixel (x, y), and what all of them together say.
    std::vector<double> others;
    const auto shown_by_others = [&](std::size_t k, int x, int y) -> std::optional<double> {
        constexpr std::size_t enough = 3;
        others.clear();
        const Point scene = views[k].place.to_canvas({double(x), double(y)});
        for (std::size_t o = 0; o < views.size(); ++o) {
            if (o == k || weights[o] == 0) continue;
            const Point p = views[o].place.to_frame(scene);
            if (std::hypot(p.x - at.x, p.y - at.y) < ring_inner(radius_px)) continue;
            const auto v = light_at(views[o].light, area, p);
            if (v) others.push_back(*v / gains[o]);
        }
        if (others.size() < enough) return std::nullopt;
        return middle_of(others) * gains[k];
    };
    RasterF passing(here.size(), 1);
    std::fill(passing.data().begin(), passing.data().end(), 1.0F);
    std::vector<Weighted> values;
    for (int y = here.top; y < here.bottom(); ++y)
        for (int x = here.left; x < here.right(); ++x) {
            if (std::hypot(x - at.x, y - at.y) > ring_inner(radius_px)) continue;
            values.clear();
            std::vector<Weighted> by_plane;
            for (std::size_t k = 0; k < views.size(); ++k) {
                if (weights[k] == 0) continue;
                const double seen = views[k].light.at(x - area.left, y - area.top, 0);
                if (const auto expected = shown_by_others(k, x, y))
                    values.push_back({seen / std::max(1e-6, *expected), 1});
                by_plane.push_back({seen / std::max(1e-6, planes[k].at(x - at.x, y - at.y)), weights[k]});
            }
            std::vector<Weighted>& told = 2 * values.size() >= by_plane.size() ? values : by_plane;
            if (!told.empty()) passing.at(x - here.left, y - here.top, 0) = float(weighted_median(told));
        }
    const RasterF even = smoothed(passing, std::max(1, int(radius_px / 8)));
    auto passes = std::make_shared<Raster16>(here.size(), 1);
    for (int y = 0; y < here.height; ++y)
        for (int x = 0; x < here.width; ++x) {
            const double d = std::hypot(here.left + x - at.x, here.top + y - at.y);
            // Goes over into what is left alone.
            const double rim = (ring_inner(radius_px) - d) / (ring_inner(radius_px) - radius_px);
            const double share = std::clamp(rim, 0.0, 1.0);
            const double through = std::clamp(double(even.at(x, y, 0)), least_passing, 1.0);
            passes->at(x, y, 0) = std::uint16_t(std::lround(65535 * (1 - share * (1 - through))));
        }
    out.passes = std::move(passes);
    return out;
}

SensorSpot at_level(const SensorSpot& spot, int level) {
    if (level == 0) return spot;
    const double unit = 1 << level;
    SensorSpot out{
        {(spot.at.x + 0.5) / unit - 0.5, (spot.at.y + 0.5) / unit - 0.5}, spot.radius_px / unit, {}, nullptr};
    out.area = at_level(spot.area, level);
    auto passes = std::make_shared<Raster16>(out.area.size(), 1);
    for (int y = 0; y < out.area.height; ++y)
        for (int x = 0; x < out.area.width; ++x) {
            double sum = 0;
            for (int v = 0; v < int(unit); ++v)
                for (int u = 0; u < int(unit); ++u) {
                    const int at_x = (out.area.left + x) * int(unit) + u - spot.area.left;
                    const int at_y = (out.area.top + y) * int(unit) + v - spot.area.top;
                    const bool inside = at_x >= 0 && at_y >= 0 && at_x < spot.area.width && at_y < spot.area.height;
                    sum += inside ? spot.passes->at(at_x, at_y, 0) : 65535;
                }
            passes->at(x, y, 0) = std::uint16_t(std::lround(sum / (unit * unit)));
        }
    out.passes = std::move(passes);
    return out;
}

RasterF light_beside(const RasterF& light, int side) {
    // Sums over everything above and to the left: any square costs four of them.
    const int width = light.width();
    std::vector<double> sums(std::size_t(width + 1) * std::size_t(light.height() + 1), 0);
    const auto sum_at = [&](int x, int y) -> double& {
        return sums[std::size_t(y) * std::size_t(width + 1) + std::size_t(x)];
    };
    for (int y = 0; y < light.height(); ++y)
        for (int x = 0; x < width; ++x)
            sum_at(x + 1, y + 1) = light.at(x, y, 0) + sum_at(x, y + 1) + sum_at(x + 1, y) - sum_at(x, y);
    RasterF out(light.size(), 1);
    const int half = side / 2;
    for (int y = 0; y < light.height(); ++y)
        for (int x = 0; x < width; ++x) {
            const int left = std::max(0, x - half), right = std::min(width, x + half + 1);
            const int top = std::max(0, y - half), bottom = std::min(light.height(), y + half + 1);
            const double mean =
                (sum_at(right, bottom) - sum_at(left, bottom) - sum_at(right, top) + sum_at(left, top)) /
                (double(right - left) * (bottom - top));
            out.at(x, y, 0) = float(light.at(x, y, 0) / std::max(1e-6, mean));
        }
    return out;
}

namespace {

// The middle of what is dark about a place.
Point middle_of_dark(const RasterF& common, const SpotGuess& guess) {
    const double level = 1 - guess.depth / 4;  // of what is beside: less dark than that is noise
    Point at = guess.at;
    for (int round = 0; round < 3; ++round) {
        double sum = 0, across = 0, down = 0;
        const int reach = int(std::ceil(ring_inner(guess.radius_px)));
        for (int y = int(at.y) - reach; y <= int(at.y) + reach; ++y)
            for (int x = int(at.x) - reach; x <= int(at.x) + reach; ++x) {
                if (x < 0 || y < 0 || x >= common.width() || y >= common.height()) continue;
                if (std::hypot(x - at.x, y - at.y) > reach) continue;
                const double dark = std::max(0.0, level - double(common.at(x, y, 0)));
                sum += dark;
                across += dark * x;
                down += dark * y;
            }
        if (sum <= 0) break;
        at = {across / sum, down / sum};
    }
    return at;
}

// How much a place departs from being the same all around, of its depth. The shadow of dust is round; a tree is not.
double unroundness(const RasterF& common, const SpotGuess& guess, Point at) {
    const int reach = int(std::ceil(ring_inner(guess.radius_px)));
    std::vector<double> sum(std::size_t(reach) + 2, 0), squares(sum.size(), 0), count(sum.size(), 0);
    for (int y = int(at.y) - reach; y <= int(at.y) + reach; ++y)
        for (int x = int(at.x) - reach; x <= int(at.x) + reach; ++x) {
            const double d = std::hypot(x - at.x, y - at.y);
            if (d > reach || x < 0 || y < 0 || x >= common.width() || y >= common.height()) continue;
            const double v = common.at(x, y, 0);
            // Shared between the two circles that it lies between.
            const auto circle = std::size_t(d);
            for (const auto& [k, w] :
                 {std::pair{circle, 1 - (d - double(circle))}, std::pair{circle + 1, d - double(circle)}}) {
                sum[k] += w * v;
                squares[k] += w * v * v;
                count[k] += w;
            }
        }
    double off = 0, all = 0;
    for (std::size_t k = 0; k < sum.size(); ++k) {
        if (count[k] <= 0) continue;
        const double mean = sum[k] / count[k];
        off += std::max(0.0, squares[k] - mean * sum[k]);
        all += count[k];
    }
    return std::sqrt(off / all) / guess.depth;
}

}  // namespace

std::vector<SpotGuess> guess_spots(const RasterF& common, const SpotSearch& wanted) {
    constexpr double least_depth = 0.015;
    constexpr double most_unroundness = 0.15;
    constexpr std::size_t most = 40;
    std::vector<SpotGuess> found;
    // Mean over a disc, and mean and spread over a ring, at a place and size.
    const auto look = [&](int x, int y, double radius) {
        SpotGuess out{{double(x), double(y)}, radius, 0, 0};
        const int reach = int(std::ceil(ring_outer(radius)));
        if (x < reach || y < reach || x >= common.width() - reach || y >= common.height() - reach) return out;
        double disc = 0, disc_count = 0, ring = 0, squares = 0, count = 0;
        std::array<double, 4> quarters{};
        std::array<double, 4> quarter_counts{};
        for (int dy = -reach; dy <= reach; ++dy)
            for (int dx = -reach; dx <= reach; ++dx) {
                const double d = std::hypot(dx, dy);
                const double v = common.at(x + dx, y + dy, 0);
                if (d <= 0.7 * radius) {
                    disc += v;
                    ++disc_count;
                } else if (d >= ring_inner(radius) && d <= ring_outer(radius)) {
                    ring += v;
                    squares += v * v;
                    ++count;
                    const std::size_t quarter = (dx > 0 ? 1U : 0U) + (dy > 0 ? 2U : 0U);
                    quarters[quarter] += v;
                    ++quarter_counts[quarter];
                }
            }
        const double mean = ring / count;
        const double unrest = std::sqrt(std::max(0.0, squares / count - mean * mean));
        const double depth = 1 - disc / disc_count / mean;
        // Dark on all sides of it: an edge or a line is brighter on some only.
        double least = 1;
        for (std::size_t q = 0; q < 4; ++q)
            least = std::min(least, 1 - disc / disc_count / (quarters[q] / quarter_counts[q]));
        if (least > least_depth && least > wanted.least_clearness * unrest) {
            out.depth = depth;
            out.clearness = least / std::max(1e-4, unrest);
        }
        return out;
    };
    constexpr double larger_by = 1.4;
    const double smallest = wanted.smallest_px;
    const int sizes = 1 + std::max(0, int(std::floor(std::log(wanted.largest_px / smallest) / std::log(larger_by))));
    for (int k = 0; k < sizes; ++k) {
        const double radius = smallest * std::pow(larger_by, k);
        const int step = std::max(1, int(radius / 2));
        for (int y = 0; y < common.height(); y += step)
            for (int x = 0; x < common.width(); x += step) {
                // Most places are no darker than what is around: a glance is enough.
                if (common.at(x, y, 0) > 1 - least_depth) continue;
                const SpotGuess guess = look(x, y, radius);
                if (guess.depth > 0) found.push_back(guess);
            }
    }
    std::sort(found.begin(), found.end(),
              [](const SpotGuess& a, const SpotGuess& b) { return a.clearness > b.clearness; });
    std::vector<SpotGuess> out;
    for (SpotGuess& guess : found) {
        const bool known = std::any_of(out.begin(), out.end(), [&](const SpotGuess& o) {
            return std::hypot(o.at.x - guess.at.x, o.at.y - guess.at.y) < o.radius_px + guess.radius_px;
        });
        if (known || out.size() == most) continue;
        const Point middle = middle_of_dark(common, guess);
        if (unroundness(common, guess, middle) > most_unroundness) continue;
        guess.at = middle;
        out.push_back(guess);
    }
    return out;
}

}  // namespace bp
