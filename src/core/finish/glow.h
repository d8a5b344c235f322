// A sky's uneven brightness and colour, evened.
#pragma once

#include <array>
#include <functional>
#include <memory>
#include <vector>

#include "finish/sheet.h"

namespace bp {

// Light of a sky without its stars somewhere, in 0 to 1 of the canvas each way.
struct SkySample {
    double x = 0, y = 0;
    std::array<double, 3> light{};
};

// A smooth surface of light over the canvas: a polynomial of fourth order in both directions, by channel.
struct GlowSurface {
    static constexpr int order = 4, terms = (order + 1) * (order + 2) / 2;
    std::array<std::array<double, terms>, 3> by_channel{};
    std::array<double, 3> usual{};  // the middle of what it is over the sky: what stays

    // x and y as samples have them.
    double at(int channel, double x, double y) const;
    std::size_t bytes() const { return sizeof(GlowSurface); }
    friend bool operator==(const GlowSurface&, const GlowSurface&) = default;
};

// The surface that samples lie on, but for those that lie far off it (least squares, weighed anew by Tukey's function
// until it settles). All is alike where there are too few of them to tell. Pure.
GlowSurface fit_glow(const std::vector<SkySample>& samples, int channels);

// Takes so much of what the surface has more than usual off the light, and adds what it has less: `strength` is 0 to 1.
// `sky`: how much of the pixels of a row from a column on is sky, 0 to 255; where none is given all of it. `canvas`: in
// pixels of the level.
using ReadSky = std::function<void(int y, int left, int width, unsigned char* out)>;
std::shared_ptr<const FinishTool> glow_tool(const GlowSurface& surface, double strength, const Rect& canvas,
                                            ReadSky sky);

}  // namespace bp
