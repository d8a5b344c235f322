// One number a pixel, in a piece of the picture. Internal to the room.
#pragma once

#include <array>
#include <functional>
#include <span>
#include <vector>

#include "finish/sheet.h"

namespace bp {

struct Plane {
    Rect area;
    RawVector<float> values;  // undefined at first

    explicit Plane(const Rect& of) : area(of), values(std::size_t(of.width) * std::size_t(of.height)) {}
    float* row(int y) { return values.data() + std::size_t(y - area.top) * std::size_t(area.width); }
    const float* row(int y) const { return values.data() + std::size_t(y - area.top) * std::size_t(area.width); }
};

// The tones of a sheet: square roots of luminance.
Plane tones_of(const Sheet& sheet, const std::array<float, 3>& luminance);
// Weighed by the same weights across and down, an odd number of them, every `step` pixels. Gives `wanted`; beyond the
// plane its border goes on.
Plane weighed(const Plane& in, std::span<const float> weights, int step, const Rect& wanted);
// By one set of weights across and another, as many, down.
Plane weighed(const Plane& in, std::span<const float> across, std::span<const float> down, const Rect& wanted);
// The smallest and the largest value within `reach` pixels each way; beyond the plane its border goes on.
Plane least_around(const Plane& in, int reach, const Rect& wanted);
Plane most_around(const Plane& in, int reach, const Rect& wanted);
// Of a Gaussian; they add up to one.
std::vector<float> gaussian_weights(double deviation, double reach_in_deviations = 3);

// By a Gaussian of any deviation, in pixels. A large one is made of means of blocks, the same ones for every piece of a
// canvas, and goes straight from the middle of one to the next.
class BlockSoftening {
  public:
    explicit BlockSoftening(double deviation);
    int reach() const;
    // `in` holds the reach around `wanted`, as far as the canvas goes; beyond it its border goes on.
    Plane of(const Plane& in, const Rect& wanted) const;

  private:
    int side_ = 1;  // of a block
    std::vector<float> weights_;
};

}  // namespace bp
