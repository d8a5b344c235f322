#include "practice/canvas.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "base/parallel.h"

namespace bp::practice {

Rgb srgb(int r, int g, int b) {
    static const std::array<float, 256> light = [] {
        std::array<float, 256> out{};
        for (std::size_t v = 0; v < out.size(); ++v) {
            const double e = double(v) / 255.0;
            out[v] = float(e <= 0.04045 ? e / 12.92 : std::pow((e + 0.055) / 1.055, 2.4));
        }
        return out;
    }();
    return {light[std::size_t(r)], light[std::size_t(g)], light[std::size_t(b)]};
}

Canvas::Canvas(Size picture, int margin)
    : light_({picture.width + 2 * margin, picture.height + 2 * margin}, 3),
      scale_(picture.width / scene_width),
      margin_(margin) {}

Canvas Canvas::clone() const {
    Canvas out({1, 1}, 0);
    out.light_ = light_.clone();
    out.scale_ = scale_;
    out.margin_ = margin_;
    return out;
}

Point Canvas::to_scene(double x, double y) const {
    return {(x - margin_ + 0.5) / scale_ - 0.5, (y - margin_ + 0.5) / scale_ - 0.5};
}

Point Canvas::to_pixel(Point p) const {
    return {(p.x + 0.5) * scale_ - 0.5 + margin_, (p.y + 0.5) * scale_ - 0.5 + margin_};
}

Rgb Canvas::at(Point scene) const {
    const Point p = to_pixel(scene);
    const int x = std::clamp(int(std::lround(p.x)), 0, light_.width() - 1);
    const int y = std::clamp(int(std::lround(p.y)), 0, light_.height() - 1);
    return {light_.at(x, y, 0), light_.at(x, y, 1), light_.at(x, y, 2)};
}

void Canvas::lighten(const Canvas& other) {
    auto& here = light_.data();
    const auto& there = other.light_.data();
    for (std::size_t i = 0; i < here.size(); ++i) here[i] = std::max(here[i], there[i]);
}

void Canvas::each(const std::function<Rgb(Point, Rgb)>& change) {
    parallel_for(0, light_.height(), [&](int y) {
        float* px = light_.row(y);
        for (int x = 0; x < light_.width(); ++x, px += 3) {
            const Rgb out = change(to_scene(x, y), {px[0], px[1], px[2]});
            px[0] = out.r;
            px[1] = out.g;
            px[2] = out.b;
        }
    });
}

Canvas::PixelBox Canvas::pixels_of(const Box& box, double grow) const {
    const Point a = to_pixel({box.left - grow, box.top - grow});
    const Point b = to_pixel({box.right + grow, box.bottom + grow});
    const auto clamp = [](double v, int limit) { return int(std::clamp(v, 0.0, double(limit))); };
    return {clamp(std::floor(a.x) - 1, light_.width()), clamp(std::floor(a.y) - 1, light_.height()),
            clamp(std::ceil(b.x) + 2, light_.width()), clamp(std::ceil(b.y) + 2, light_.height())};
}

void Canvas::blend(const Shape& shape, double edge, const std::function<Rgb(Point, Rgb, double)>& change) {
    const PixelBox box = pixels_of(shape.box, edge);
    const auto paint_row = [&](int y) {
        float* px = light_.row(y) + std::ptrdiff_t(box.left) * 3;
        for (int x = box.left; x < box.right; ++x, px += 3) {
            const Point p = to_scene(x, y);
            const double t = std::clamp(0.5 - shape.distance(p) / edge, 0.0, 1.0);
            if (t <= 0) continue;
            const Rgb out = change(p, {px[0], px[1], px[2]}, t);
            px[0] = out.r;
            px[1] = out.g;
            px[2] = out.b;
        }
    };
    // Small shapes, of which there are thousands, are done before other threads would have woken.
    constexpr long worth_sharing = 20000;
    if (long(box.right - box.left) * (box.bottom - box.top) > worth_sharing)
        parallel_for(box.top, std::max(box.top, box.bottom), paint_row);
    else
        for (int y = box.top; y < box.bottom; ++y) paint_row(y);
}

void Canvas::paint(const Shape& shape, const Shade& shade, double opacity) {
    blend(shape, 1.2 / scale_, [&](Point p, Rgb old, double t) { return mix(old, shade(p), t * opacity); });
}

void Canvas::paint(const Shape& shape, Rgb colour, double opacity) {
    paint(
        shape, [colour](Point) { return colour; }, opacity);
}

void Canvas::darken(const Shape& shape, double blur, double amount) {
    blend(shape, std::max(blur, 1.2 / scale_), [&](Point, Rgb old, double t) {
        const double s = t * t * (3 - 2 * t);
        return old * (1 - s * amount);
    });
}

void Canvas::glow(Point centre, double sigma, Rgb light) {
    const double reach = 4.2 * sigma;
    const Shape disc = circle(centre, reach);
    blend(disc, 1e-3, [&](Point p, Rgb old, double) {
        const double d2 = (p.x - centre.x) * (p.x - centre.x) + (p.y - centre.y) * (p.y - centre.y);
        return old + light * std::exp(-d2 / (2 * sigma * sigma));
    });
}

void Canvas::streak(Point a, Point b, double sigma, Rgb light, const std::function<double(double)>& along) {
    const double dx = b.x - a.x;
    const double dy = b.y - a.y;
    const double length2 = std::max(dx * dx + dy * dy, 1e-9);
    blend(capsule(a, b, 4 * sigma, 4 * sigma), 1e-3, [&](Point p, Rgb old, double) {
        const double t = std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / length2, 0.0, 1.0);
        const double ex = p.x - a.x - t * dx;
        const double ey = p.y - a.y - t * dy;
        return old + light * (along(t) * std::exp(-(ex * ex + ey * ey) / (2 * sigma * sigma)));
    });
}

}  // namespace bp::practice
