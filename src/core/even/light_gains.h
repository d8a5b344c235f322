// How bright one frame is beside another, unmoved by what moves and by what is clipped.
#pragma once

#include <array>
#include <functional>
#include <optional>
#include <string_view>
#include <vector>

#include "image/geometry.h"
#include "image/profile.h"
#include "image/raster.h"

namespace bp {

enum class Levelling { off, light, colour };
std::string_view name_of(Levelling kind);
std::optional<Levelling> levelling_named(std::string_view name);

// Gains of linear light that bring a frame to the reference, by channel. All alike when light alone is levelled.
struct LightGains {
    std::array<double, 3> gain{1, 1, 1};
    bool by_person = false;  // no measuring overrides it
    friend bool operator==(const LightGains&, const LightGains&) = default;
};

// Mean linear light of small squares of a picture, by channel.
struct LightGrid {
    static constexpr int side = 4;              // pixels
    Size size;                                  // in squares; what does not fill a square is left out
    std::vector<std::array<float, 3>> squares;  // negative where a sample was clipped
};
LightGrid light_grid(const Raster16& picture, const LightCurve& curve);

// The gains that bring `frame` to `reference`. `to_frame` leads from a pixel of the reference's picture to one of the
// frame's picture. The ratio that most of the squares agree on: the shortest half of all ratios (Rousseeuw 1984), then
// biweight steps (Tukey) from there. None when too few squares can be compared: black or clipped frames.
std::optional<LightGains> gains_between(const LightGrid& reference, const LightGrid& frame,
                                        const std::function<Point(Point)>& to_frame, Levelling kind);

}  // namespace bp
