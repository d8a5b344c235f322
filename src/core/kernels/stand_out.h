// What stands out of its surroundings on all sides.
#pragma once

#include <array>
#include <cstddef>

namespace bp::kernels {

// Samples at places around every sample, each a row of its own.
using Ring = std::array<const float*, 16>;

// out[i] = row[i] + gain * e, where e is by how much row[i] is more than the second largest of the ring at i, or 0 when
// it is not: a spot stands out, an edge and a line do not, and one neighbour does not hide it. Light, 0 to 1; `out` may
// be more than 1, and may be `row`. Every operation is rounded to 32 bits. Vector code for what the machine has, chosen
// at run time (Highway). Pure; any thread.
void stand_out(const float* row, const Ring& ring, float gain, std::size_t samples, float* out);

}  // namespace bp::kernels
