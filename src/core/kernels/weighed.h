// Light added up, and means of light, of rows each of which counts by a share of its light.
//
// Shares and sums are integers, rounded once at the end, so neither order nor grouping of the rows changes a bit. Votes
// are what voted.h says, or empty when all samples vote. `out` must not overlap a row. Pure; any thread.
#pragma once

#include <cstddef>
#include <cstdint>
#include <span>

#include "image/profile.h"
#include "kernels/rows.h"
#include "kernels/voted.h"

namespace bp::kernels {

// A row counts by parts / whole of its light; `light` holds that of every sample as the row has it, 256 or 65536 of
// them, rounded.
struct Share {
    static constexpr std::uint32_t whole = 65536;
    std::uint32_t parts = whole;
    const std::uint32_t* light = nullptr;
};
using Shares = std::span<const Share>;

// What becomes of light beyond white: it is white, or what is brighter than soft_from of white is pressed below it.
// Light of soft_from + d becomes soft_from + d w / (w + d), w = 1 - soft_from: it goes on evenly and never quite
// arrives.
enum class White { hard, soft };
inline constexpr double soft_from = 0.6;

// out[i] = the sample of all light that votes at i together. As many shares as rows.
void add(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve, White white,
         std::uint16_t* out);
void add(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
         White white, std::uint16_t* out);

// Means (mean.h) in which a row weighs as much as its share; black where nothing has weight. What stands apart is told
// by the samples as they are, whatever their shares.
void mean(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
          std::uint16_t* out);
void mean(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
          std::uint16_t* out);
void clipped_mean(Rows<std::uint8_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
                  int step, std::uint16_t* out);
void clipped_mean(Rows<std::uint16_t> rows, Shares shares, Votes votes, std::size_t samples, const LightCurve& curve,
                  int step, std::uint16_t* out);

}  // namespace bp::kernels
