// Rows of samples brought to one level and held against each other.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

namespace bp::kernels {

// All of them are pure and run on any thread, in vectors of what the machine has, chosen at run time (Highway).

// out[i] = row[i] - by, held to the range of the samples; |by| <= 65535. `out` may be `row`.
void lower_by(const std::uint16_t* row, int by, std::size_t samples, std::uint16_t* out);
// out[i] = |row[i] - middle[i]|.
void distances(const std::uint8_t* row, const std::uint8_t* middle, std::size_t samples, std::uint8_t* out);
void distances(const std::uint16_t* row, const std::uint16_t* middle, std::size_t samples, std::uint16_t* out);
// Adds the places, in order, at which a row is more than the limits; at most 65536 samples.
void add_places_above(const std::uint16_t* row, const std::uint16_t* limits, std::size_t samples,
                      std::vector<std::uint16_t>& places);

}  // namespace bp::kernels
