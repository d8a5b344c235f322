// Whole pixels of one of several rows, chosen by their brightness, so that colours stay as one frame has them.
//
// Brightness is the weighted sum of the light of the three channels, in integers, so that it is the same on every
// machine; of equal ones the earlier row wins. Votes are by sample, those of a pixel alike (voted.h), or empty when all
// vote; where none votes the result is any value. `out` must not overlap a row. Pure; any thread.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>

#include "kernels/rows.h"
#include "kernels/voted.h"

namespace bp::kernels {

// How a row competes: the light of every sample as the row has it, 256 or 65536 of them, and the 16-bit sample that is
// shown for it (null: its own).
struct Competitor {
    const std::uint32_t* light = nullptr;
    const std::uint16_t* shown = nullptr;
};
// Of red, green and blue, in whole numbers that add up to 65536.
using BrightnessWeights = std::array<std::uint32_t, 3>;

void brightest_pixels(Rows<std::uint8_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                      Votes votes, std::size_t pixels, std::uint16_t* out);
void brightest_pixels(Rows<std::uint16_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                      Votes votes, std::size_t pixels, std::uint16_t* out);
void darkest_pixels(Rows<std::uint8_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                    Votes votes, std::size_t pixels, std::uint16_t* out);
void darkest_pixels(Rows<std::uint16_t> rows, std::span<const Competitor> as, const BrightnessWeights& weights,
                    Votes votes, std::size_t pixels, std::uint16_t* out);

}  // namespace bp::kernels
