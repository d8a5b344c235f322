#include "even/light_gains.h"

#include <algorithm>
#include <cmath>

namespace bp {
namespace {

constexpr std::array<std::string_view, 3> names{"off", "light", "colour"};  // on the command line and in pile files

constexpr float darkest = 0.002F;  // light below it is mostly noise and rounding
constexpr std::size_t fewest = 50;

struct Ratio {
    double log2 = 0;
    double weight = 1;  // bright squares are known better
};

// Where the middle of the shortest half of the values lies, and how long it is.
struct Half {
    double middle = 0;
    double length = 0;
};
Half shortest_half(const std::vector<Ratio>& sorted) {
    const std::size_t span = sorted.size() / 2;
    Half best{0, 1e9};
    for (std::size_t i = 0; i + span < sorted.size(); ++i) {
        const double length = sorted[i + span].log2 - sorted[i].log2;
        if (length < best.length) best = {(sorted[i].log2 + sorted[i + span].log2) / 2, length};
    }
    return best;
}

std::optional<double> agreed(std::vector<Ratio> ratios) {
    if (ratios.size() < fewest) return std::nullopt;
    std::sort(ratios.begin(), ratios.end(), [](const Ratio& a, const Ratio& b) { return a.log2 < b.log2; });
    const Half half = shortest_half(ratios);
    constexpr double half_to_deviation = 0.7413;  // of a normal distribution
    constexpr double least_deviation = 1e-4;
    constexpr double biweight_reach = 4.0;  // deviations
    const double reach = biweight_reach * std::max(half.length * half_to_deviation, least_deviation);
    double centre = half.middle;
    for (int step = 0; step < 20; ++step) {
        double sum = 0, weights = 0;
        for (const Ratio& r : ratios) {
            const double u = (r.log2 - centre) / reach;
            if (std::abs(u) >= 1) continue;
            const double w = r.weight * (1 - u * u) * (1 - u * u);
            sum += w * r.log2;
            weights += w;
        }
        if (weights <= 0) break;
        centre = sum / weights;
    }
    return centre;
}

// Between the four squares around a place; negative where one of them is clipped or none is there.
std::array<float, 3> at(const LightGrid& grid, Point square) {
    const int x = int(std::floor(square.x));
    const int y = int(std::floor(square.y));
    if (x < 0 || y < 0 || x + 1 >= grid.size.width || y + 1 >= grid.size.height) return {-1, -1, -1};
    const auto u = float(square.x - x);
    const auto v = float(square.y - y);
    std::array<float, 3> out{};
    for (int j = 0; j < 2; ++j)
        for (int i = 0; i < 2; ++i) {
            const auto& light = grid.squares[std::size_t((y + j) * grid.size.width + x + i)];
            const float weight = (i ? u : 1 - u) * (j ? v : 1 - v);
            if (weight > 0 && light[0] < 0) return {-1, -1, -1};
            for (std::size_t c = 0; c < 3; ++c) out[c] += weight * light[c];
        }
    return out;
}

}  // namespace

std::string_view name_of(Levelling kind) {
    return names[std::size_t(kind)];
}

std::optional<Levelling> levelling_named(std::string_view name) {
    const auto* found = std::find(names.begin(), names.end(), name);
    if (found == names.end()) return std::nullopt;
    return Levelling(found - names.begin());
}

LightGrid light_grid(const Raster16& picture, const LightCurve& curve) {
    constexpr std::uint16_t clipped_from = 64250;  // 250 of 255
    constexpr int side = LightGrid::side;
    LightGrid out;
    out.size = {picture.width() / side, picture.height() / side};
    const int channels = picture.channels();
    for (int y = 0; y < out.size.height; ++y)
        for (int x = 0; x < out.size.width; ++x) {
            std::array<double, 3> sum{};
            bool clipped = false;
            for (int v = 0; v < side; ++v)
                for (int u = 0; u < side; ++u)
                    for (int c = 0; c < 3; ++c) {
                        const std::uint16_t s = picture.at(x * side + u, y * side + v, channels == 1 ? 0 : c);
                        sum[std::size_t(c)] += double(curve.light(s));
                        clipped = clipped || s >= clipped_from;
                    }
            std::array<float, 3> light{-1, -1, -1};
            if (!clipped)
                for (std::size_t c = 0; c < 3; ++c) light[c] = float(sum[c] / (side * side) / LightCurve::full);
            out.squares.push_back(light);
        }
    return out;
}

std::optional<LightGains> gains_between(const LightGrid& reference, const LightGrid& frame,
                                        const std::function<Point(Point)>& to_frame, Levelling kind) {
    std::array<std::vector<Ratio>, 3> by_channel;
    std::vector<Ratio> all;
    constexpr int side = LightGrid::side;
    constexpr double middle = (side - 1) / 2.0;
    for (int y = 0; y < reference.size.height; ++y)
        for (int x = 0; x < reference.size.width; ++x) {
            const auto& still = reference.squares[std::size_t(y * reference.size.width + x)];
            if (still[0] < 0) continue;
            const Point there = to_frame({x * side + middle, y * side + middle});
            const auto moved = at(frame, {(there.x - middle) / side, (there.y - middle) / side});
            if (moved[0] < 0) continue;
            const float a = still[0] + still[1] + still[2];
            const float b = moved[0] + moved[1] + moved[2];
            if (a > 3 * darkest && b > 3 * darkest) all.push_back({std::log2(double(a) / double(b)), double(a + b)});
            for (std::size_t c = 0; c < 3; ++c)
                if (still[c] > darkest && moved[c] > darkest)
                    by_channel[c].push_back(
                        {std::log2(double(still[c]) / double(moved[c])), double(still[c] + moved[c])});
        }
    LightGains out;
    const std::optional<double> light = agreed(std::move(all));
    if (kind == Levelling::off || !light) return std::nullopt;
    for (std::size_t c = 0; c < 3; ++c) {
        // A channel in which nothing can be compared goes with the others.
        const std::optional<double> own =
            kind == Levelling::colour ? agreed(std::move(by_channel[c])) : std::optional<double>{};
        out.gain[c] = std::exp2(own.value_or(*light));
    }
    return out;
}

}  // namespace bp
