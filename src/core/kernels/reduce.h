// A picture made smaller: a piece of its rows and columns at a time.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace bp::kernels {

// The taps of each place along one side: the first of `count` places before it was reduced, and their weights.
struct Taps {
    std::vector<int> first;
    std::vector<float> weights;  // `count` for each place
    std::size_t count = 0;

    const float* at(std::size_t i) const { return weights.data() + i * count; }
};

// Rows are reduced so many at a time at most.
constexpr std::size_t reduced_together = 16;
// Rows of light can be read up to a multiple of so many samples; what lies beyond their last one is not used.
constexpr std::size_t reduced_padding = 64;

// Places of the reduced picture, and samples of as many rows and columns before it.
struct ReducedPiece {
    int first_row = 0;
    std::size_t rows = 0;  // at most reduced_together
    int first_column = 0;
    std::size_t columns = 0;
    int channels = 1;
};

// First down, then across, each sum added up from the first to the last; every product and sum is rounded to 32 bits,
// so that every machine gives the same, however a picture is divided into pieces. from[i] is the row of light
// down.first[first_row] + i, from pixel across.first[first_column] on; row r of the piece is written to `out` +
// r * stride, where there is room for reduced_together rows. `room` is working memory that may be used again. Vector
// code for what the machine has, chosen at run time (Highway). Any thread.
void reduce(std::span<const float* const> from, const Taps& down, const Taps& across, const ReducedPiece& piece,
            std::vector<float>& room, float* out, std::size_t stride);

}  // namespace bp::kernels
