// Numbers that look random and are always the same: hashes, noise, generators.
#pragma once

#include <cstdint>

namespace bp::practice {

// 0 to 1 from three whole numbers.
double hashed(std::uint64_t seed, std::int64_t x, std::int64_t y = 0);

// Smooth noise of about -1 to 1 with features of size 1 (value noise with quintic blending).
double noise(std::uint64_t seed, double x, double y);
// Octaves of noise, each half as large and half as strong; about -1 to 1.
double cloudy(std::uint64_t seed, double x, double y, int octaves);

double smooth_step(double from, double to, double x);

// A small fast generator (splitmix64, Steele et al. 2014).
class Dice {
  public:
    explicit Dice(std::uint64_t seed) : state_(seed) {}
    std::uint64_t next();
    double unit();  // 0 to 1
    double between(double low, double high) { return low + (high - low) * unit(); }
    // Mean 0, deviation 1: the sum of four uniform values.
    float bell();

  private:
    std::uint64_t state_;
};

}  // namespace bp::practice
