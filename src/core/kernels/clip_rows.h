// Rows of a picture as clips hold them: brightness of every pixel, colour of every second in both ways.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

namespace bp::kernels {

// ITU-R BT.709 in 8 bits with foot- and headroom: 16 to 235 for brightness, 16 to 240 for colour. What 8 bits cannot
// tell is told by how many of neighbouring pixels are one brighter (ordered dither: Bayer, "An optimum method for
// two-level rendition of continuous-tone pictures", 1973), or else skies would show bands; `y` says which row of the
// pattern. Rows of three 16-bit samples. Every product and sum is rounded to 32 bits. Vector code for what the machine
// has, chosen at run time (Highway). Any thread.
void clip_brightness(const std::uint16_t* rgb, std::size_t pixels, int y, std::uint8_t* out);

// Of two rows, an even number of pixels: one value for every two, beside the first of them and half-way between the
// rows (H.264, annex E: chroma location 0). `room` is working memory that may be used again.
void clip_colour(const std::uint16_t* above, const std::uint16_t* below, std::size_t pixels, int y,
                 std::vector<float>& room, std::uint8_t* blue, std::uint8_t* red);

}  // namespace bp::kernels
