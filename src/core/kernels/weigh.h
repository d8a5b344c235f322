// Rows of light, or of tones, made one: weighted sums, the smallest and the largest of each column.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace bp::kernels {

// out[i] = the sum of weights[k] * rows[k][i], added up from the first to the last; as many weights as rows, at least
// one. Every product and sum is rounded to 32 bits, so that every machine gives the same. `out` must not overlap a row.
// Vector code for what the machine has, chosen at run time (Highway). Pure; any thread.
void weigh(std::span<const float* const> rows, std::span<const float> weights, std::size_t samples, float* out);
// out[i] = the smallest of all rows[k][i], and the largest; of at least one row.
void least(std::span<const float* const> rows, std::size_t samples, float* out);
void most(std::span<const float* const> rows, std::size_t samples, float* out);

// The weights of a Gaussian from -reach to reach; they add up to one.
std::vector<float> gaussian(double deviation, int reach);

}  // namespace bp::kernels
