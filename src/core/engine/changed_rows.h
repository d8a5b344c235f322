// A frame's rows, each changed on its own as it is read.
#pragma once

#include <functional>

#include "engine/source.h"
#include "kernels/source_map.h"

namespace bp {

// Makes row y of the frame, from the first of the columns asked for on, in 16 bits. One thread at a time.
using ChangeRow = std::function<void(int y, const SourceRow& from, std::uint16_t* out)>;

// The rows in 16 bits, and only in the columns asked for.
std::unique_ptr<FrameRows> changed_rows(std::unique_ptr<FrameRows> rows, ChangeRow change, int channels,
                                        kernels::Span columns, int height);

}  // namespace bp
