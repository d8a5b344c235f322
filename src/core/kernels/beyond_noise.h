// By how much a picture is another than usual, held against noise.
#pragma once

#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// out[p] = 16 times the fourth root of the mean over the channels of pixel p of ((row - usual) / noise)^2, half up, at
// most 255: fine where it is little, and up to 254 deviations. `noise` is the deviation of every sample, above 0;
// `channels` is 1 or 3. Every operation is rounded to 32 bits. Vector code for what the machine has, chosen at run time
// (Highway). Pure; any thread.
void beyond_noise(const std::uint16_t* row, const std::uint16_t* usual, const float* noise, std::size_t pixels,
                  int channels, std::uint8_t* out);

}  // namespace bp::kernels
