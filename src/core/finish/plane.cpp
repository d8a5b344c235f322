#include "finish/plane.h"

#include <algorithm>
#include <cmath>

#include "kernels/light_rows.h"
#include "kernels/weigh.h"

namespace bp {
namespace {

// The pixels around `wanted` across, in every row that is read for it, with the border of the plane going on.
Plane padded(const Plane& in, int reach, const Rect& wanted) {
    Plane out({wanted.left - reach, wanted.top - reach, wanted.width + 2 * reach, wanted.height + 2 * reach});
    const int first = std::max(out.area.left, in.area.left), last = std::min(out.area.right(), in.area.right());
    for (int y = out.area.top; y < out.area.bottom(); ++y) {
        const float* from = in.row(std::clamp(y, in.area.top, in.area.bottom() - 1));
        float* to = out.row(y);
        std::fill_n(to, first - out.area.left, from[first - in.area.left]);
        std::copy_n(from + (first - in.area.left), last - first, to + (first - out.area.left));
        std::fill_n(to + (last - out.area.left), out.area.right() - last, from[last - 1 - in.area.left]);
    }
    return out;
}

// Down, then across: both make a row from as many as there are places.
template <class Down, class Across>
Plane separable(const Plane& in, int count, int step, const Rect& wanted, const Down& combine_down,
                const Across& combine_across) {
    const int reach = count / 2 * step;
    const Rect needed{wanted.left - reach, wanted.top - reach, wanted.width + 2 * reach, wanted.height + 2 * reach};
    const bool inside = intersect(needed, in.area) == needed;
    const Plane beyond = inside ? Plane(Rect()) : padded(in, reach, wanted);
    const Plane& around = inside ? in : beyond;
    Plane out(wanted);
    std::vector<float> down(std::size_t(needed.width));
    std::vector<const float*> rows(std::size_t(count), nullptr);
    for (int y = wanted.top; y < wanted.bottom(); ++y) {
        for (int k = 0; k < count; ++k)
            rows[std::size_t(k)] = around.row(y - reach + k * step) + (needed.left - around.area.left);
        combine_down(rows, down.size(), down.data());
        for (int k = 0; k < count; ++k) rows[std::size_t(k)] = down.data() + std::ptrdiff_t(k) * step;
        combine_across(rows, std::size_t(wanted.width), out.row(y));
    }
    return out;
}

template <class Choose>
Plane chosen_around(const Plane& in, int reach, const Rect& wanted, const Choose& choose) {
    const auto combine = [&](const std::vector<const float*>& rows, std::size_t samples, float* out) {
        std::copy_n(rows[0], samples, out);
        for (std::size_t k = 1; k < rows.size(); ++k)
            for (std::size_t i = 0; i < samples; ++i) out[i] = choose(out[i], rows[k][i]);
    };
    return separable(in, 2 * reach + 1, 1, wanted, combine, combine);
}

}  // namespace

Plane tones_of(const Sheet& sheet, const std::array<float, 3>& luminance) {
    Plane out(sheet.area);
    kernels::tones_of(sheet.light.data(), out.values.size(), sheet.channels, luminance, out.values.data());
    return out;
}

Plane weighed(const Plane& in, std::span<const float> across, std::span<const float> down, const Rect& wanted) {
    const auto by = [](std::span<const float> weights) {
        return [weights](const std::vector<const float*>& rows, std::size_t samples, float* out) {
            kernels::weigh(rows, weights, samples, out);
        };
    };
    return separable(in, int(across.size()), 1, wanted, by(down), by(across));
}

Plane weighed(const Plane& in, std::span<const float> weights, int step, const Rect& wanted) {
    const auto combine = [&](const std::vector<const float*>& rows, std::size_t samples, float* out) {
        kernels::weigh(rows, weights, samples, out);
    };
    return separable(in, int(weights.size()), step, wanted, combine, combine);
}

Plane least_around(const Plane& in, int reach, const Rect& wanted) {
    return chosen_around(in, reach, wanted, [](float a, float b) { return a < b ? a : b; });
}

Plane most_around(const Plane& in, int reach, const Rect& wanted) {
    return chosen_around(in, reach, wanted, [](float a, float b) { return a > b ? a : b; });
}

std::vector<float> gaussian_weights(double deviation) {
    constexpr double reach_in_deviations = 3;
    const int reach = std::max(1, int(std::ceil(reach_in_deviations * deviation)));
    std::vector<double> exact;
    double sum = 0;
    for (int k = -reach; k <= reach; ++k) {
        exact.push_back(std::exp(-0.5 * (k / deviation) * (k / deviation)));
        sum += exact.back();
    }
    std::vector<float> out;
    out.reserve(exact.size());
    for (const double weight : exact) out.push_back(float(weight / sum));
    return out;
}

}  // namespace bp
