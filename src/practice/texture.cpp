#include "practice/texture.h"

#include <algorithm>
#include <cmath>

namespace bp::practice {
namespace {

std::uint64_t scrambled(std::uint64_t z) {
    z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ULL;
    z = (z ^ (z >> 27)) * 0x94d049bb133111ebULL;
    return z ^ (z >> 31);
}

}  // namespace

double hashed(std::uint64_t seed, std::int64_t x, std::int64_t y) {
    std::uint64_t mixed = seed * 0x9e3779b97f4a7c15ULL + std::uint64_t(x) * 0xd6e8feb86659fd93ULL +
                          std::uint64_t(y) * 0xa5a3564e27f88653ULL;
    mixed = (mixed ^ (mixed >> 32)) * 0xbf58476d1ce4e5b9ULL;
    return double((mixed ^ (mixed >> 31)) >> 11) * 0x1.0p-53;
}

double noise(std::uint64_t seed, double x, double y) {
    const double fx = std::floor(x);
    const double fy = std::floor(y);
    const double u = x - fx;
    const double v = y - fy;
    const double a = u * u * u * (u * (u * 6 - 15) + 10);
    const double b = v * v * v * (v * (v * 6 - 15) + 10);
    const auto ix = std::int64_t(fx);
    const auto iy = std::int64_t(fy);
    const double top = hashed(seed, ix, iy) * (1 - a) + hashed(seed, ix + 1, iy) * a;
    const double bottom = hashed(seed, ix, iy + 1) * (1 - a) + hashed(seed, ix + 1, iy + 1) * a;
    return 2 * (top * (1 - b) + bottom * b) - 1;
}

double cloudy(std::uint64_t seed, double x, double y, int octaves) {
    double sum = 0;
    double weight = 0.5;
    for (int i = 0; i < octaves; ++i) {
        sum += weight * noise(seed + std::uint64_t(i) * 7919, x, y);
        x = x * 2.03 + 17.1;
        y = y * 2.03 - 5.7;
        weight /= 2;
    }
    return sum * 1.4;
}

double smooth_step(double from, double to, double x) {
    const double t = std::clamp((x - from) / (to - from), 0.0, 1.0);
    return t * t * (3 - 2 * t);
}

std::uint64_t Dice::next() {
    state_ += 0x9e3779b97f4a7c15ULL;
    return scrambled(state_);
}

double Dice::unit() {
    return double(next() >> 11) * 0x1.0p-53;
}

float Dice::bell() {
    const std::uint64_t r = next();
    const auto sum = float((r & 0xffff) + ((r >> 16) & 0xffff) + ((r >> 32) & 0xffff) + (r >> 48));
    // Four uniform values on 0..65535: mean 131070, deviation 65536 / sqrt(3).
    return (sum - 131070.0F) * (1.7320508F / 65536.0F);
}

}  // namespace bp::practice
