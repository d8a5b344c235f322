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

// What is usual at a row, and how far the frames are from it; 16-bit samples of brightness.
struct UsualRow {
    std::vector<std::uint16_t> level, distance;
};

// Of at least four frames that lie on each other. Frames are first brought to the same level, by their medians over
// blocks of 64 pixels and then by the medians of their differences; the usual is then the median over the run, or over
// 25 frames all over a longer one; the distance is the median of what is left, over the same frames (Rousseeuw and
// Croux, "Alternatives to the median absolute deviation", 1993). Pure; any thread.
UsualRow usual_row(kernels::Rows<std::uint16_t> rows, int width);

// Adds what is more than `least` deviations above what is usual in the row of `frame`, once that is at its level. The
// noise is the median of the distances over the pixels of a block, or a pixel's own where that is more. Rows of all
// frames and those of others are treated alike. Pure; any thread.
class Comparing {
  public:
    Comparing(const UsualRow& usual, double least);
    void add_excess(const std::uint16_t* row, std::uint16_t frame, std::vector<Excess>& out);

  private:
    const UsualRow& usual_;
    std::vector<int> usual_middles_;  // by block
    std::vector<std::uint16_t> limits_, own_, places_;
    std::vector<float> deviations_;
};

}  // namespace bp
