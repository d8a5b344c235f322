// Pictures held against each other at chosen places of one of them.
#pragma once

#include <array>
#include <cstddef>
#include <span>
#include <vector>

#include "image/geometry.h"

namespace bp::kernels {

// A place of a picture where it changes enough to tell where it lies.
struct Landmark {
    float x, y;    // pixel
    float value;   // what the picture shows there
    float dx, dy;  // how that changes, a pixel
};

// Landmarks column by column. Columns are padded to whole groups with places that lie in no picture.
class Landmarks {
  public:
    static constexpr std::size_t group = 8;

    Landmarks() = default;
    explicit Landmarks(std::span<const Landmark> list);

    std::size_t size() const { return size_; }
    std::size_t padded() const { return x_.size(); }
    const float* x() const { return x_.data(); }
    const float* y() const { return y_.data(); }
    const float* value() const { return value_.data(); }
    const float* dx() const { return dx_.data(); }
    const float* dy() const { return dy_.data(); }

  private:
    std::size_t size_ = 0;
    std::vector<float> x_, y_, value_, dx_, dy_;
};

// A picture in floats, one sample a pixel; `stride` samples from row to row.
struct Sight {
    const float* first = nullptr;
    int width = 0;
    int height = 0;
    std::size_t stride = 0;
};

// All below work on padded() values of `seen` and `weights`; what is seen is not a number where the picture does not
// reach. Sums are taken in an order of their own, the same on every instruction set. Pure; any thread.

// What `picture`, of 2 x 2 pixels at least, shows at to_picture(landmark), straight between pixels. Places are computed
// in double precision.
void look_up(const Landmarks& landmarks, const Sight& picture, const Matrix& to_picture, float* seen);

// Weighted sums over the landmarks that are seen: w of 1, t and i of the value and of what is seen, and of their
// products; n counts them.
struct TieSums {
    double n = 0, w = 0, t = 0, i = 0, tt = 0, ii = 0, ti = 0;
};
TieSums tie_sums(const Landmarks& landmarks, const float* seen, const float* weights);

// Tukey's biweights of value - gain * seen - offset, zero from `reach` on and where nothing is seen.
void biweights(const Landmarks& landmarks, const float* seen, double gain, double offset, double reach, float* weights);

// Parameters of a small step: shift x, shift y, turn, scale, stretch, shear, and the two ways of tilting, each in
// pixels at `radius` from `middle`.
constexpr std::size_t most_parameters = 8;

// Normal equations of value + change . step = gain * seen + offset for the first `parameters` (2, 3, 4 or 8) of these,
// then gain, then offset: sums of weighted products of the unknowns' factors (those with a <= b), and of each with
// -value.
struct NormalSums {
    std::array<std::array<double, most_parameters + 2>, most_parameters + 2> square{};
    std::array<double, most_parameters + 2> right{};
};
NormalSums normal_sums(std::size_t parameters, const Landmarks& landmarks, const float* seen, const float* weights,
                       Point middle, double radius);

}  // namespace bp::kernels
