#include "image/flex.h"

#include <xxhash.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace bp {
namespace {

std::array<double, 4> spline_weights(double t) {
    return {((-t + 2) * t - 1) * t / 2, ((3 * t - 5) * t * t + 2) / 2, ((-3 * t + 4) * t + 1) * t / 2,
            (t - 1) * t * t / 2};
}

SharedFlex scaled(const SharedFlex& flex, double by) {
    if (!flex) return flex;
    Flex::Grid grid = flex->grid();
    grid.first = {(grid.first.x + 0.5) * by - 0.5, (grid.first.y + 0.5) * by - 0.5};
    grid.step *= by;
    std::vector<float> across = flex->across();
    std::vector<float> down = flex->down();
    for (std::vector<float>* values : {&across, &down})
        for (float& v : *values) v = float(v * by);
    return std::make_shared<const Flex>(grid, std::move(across), std::move(down));
}

}  // namespace

Flex::Flex(const Grid& grid, std::vector<float> across, std::vector<float> down)
    : grid_(grid), across_(std::move(across)), down_(std::move(down)) {
    const std::array<double, 5> facts{grid.first.x, grid.first.y, grid.step, double(grid.columns), double(grid.rows)};
    fingerprint_ =
        XXH3_64bits(facts.data(), sizeof facts) ^ XXH3_64bits(across_.data(), across_.size() * sizeof(float));
    fingerprint_ = fingerprint_ * 31 + XXH3_64bits(down_.data(), down_.size() * sizeof(float));
}

Point Flex::at(Point canvas) const {
    // What is no place at all is taken for the first node's: it has no column that could be counted.
    const auto inside = [](double t, int count) { return t > 0 ? std::min(t, double(count - 1)) : 0.0; };
    const double u = inside((canvas.x - grid_.first.x) / grid_.step, grid_.columns);
    const double v = inside((canvas.y - grid_.first.y) / grid_.step, grid_.rows);
    const int i = int(u);
    const int j = int(v);
    const std::array<double, 4> over = spline_weights(u - i);
    const std::array<double, 4> along = spline_weights(v - j);
    Point out;
    for (int b = 0; b < 4; ++b) {
        const auto row = std::size_t(std::clamp(j - 1 + b, 0, grid_.rows - 1)) * std::size_t(grid_.columns);
        for (int a = 0; a < 4; ++a) {
            const std::size_t node = row + std::size_t(std::clamp(i - 1 + a, 0, grid_.columns - 1));
            const double weight = over[std::size_t(a)] * along[std::size_t(b)];
            out.x += weight * double(across_[node]);
            out.y += weight * double(down_[node]);
        }
    }
    return out;
}

double Flex::largest() const {
    double out = 0;
    for (std::size_t i = 0; i < across_.size(); ++i)
        out = std::max(out, std::hypot(double(across_[i]), double(down_[i])));
    return out;
}

bool operator==(const Flex& a, const Flex& b) {
    return a.grid_ == b.grid_ && a.across_ == b.across_ && a.down_ == b.down_;
}

bool same(const SharedFlex& a, const SharedFlex& b) {
    return a == b || (a && b && *a == *b);
}

SharedFlex at_level(const SharedFlex& flex, int level) {
    return level == 0 ? flex : scaled(flex, 1.0 / (1 << level));
}

SharedFlex from_level(const SharedFlex& flex, int level) {
    return level == 0 ? flex : scaled(flex, double(1 << level));
}

}  // namespace bp
