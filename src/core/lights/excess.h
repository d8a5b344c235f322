// What in a frame stands out against the other frames of its run: lights that move, and all that comes and goes.
#pragma once

#include <cstdint>
#include <vector>

#include "kernels/rows.h"

namespace bp {

// A pixel of a row that is brighter in one frame than it usually is.
struct Excess {
    std::uint16_t frame = 0;  // by its place among the rows
    std::uint16_t x = 0;
    std::uint16_t by = 0;          // samples above the usual
    std::uint16_t deviations = 0;  // the same in quarters of the noise's deviation
};

// Compares one row of brightness, 16-bit samples, of at least four frames that lie on each other. Frames are
// first brought to the same level, by their medians over blocks of 64 pixels and then by the medians of their
// differences; the usual is then the median over the
// run; the noise is the median of what is left, over frames and then over the pixels of a block (Rousseeuw and Croux,
// "Alternatives to the median absolute deviation", 1993), or a pixel's own where that is more. Adds what is more than
// `least` deviations above. Pure; any thread.
void add_excess(kernels::Rows<std::uint16_t> rows, int width, double least, std::vector<Excess>& out);

}  // namespace bp
