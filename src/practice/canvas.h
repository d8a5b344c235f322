// A canvas of linear light that scenes are painted on.
//
// Scenes are painted in scene units: 1600 wide and 1067 high whatever the number of pixels, the centre of the top-left
// pixel of a 1600 x 1067 picture at (0, 0). A canvas may reach beyond the picture, for cameras that move.
#pragma once

#include <functional>

#include "image/geometry.h"
#include "image/raster.h"
#include "practice/shapes.h"

namespace bp::practice {

constexpr double scene_width = 1600;
constexpr double scene_height = 1067;

// Linear light, 1 is the white of the picture; may be above.
struct Rgb {
    float r = 0;
    float g = 0;
    float b = 0;
};

inline Rgb operator+(Rgb a, Rgb b) {
    return {a.r + b.r, a.g + b.g, a.b + b.b};
}
inline Rgb operator*(Rgb a, double k) {
    return {float(a.r * k), float(a.g * k), float(a.b * k)};
}
inline Rgb operator*(Rgb a, Rgb b) {
    return {a.r * b.r, a.g * b.g, a.b * b.b};
}
inline Rgb mix(Rgb a, Rgb b, double t) {
    return a * (1 - t) + b * t;
}
// From sRGB values of 0 to 255, as one picks colours by eye.
Rgb srgb(int r, int g, int b);

using Shade = std::function<Rgb(Point)>;

class Canvas {
  public:
    // `picture`: pixels of the picture itself; `margin`: pixels painted beyond each edge.
    Canvas(Size picture, int margin);
    Canvas clone() const;

    const RasterF& light() const { return light_; }
    RasterF& light() { return light_; }
    double scale() const { return scale_; }  // pixels a scene unit
    int margin() const { return margin_; }
    Point to_scene(double x, double y) const;  // from canvas pixels
    Point to_pixel(Point scene) const;         // to canvas pixels
    Rgb at(Point scene) const;                 // nearest pixel, the edge repeated

    // Every sample becomes the lighter one of both; `other` is as large.
    void lighten(const Canvas& other);
    // Every pixel anew: out = change(place, old).
    void each(const std::function<Rgb(Point, Rgb)>& change);
    void paint(const Shape& shape, const Shade& shade, double opacity = 1);
    void paint(const Shape& shape, Rgb colour, double opacity = 1);
    // Multiplies light by 1 - amount within a shape whose edge falls over `blur` scene units, as a soft shadow does.
    void darken(const Shape& shape, double blur, double amount);
    // Adds light that falls off as a Gaussian of `sigma` scene units.
    void glow(Point centre, double sigma, Rgb light);
    // Adds a line of light `sigma` wide whose brightness along its length (0 to 1) is given.
    void streak(Point a, Point b, double sigma, Rgb light, const std::function<double(double)>& along);

  private:
    struct PixelBox {
        int left, top, right, bottom;
    };
    PixelBox pixels_of(const Box& box, double grow) const;
    void blend(const Shape& shape, double edge, const std::function<Rgb(Point, Rgb, double)>& change);

    RasterF light_;
    double scale_ = 1;
    int margin_ = 0;
};

}  // namespace bp::practice
