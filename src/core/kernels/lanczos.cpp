#include "kernels/lanczos.h"

#include <cmath>
#include <numbers>

#include "kernels/warp.h"

namespace bp::kernels {
namespace {

constexpr std::size_t taps = 6;
constexpr double lobes = 3;

double sinc(double x) {
    return x == 0 ? 1 : std::sin(std::numbers::pi * x) / (std::numbers::pi * x);
}

std::array<double, taps> exact_weights(double part) {
    std::array<double, taps> out{};
    double sum = 0;
    for (std::size_t j = 0; j < taps; ++j) {
        const double x = part - (double(j) - 2);
        out[j] = std::abs(x) < lobes ? sinc(x) * sinc(x / lobes) : 0;
        // The zeros of the sinc are none in floating point.
        if (part == 0 || part == 1) out[j] = x == 0 ? 1 : 0;
        sum += out[j];
    }
    double place = 0;
    for (std::size_t j = 0; j < taps; ++j) {
        out[j] /= sum;
        place += out[j] * (double(j) - 2);
    }
    // The window alone would move ramps by up to a thirtieth of a pixel.
    out[2] -= part - place;
    out[3] += part - place;
    return out;
}

// Both ends exactly.
double place_of(const std::array<double, taps>& nodes, std::size_t i) {
    return i == 0 ? 0 : i == taps - 1 ? 1 : nodes[i] + 0.5;
}

// Newton's divided differences, then spread out into powers of t.
LanczosCoefficients fitted() {
    std::array<double, taps> nodes{};
    for (std::size_t i = 0; i < taps; ++i) nodes[i] = -0.5 * std::cos(std::numbers::pi * double(i) / double(taps - 1));
    LanczosCoefficients out{};
    for (std::size_t j = 0; j < taps / 2; ++j) {
        std::array<double, taps> d{};
        for (std::size_t i = 0; i < taps; ++i) d[i] = exact_weights(place_of(nodes, i))[j];
        for (std::size_t order = 1; order < taps; ++order)
            for (std::size_t i = taps - 1; i >= order; --i) d[i] = (d[i] - d[i - 1]) / (nodes[i] - nodes[i - order]);
        std::array<double, taps> powers{};
        for (std::size_t i = taps; i-- > 0;) {
            for (std::size_t k = taps - 1; k > 0; --k) powers[k] = powers[k - 1] - nodes[i] * powers[k];
            powers[0] = d[i] - nodes[i] * powers[0];
        }
        for (std::size_t k = 0; k < taps; ++k) (k % 2 == 0 ? out.even : out.odd)[j][k / 2] = float(powers[k]);
    }
    return out;
}

}  // namespace

const LanczosCoefficients& lanczos_coefficients() {
    static const LanczosCoefficients made = fitted();
    return made;
}

std::array<float, 6> lanczos_weights(float part) {
    std::array<float, 6> out{};
    const LanczosCoefficients& c = lanczos_coefficients();
    const float t = part - 0.5F;
    const float s = t * t;
    for (std::size_t j = 0; j < taps / 2; ++j) {
        const float even = (c.even[j][2] * s + c.even[j][1]) * s + c.even[j][0];
        const float odd = (c.odd[j][2] * s + c.odd[j][1]) * s + c.odd[j][0];
        out[j] = even + t * odd;
        out[taps - 1 - j] = even - t * odd;
    }
    return out;
}

}  // namespace bp::kernels
