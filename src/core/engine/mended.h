// Frames with their hot pixels mended, as their rows are read.
#pragma once

#include <vector>

#include "engine/source.h"
#include "even/hot_pixels.h"
#include "kernels/source_map.h"

namespace bp {

// The rows of a frame without the pixels that glow, in the bits it has; only in the columns asked for. `rows` must have
// been made for a window of two rows more than `height`.
std::unique_ptr<FrameRows> mended_rows(std::unique_ptr<FrameRows> rows, SharedHotPixels pixels, int channels,
                                       kernels::Span columns, int height);

// The same for a box of a frame in memory, whose rows are `stride` samples apart. The samples at its border that are
// not the frame's are left alone: what surrounds them is not there.
template <class T>
void mend_box(const HotPixels& pixels, const Rect& box, int height, int channels, T* samples, std::size_t stride) {
    const std::vector<T> before(samples, samples + std::size_t(box.height) * stride);
    const auto row = [&](int v) { return before.data() + std::size_t(v - box.top) * stride; };
    for (int y = box.top; y < box.bottom(); ++y) {
        if ((y == box.top && y > 0) || (y == box.bottom() - 1 && y < height - 1)) continue;
        mend_row(pixels, y, box.left, box.width, height, channels, row, samples + std::size_t(y - box.top) * stride);
    }
}

}  // namespace bp
