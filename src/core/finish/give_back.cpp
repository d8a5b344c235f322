#include "finish/give_back.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "finish/plane.h"
#include "kernels/warp.h"

namespace bp {
namespace {

constexpr int unknowns = give_back_reach + 1;

// Gauss's elimination with the largest pivot; the matrix is positive definite.
std::array<double, unknowns> solved(std::array<std::array<double, unknowns + 1>, unknowns> rows) {
    for (std::size_t i = 0; i < unknowns; ++i) {
        std::size_t largest = i;
        for (std::size_t k = i + 1; k < unknowns; ++k)
            if (std::abs(rows[k][i]) > std::abs(rows[largest][i])) largest = k;
        std::swap(rows[i], rows[largest]);
        for (std::size_t k = 0; k < unknowns; ++k) {
            if (k == i) continue;
            const double share = rows[k][i] / rows[i][i];
            for (std::size_t j = i; j <= unknowns; ++j) rows[k][j] -= share * rows[i][j];
        }
    }
    std::array<double, unknowns> out{};
    for (std::size_t i = 0; i < unknowns; ++i) out[i] = rows[i][unknowns] / rows[i][i];
    return out;
}

class GiveBackTool final : public FinishTool {
  public:
    GiveBackTool(std::span<const double> across, std::span<const double> down)
        : across_(giving_back(across)), down_(giving_back(down)) {}
    int reach() const override { return give_back_reach; }
    void run(Sheet& sheet, const Rect& wanted) const override {
        const Rect read = sheet.area;
        for (int c = 0; c < sheet.channels; ++c) {
            Plane plane(read);
            for (int y = read.top; y < read.bottom(); ++y) {
                const float* from = sheet.row(y) + c;
                float* to = plane.row(y);
                for (int x = 0; x < read.width; ++x) to[x] = from[x * sheet.channels];
            }
            const Plane made = weighed(plane, across_, down_, wanted);
            for (int y = wanted.top; y < wanted.bottom(); ++y) {
                const float* from = made.row(y);
                float* to = sheet.row(y) + std::ptrdiff_t(wanted.left - read.left) * sheet.channels + c;
                for (int x = 0; x < wanted.width; ++x) to[x * sheet.channels] = std::max(from[x], 0.0F);
            }
        }
        sheet.narrow_to(wanted);
    }

  private:
    std::array<float, 2 * give_back_reach + 1> across_, down_;
};

}  // namespace

double contrast_left(std::span<const double> parts, double frequency) {
    if (parts.empty()) return 1;
    double sum = 0;
    for (const double part : parts) {
        if (part == 0) {
            sum += 1;
            continue;
        }
        const auto weights = kernels::lanczos_weights(float(part));
        // Against the place that is asked for; what is odd about it goes when frames lie to either side.
        for (std::size_t k = 0; k < weights.size(); ++k)
            sum += double(weights[k]) * std::cos(2 * std::numbers::pi * frequency * (double(k) - 2 - part));
    }
    return sum / double(parts.size());
}

std::array<float, 2 * give_back_reach + 1> giving_back(std::span<const double> parts) {
    constexpr int steps = 100;
    constexpr double beyond = 0.03;  // how little counts what lies beyond
    const double most = 1 / contrast_left(parts, given_back_to);
    std::array<std::array<double, unknowns + 1>, unknowns> rows{};
    for (int i = 0; i <= steps; ++i) {
        const double frequency = 0.5 * i / steps;
        const bool inside = frequency <= given_back_to;
        const double fade = inside ? 0 : (frequency - given_back_to) / (0.5 - given_back_to);
        const double wanted = inside ? 1 / contrast_left(parts, frequency) : most + fade * (1 - most);
        const double weight = i == 0 ? 100 : inside ? 1 : beyond;
        std::array<double, unknowns> basis{};
        for (std::size_t k = 0; k < unknowns; ++k)
            basis[k] = k == 0 ? 1 : 2 * std::cos(2 * std::numbers::pi * frequency * double(k));
        for (std::size_t a = 0; a < unknowns; ++a) {
            for (std::size_t b = 0; b < unknowns; ++b) rows[a][b] += weight * basis[a] * basis[b];
            rows[a][unknowns] += weight * basis[a] * wanted;
        }
    }
    const std::array<double, unknowns> g = solved(rows);
    double sum = g[0];
    for (std::size_t k = 1; k < unknowns; ++k) sum += 2 * g[k];
    std::array<float, 2 * give_back_reach + 1> out{};
    constexpr auto middle = std::size_t(give_back_reach);
    for (std::size_t k = 0; k <= middle; ++k) out[middle - k] = out[middle + k] = float(g[k] / sum);
    return out;
}

std::shared_ptr<const FinishTool> give_back_tool(std::span<const double> across, std::span<const double> down) {
    constexpr double unseen = 0.999;
    if (contrast_left(across, given_back_to) > unseen && contrast_left(down, given_back_to) > unseen) return nullptr;
    return std::make_shared<const GiveBackTool>(across, down);
}

}  // namespace bp
