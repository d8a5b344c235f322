// Maximum, minimum, median and means of rows of which not every sample votes.
//
// votes[k] is null where all of rows[k] votes, else it holds 255 for every sample that votes and 0 for every other; as
// many as rows. What is made of the samples that vote is what extremes.h, median.h and mean.h say of them as if the
// others were not there. Where none votes the result is any value. Pure; any thread.
#pragma once

#include <cstddef>
#include <cstdint>
#include <span>

#include "image/profile.h"
#include "kernels/rows.h"

namespace bp::kernels {

using Votes = std::span<const std::uint8_t* const>;

void maximum(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void maximum(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void minimum(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void median(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void median(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, std::uint16_t* out);
void mean(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, std::uint16_t* out);
void mean(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, std::uint16_t* out);
void clipped_mean(Rows<std::uint8_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out);
void clipped_mean(Rows<std::uint16_t> rows, Votes votes, std::size_t samples, const LightCurve& curve, int step,
                  std::uint16_t* out);

// out[i] = the row's sample where it votes, else `otherwise`.
void where_voted(const std::uint8_t* row, const std::uint8_t* votes, std::uint8_t otherwise, std::size_t samples,
                 std::uint8_t* out);
void where_voted(const std::uint16_t* row, const std::uint8_t* votes, std::uint16_t otherwise, std::size_t samples,
                 std::uint16_t* out);

}  // namespace bp::kernels
