// Colours of pictures that keep brightness and colour apart.
#pragma once

#include <cstddef>
#include <cstdint>

namespace bp::kernels {

// The 8-bit RGB of pixels of Y, Cb and Cr (Rec. ITU-R BT.601 in the full range, as in JFIF 1.02): shares of 65536,
// rounded half up and held to the range, as libjpeg makes it, to the bit. The places must not overlap. Vector code for
// what the machine has, chosen at run time (Highway). Pure; any thread.
void colours_apart(const std::uint8_t* apart, std::size_t pixels, std::uint8_t* rgb);

}  // namespace bp::kernels
