// Frames in their look and level, as their rows are read: nothing of it is ever baked into a file or a cache.
#pragma once

#include <map>

#include "engine/source.h"
#include "even/evener.h"
#include "kernels/source_map.h"

namespace bp {

using SharedEvener = std::shared_ptr<const Evener>;

// Makes the eveners of a pile's frames, which share what they have in common. One thread at a time.
class Eveners {
  public:
    explicit Eveners(const Pile& pile) : pile_(pile) {}
    // For rows of 8 or 16 `bits`. Null when the frame is shown as it was recorded.
    SharedEvener of(const Frame& frame, int bits);

  private:
    const Pile& pile_;
    std::vector<SharedTone> tones_;
};

// The rows of a frame, evened: in 16 bits, and only in the columns asked for.
std::unique_ptr<FrameRows> evened_rows(std::unique_ptr<FrameRows> rows, SharedEvener evener, int channels,
                                       kernels::Span columns, int height);

}  // namespace bp
