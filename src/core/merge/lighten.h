// Lighten: the brightest frame wins, each frame with a strength of its own.
#pragma once

#include "merge/modes.h"

namespace bp {

void merge_lighten(const MergeInput<std::uint16_t>& in, const MergeTools& tools, std::uint16_t* out);
void merge_lighten(const MergeInput<std::uint8_t>& in, const MergeTools& tools, std::uint16_t* out);

}  // namespace bp
