// Per-sample mean of rows, in light.
#pragma once

#include <cstddef>
#include <cstdint>
#include <span>

#include "image/profile.h"

namespace bp::kernels {

// out[i] = the sample nearest to the mean light of rows[0][i] .. rows[n-1][i]; n >= 1. Light is summed in integers and
// rounded once, so neither order nor grouping of the rows changes a bit. `out` must not overlap a row.
void mean(std::span<const std::uint16_t* const> rows, std::size_t samples, const LightCurve& curve, std::uint16_t* out);

}  // namespace bp::kernels
