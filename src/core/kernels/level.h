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
// out[i] = row[i] - middle[i] + 32768, held to the range of the samples.
void differences(const std::uint16_t* row, const std::uint16_t* middle, std::size_t samples, std::uint16_t* out);
// out[b] = the lower one of the two middle values of the 64 samples from row + 64 b.
void middles_of_64(const std::uint16_t* row, std::size_t blocks, std::uint16_t* out);
// out[i] = the sum of the 4 samples from row + 4 i.
void sums_of_4(const std::uint16_t* row, std::size_t sums, std::uint32_t* out);
// Adds the places, in order, at which a row is more than the limits; at most 65536 samples.
void add_places_above(const std::uint16_t* row, const std::uint16_t* limits, std::size_t samples,
                      std::vector<std::uint16_t>& places);

}  // namespace bp::kernels
