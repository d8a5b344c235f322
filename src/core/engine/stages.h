// Work on the samples of a frame before it is placed: a chain of stages, each of which says how far it reads. Rows,
// boxes and the reckoning of memory go by what it says.
#pragma once

#include <memory>
#include <span>
#include <vector>

#include "engine/source.h"
#include "kernels/source_map.h"

namespace bp {

// As a stage takes and makes them: 8 or 16 bits, or linear light (0 to 1) as 32-bit floats.
enum class Samples { narrow, wide, light };
constexpr Samples samples_of(int bits) {
    return bits == 8 ? Samples::narrow : Samples::wide;
}
constexpr std::size_t bytes_of(Samples samples) {
    return samples == Samples::narrow ? 1 : samples == Samples::wide ? 2 : 4;
}

// Pixels that a stage reads beyond the one that it makes: so many at either side, so many above and below.
struct StageReach {
    int across = 0;
    int down = 0;
};

// Rows of a frame from some column on.
struct RowsAtHand {
    Samples samples = Samples::wide;
    kernels::Span columns;  // that they hold
    int first = 0;          // row of the frame that rows[0] is
    std::span<const void* const> rows;

    // Sample 0 of column columns.begin of row y of the frame.
    template <class T>
    const T* row(int y) const {
        return static_cast<const T*>(rows[std::size_t(y - first)]);
    }
};

// A pure function from rows of a frame to one row of it.
class FrameStage {
  public:
    virtual ~FrameStage() = default;
    virtual StageReach reach() const { return {}; }
    virtual Samples makes(Samples from) const = 0;
    // Makes the pixels of `columns` of row y. `in` holds them and what the reach takes in, as far as the frame goes.
    // Any thread.
    virtual void make(int y, kernels::Span columns, Size frame, const RowsAtHand& in, void* out) const = 0;
};
// From the first that is done to the last. A value; copies share their stages.
using Stages = std::vector<std::shared_ptr<const FrameStage>>;

StageReach reach_of(const Stages& stages);
Samples made_by(const Stages& stages, Samples from);

// The columns of a frame `by` pixels to either side.
kernels::Span widened(kernels::Span columns, int by, int width);

// What rows with their stages take in memory beside the rows that they are made from.
struct StageMemory {
    std::size_t row_bytes = 0;     // for every row of the window
    std::size_t beside_bytes = 0;  // for rows that stages read around it
};
StageMemory memory_of(const Stages& stages, Samples from, int channels, int width, kernels::Span columns);

// The rows with the stages done to them, in the columns asked for. `rows` must have been made for a window of
// `height` and what the reach takes in above and below.
std::unique_ptr<FrameRows> staged_rows(std::shared_ptr<FrameRows> rows, Stages stages, int channels,
                                       kernels::Span columns, int height);

// Boxes of a frame whose samples can be read in any order. One thread at a time.
class StagedBox {
  public:
    // read(area, out) puts the samples of an area of the frame at `out`, row after row.
    template <class Read>
    const void* make(const Stages& stages, Samples from, int channels, Size frame, const Rect& box, const Read& read) {
        const StageReach reach = reach_of(stages);
        const Rect around = grown(box, reach, frame);
        samples_[0].resize(bytes_for(around, bytes_of(from), channels));
        read(around, samples_[0].data());
        return run(stages, from, channels, frame, box, around);
    }

  private:
    using Memory = std::vector<std::uint64_t>;  // lies well for every kind of sample

    static Rect grown(const Rect& box, StageReach reach, Size frame);
    static std::size_t bytes_for(const Rect& box, std::size_t sample_bytes, int channels);
    const void* run(const Stages& stages, Samples from, int channels, Size frame, const Rect& box, Rect around);

    Memory samples_[2];
    std::vector<const void*> rows_;
};

}  // namespace bp
