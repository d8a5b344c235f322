#include "parts/shapes.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>

namespace bp {
namespace {

double distance_to_line(Point p, Point from, Point to) {
    const double dx = to.x - from.x;
    const double dy = to.y - from.y;
    const double squared = dx * dx + dy * dy;
    const double along =
        squared > 0 ? std::clamp(((p.x - from.x) * dx + (p.y - from.y) * dy) / squared, 0.0, 1.0) : 0.0;
    return std::hypot(p.x - from.x - along * dx, p.y - from.y - along * dy);
}

// Whether a band may have pixels of a square of the mask.
bool may_touch(const DrawnShape& band, const Rect& square) {
    const Point middle{square.left + square.width / 2.0, square.top + square.height / 2.0};
    const double half_diagonal = std::hypot(square.width, square.height) / 2;
    return distance_to_line(middle, band.from, band.to) <= band.width / 2 + half_diagonal;
}

}  // namespace

double DrawnShape::at(Point p) const {
    if (kind == ShapeKind::ramp) {
        const double dx = to.x - from.x, dy = to.y - from.y, squared = dx * dx + dy * dy;
        // One click: the half of the picture on the left.
        if (squared < 1) return p.x <= from.x ? 1 : 0;
        return 1 - std::clamp(((p.x - from.x) * dx + (p.y - from.y) * dy) / squared, 0.0, 1.0);
    }
    if (kind == ShapeKind::ellipse) {
        // A pixel that was clicked has an extent of its own.
        const double across = std::max(0.5, std::abs(to.x - from.x) / 2);
        const double down = std::max(0.5, std::abs(to.y - from.y) / 2);
        return std::hypot((p.x - (from.x + to.x) / 2) / across, (p.y - (from.y + to.y) / 2) / down) <= 1 ? 1 : 0;
    }
    return distance_to_line(p, from, to) <= width / 2 ? 1 : 0;
}

Rect DrawnShape::bounds() const {
    constexpr int furthest = 1 << 20;
    if (kind == ShapeKind::ramp) return {-furthest, -furthest, 2 * furthest, 2 * furthest};
    const double reach = kind == ShapeKind::band ? width / 2 + 1 : 1;
    const int left = int(std::floor(std::min(from.x, to.x) - reach));
    const int top = int(std::floor(std::min(from.y, to.y) - reach));
    return {left, top, int(std::ceil(std::max(from.x, to.x) + reach)) + 1 - left,
            int(std::ceil(std::max(from.y, to.y) + reach)) + 1 - top};
}

double share_at(const DrawnShape& shape, double soft, Point p) {
    if (shape.kind != ShapeKind::ellipse) return shape.at(p);
    const double across = std::max(std::abs(shape.to.x - shape.from.x) / 2, 0.5);
    const double down = std::max(std::abs(shape.to.y - shape.from.y) / 2, 0.5);
    const double u = (p.x - (shape.from.x + shape.to.x) / 2) / across;
    const double v = (p.y - (shape.from.y + shape.to.y) / 2) / down;
    const double way = std::sqrt(u * u + v * v);
    const double inner = 1 - soft;
    if (way <= inner) return 1;
    const double left = std::max(0.0, 1 - way) / std::max(soft, 1e-6);
    return left * left * (3 - 2 * left);
}

Mask mask_of(const DrawnShape& shape, double soft, Size size) {
    Mask out(size);
    out.edit(intersect(shape.bounds(), whole(size)), [&](int x, int y, std::uint8_t) {
        return std::uint8_t(std::lround(255 * share_at(shape, soft, {double(x), double(y)})));
    });
    return out;
}

Mask with_shape(Mask mask, const DrawnShape& shape, bool keep) {
    const auto change = [&](int x, int y, std::uint8_t old) {
        const auto share = std::uint8_t(std::lround(255 * shape.at({double(x), double(y)})));
        return keep ? std::max(old, share) : std::min(old, std::uint8_t(255 - share));
    };
    const Rect all = intersect(shape.bounds(), whole(mask.size()));
    if (shape.kind != ShapeKind::band) {
        mask.edit(all, change);
        return mask;
    }
    // A long band across a picture lies in few of its tiles.
    constexpr int side = Mask::tile;
    for (int top = all.top / side * side; top < all.bottom(); top += side)
        for (int left = all.left / side * side; left < all.right(); left += side) {
            const Rect square{left, top, side, side};
            if (may_touch(shape, square)) mask.edit(intersect(square, all), change);
        }
    return mask;
}

Mask along(std::span<const Point> polyline, double width, double soft, Size size) {
    const double reach = width / 2 + soft / 2 + 1;
    Mask out(size);
    for (std::size_t i = 0; i + 1 < polyline.size(); ++i) {
        const Point a = polyline[i], b = polyline[i + 1];
        const int left = int(std::floor(std::min(a.x, b.x) - reach)), top = int(std::floor(std::min(a.y, b.y) - reach));
        const Rect box{left, top, int(std::ceil(std::max(a.x, b.x) + reach)) - left + 1,
                       int(std::ceil(std::max(a.y, b.y) + reach)) - top + 1};
        out.edit(intersect(box, whole(size)), [&](int x, int y, std::uint8_t old) {
            const double share =
                (width / 2 - distance_to_line({double(x), double(y)}, a, b)) / std::max(soft, 1.0) + 0.5;
            return std::max(old, std::uint8_t(std::lround(255 * std::clamp(share, 0.0, 1.0))));
        });
    }
    return out;
}

DrawnShape band_around(const Mask& mask) {
    const Rect box = mask.bounds();
    double count = 0, x_sum = 0, y_sum = 0, xx = 0, yy = 0, xy = 0;
    const auto each = [&](auto at) {
        for (int y = 0; y < box.height; ++y)
            for (int x = 0; x < box.width; ++x)
                if (mask.at(box.left + x, box.top + y) >= 128) at(double(x), double(y));
    };
    each([&](double x, double y) {
        ++count;
        x_sum += x;
        y_sum += y;
        xx += x * x;
        yy += y * y;
        xy += x * y;
    });
    DrawnShape out{ShapeKind::band, {}, {}, 1};
    if (count == 0) return out;
    const Point middle{x_sum / count, y_sum / count};
    // The direction in which it reaches furthest: that of the larger eigenvalue of its moments of second order.
    const double angle = 0.5 * std::atan2(2 * (xy / count - middle.x * middle.y),
                                          xx / count - middle.x * middle.x - yy / count + middle.y * middle.y);
    const double c = std::cos(angle), s = std::sin(angle);
    double first = 0, last = 0;
    each([&](double x, double y) {
        const double on = (x - middle.x) * c + (y - middle.y) * s;
        first = std::min(first, on);
        last = std::max(last, on);
    });
    // With round ends its area is width * (length - width) + pi / 4 * width^2, and no longer than it is wide it is a
    // disc.
    constexpr double corners = 1 - std::numbers::pi / 4;
    const double length = last - first + 1;
    const double under = length * length - 4 * corners * count;
    out.width = std::min(length, (length - std::sqrt(std::max(0.0, under))) / (2 * corners));
    const auto at = [&](double on) { return Point{box.left + middle.x + on * c, box.top + middle.y + on * s}; };
    out.from = at(first - 0.5 + out.width / 2);
    out.to = at(last + 0.5 - out.width / 2);
    return out;
}

void add_outline(Mask& mask, const Raster8& outline, const Rect& box, int level) {
    const int unit = 1 << level;
    const Rect area{box.left * unit, box.top * unit, box.width * unit, box.height * unit};
    mask.edit_rows(intersect(area, whole(mask.size())), [&](int left, int y, std::span<std::uint8_t> values) {
        const std::uint8_t* row = outline.row((y >> level) - box.top);
        const int right = left + int(values.size());
        for (int x = left; x < right;) {
            const int next = std::min(right, ((x >> level) + 1) << level);
            const std::uint8_t more = row[(x >> level) - box.left];
            for (; more > 0 && x < next; ++x)
                values[std::size_t(x - left)] = std::max(values[std::size_t(x - left)], more);
            x = next;
        }
    });
}

Mask grown(const Mask& mask, double by) {
    const double reach = std::clamp(by, -widest_growth, widest_growth);
    const int around = int(std::ceil(std::max(0.0, reach))) + 2;
    const Rect bounds = mask.bounds();
    Mask out(mask.size());
    if (bounds.empty()) return out;
    const Rect box =
        intersect({bounds.left - around, bounds.top - around, bounds.width + 2 * around, bounds.height + 2 * around},
                  whole(mask.size()));
    // How far every pixel lies from the nearest one of the other kind.
    const bool more = reach >= 0;
    cv::Mat other(box.height, box.width, CV_8U), far;
    for (int y = 0; y < box.height; ++y)
        for (int x = 0; x < box.width; ++x) {
            const bool kept = mask.at(box.left + x, box.top + y) >= 128;
            other.at<std::uint8_t>(y, x) = kept == more ? 0 : 255;
        }
    cv::distanceTransform(other, far, cv::DIST_L2, cv::DIST_MASK_PRECISE);
    out.edit(box, [&](int x, int y, std::uint8_t) {
        const float d = far.at<float>(y - box.top, x - box.left);
        return std::uint8_t((more ? d <= reach : d > -reach) ? 255 : 0);
    });
    return out;
}

Mask swapped(const Mask& mask) {
    Mask out = mask;
    out.edit(whole(mask.size()), [](int, int, std::uint8_t v) { return std::uint8_t(255 - v); });
    return out;
}

Mask united(Mask mask, const Mask& other) {
    mask.edit(other.bounds(), [&](int x, int y, std::uint8_t v) { return std::max(v, other.at(x, y)); });
    return mask;
}

Mask within(Mask mask, const Mask& other) {
    mask.edit(mask.bounds(),
              [&](int x, int y, std::uint8_t v) { return std::uint8_t((v * other.at(x, y) + 127) / 255); });
    return mask;
}

Mask without(Mask mask, const Mask& other) {
    mask.edit(other.bounds(),
              [&](int x, int y, std::uint8_t v) { return std::min(v, std::uint8_t(255 - other.at(x, y))); });
    return mask;
}

std::pair<Mask, Mask> parted(Mask a, Mask b) {
    const Rect first = a.bounds(), second = b.bounds(), both = intersect(first, second);
    if (both.empty()) return {std::move(a), std::move(b)};
    const Rect box = unite(first, second);
    // How far every pixel lies from what the one keeps and the other does not.
    const auto from_own = [&](const Mask& own, const Mask& other) {
        cv::Mat away(box.height, box.width, CV_8U), out;
        for (int y = 0; y < box.height; ++y)
            for (int x = 0; x < box.width; ++x)
                away.at<std::uint8_t>(y, x) =
                    own.at(box.left + x, box.top + y) >= 128 && other.at(box.left + x, box.top + y) < 128 ? 0 : 255;
        cv::distanceTransform(away, out, cv::DIST_L2, cv::DIST_MASK_PRECISE);
        return out;
    };
    const cv::Mat from_first = from_own(a, b), from_second = from_own(b, a);
    const auto of_first = [&](int x, int y) {
        return from_first.at<float>(y - box.top, x - box.left) < from_second.at<float>(y - box.top, x - box.left);
    };
    const Mask before = a;
    a.edit(both, [&](int x, int y, std::uint8_t v) {
        return of_first(x, y) ? v : std::min(v, std::uint8_t(255 - b.at(x, y)));
    });
    b.edit(both, [&](int x, int y, std::uint8_t v) {
        return of_first(x, y) ? std::min(v, std::uint8_t(255 - before.at(x, y))) : v;
    });
    return {std::move(a), std::move(b)};
}

}  // namespace bp
