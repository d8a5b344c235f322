#include "engine/stages.h"

#include <algorithm>

namespace bp {
namespace {

using kernels::Span;

// Rows that one stage has made, in a ring.
struct Ring {
    std::shared_ptr<const FrameStage> stage;
    Samples samples;
    Span columns;
    int height;
    std::size_t stride;  // bytes
    int next = 0;        // row of the frame that is made next
    std::vector<std::uint64_t> memory;

    std::uint8_t* row(int y) {
        return reinterpret_cast<std::uint8_t*>(memory.data()) + std::size_t(y % height) * stride;
    }
    const std::uint8_t* row(int y) const {
        return reinterpret_cast<const std::uint8_t*>(memory.data()) + std::size_t(y % height) * stride;
    }
};

// What each stage makes for the ones after it to read, from the last one back.
struct StageShape {
    Samples samples;
    Span columns;
    int beside;  // rows above and below what is asked for, together
};
std::vector<StageShape> shapes_of(const Stages& stages, Samples from, int width, Span columns) {
    std::vector<StageShape> out(stages.size());
    for (std::size_t i = 0; i < stages.size(); ++i) out[i].samples = from = stages[i]->makes(from);
    StageReach reach;
    for (std::size_t i = stages.size(); i-- > 0;) {
        out[i].columns = widened(columns, reach.across, width);
        out[i].beside = 2 * reach.down;
        reach.across += stages[i]->reach().across;
        reach.down += stages[i]->reach().down;
    }
    return out;
}

std::size_t row_bytes_of(const StageShape& shape, int channels) {
    const std::size_t bytes = std::size_t(std::max(0, shape.columns.end - shape.columns.begin)) *
                              std::size_t(channels) * bytes_of(shape.samples);
    return (bytes + sizeof(std::uint64_t) - 1) / sizeof(std::uint64_t) * sizeof(std::uint64_t);
}

class StagedRows final : public FrameRows {
  public:
    StagedRows(std::shared_ptr<FrameRows> rows, Stages stages, int channels, Span columns, int height)
        : rows_(std::move(rows)), channels_(channels) {
        const std::vector<StageShape> shapes = shapes_of(stages, samples_of(rows_->bits()), size().width, columns);
        rings_.reserve(stages.size());
        for (std::size_t i = 0; i < stages.size(); ++i) {
            Ring ring{std::move(stages[i]),
                      shapes[i].samples,
                      shapes[i].columns,
                      std::max(1, height) + shapes[i].beside,
                      row_bytes_of(shapes[i], channels),
                      0,
                      {}};
            ring.memory.resize(std::size_t(ring.height) * ring.stride / sizeof(std::uint64_t));
            rings_.push_back(std::move(ring));
        }
    }

    Size size() const override { return rows_->size(); }
    int bits() const override { return rings_.back().samples == Samples::narrow ? 8 : 16; }
    int left() const override { return rings_.back().columns.begin; }
    Status require(int first, int last) override {
        return require(rings_.size() - 1, first, std::min(last, size().height));
    }
    SourceRow row(int y) const override {
        const Ring& ring = rings_.back();
        if (ring.samples == Samples::narrow) return {ring.row(y), nullptr};
        return {nullptr, reinterpret_cast<const std::uint16_t*>(ring.row(y))};
    }

  private:
    // Rows that are there already are not asked for again: those below may have been let go.
    Status require(std::size_t at, int first, int end) {
        Ring& ring = rings_[at];
        ring.next = std::max(ring.next, first);
        if (ring.next >= end) return Done{};
        const int down = ring.stage->reach().down;
        const int from = std::max(0, ring.next - down);
        const int to = std::min(end + down, size().height);
        Status got = at == 0 ? rows_->require(from, to) : require(at - 1, from, to);
        if (!got.ok()) return got;
        for (; ring.next < end; ++ring.next) {
            const int above = std::max(0, ring.next - down);
            const int below = std::min(ring.next + down + 1, size().height);
            pointers_.clear();
            for (int y = above; y < below; ++y) pointers_.push_back(below_of(at, y));
            RowsAtHand in{at == 0 ? samples_of(rows_->bits()) : rings_[at - 1].samples, columns_below(at), above,
                          pointers_};
            ring.stage->make(ring.next, ring.columns, size(), in, ring.row(ring.next));
        }
        return Done{};
    }

    Span columns_below(std::size_t at) const {
        if (at > 0) return rings_[at - 1].columns;
        return widened(rings_[0].columns, rings_[0].stage->reach().across, size().width);
    }

    const void* below_of(std::size_t at, int y) const {
        if (at > 0) return rings_[at - 1].row(y);
        const SourceRow row = rows_->row(y);
        const std::ptrdiff_t skipped = std::ptrdiff_t(columns_below(0).begin - rows_->left()) * channels_;
        return row.narrow ? static_cast<const void*>(row.narrow + skipped) : row.wide + skipped;
    }

    std::shared_ptr<FrameRows> rows_;
    int channels_;
    std::vector<Ring> rings_;
    std::vector<const void*> pointers_;
};

}  // namespace

StageReach reach_of(const Stages& stages) {
    StageReach out;
    for (const auto& stage : stages) {
        out.across += stage->reach().across;
        out.down += stage->reach().down;
    }
    return out;
}

Samples made_by(const Stages& stages, Samples from) {
    for (const auto& stage : stages) from = stage->makes(from);
    return from;
}

Span widened(Span columns, int by, int width) {
    return {std::max(0, columns.begin - by), std::min(width, columns.end + by)};
}

StageMemory memory_of(const Stages& stages, Samples from, int channels, int width, Span columns) {
    StageMemory out;
    for (const StageShape& shape : shapes_of(stages, from, width, columns)) {
        out.row_bytes += row_bytes_of(shape, channels);
        out.beside_bytes += std::size_t(shape.beside) * row_bytes_of(shape, channels);
    }
    return out;
}

std::unique_ptr<FrameRows> staged_rows(std::shared_ptr<FrameRows> rows, Stages stages, int channels, Span columns,
                                       int height) {
    return std::make_unique<StagedRows>(std::move(rows), std::move(stages), channels, columns, height);
}

Rect StagedBox::grown(const Rect& box, StageReach reach, Size frame) {
    return intersect(
        {box.left - reach.across, box.top - reach.down, box.width + 2 * reach.across, box.height + 2 * reach.down},
        whole(frame));
}

std::size_t StagedBox::bytes_for(const Rect& box, std::size_t sample_bytes, int channels) {
    const std::size_t bytes = std::size_t(box.width) * std::size_t(box.height) * std::size_t(channels) * sample_bytes;
    return bytes / sizeof(std::uint64_t) + 1;
}

const void* StagedBox::run(const Stages& stages, Samples from, int channels, Size frame, const Rect& box, Rect around) {
    StageReach left = reach_of(stages);
    Memory* source = &samples_[0];
    Memory* target = &samples_[1];
    for (const auto& stage : stages) {
        const StageReach reach = stage->reach();
        left = {left.across - reach.across, left.down - reach.down};
        const Rect made = grown(box, left, frame);
        const Samples to = stage->makes(from);
        target->resize(bytes_for(made, bytes_of(to), channels));
        const std::size_t in_stride = std::size_t(around.width) * std::size_t(channels) * bytes_of(from);
        const std::size_t out_stride = std::size_t(made.width) * std::size_t(channels) * bytes_of(to);
        const auto* in = reinterpret_cast<const std::uint8_t*>(source->data());
        auto* out = reinterpret_cast<std::uint8_t*>(target->data());
        rows_.clear();
        for (int i = 0; i < around.height; ++i) rows_.push_back(in + std::size_t(i) * in_stride);
        for (int y = made.top; y < made.bottom(); ++y) {
            const int above = std::max(around.top, y - reach.down);
            const int below = std::min(around.bottom(), y + reach.down + 1);
            stage->make(y, {made.left, made.right()}, frame,
                        {from,
                         {around.left, around.right()},
                         above,
                         std::span(rows_).subspan(std::size_t(above - around.top), std::size_t(below - above))},
                        out + std::size_t(y - made.top) * out_stride);
        }
        std::swap(source, target);
        around = made;
        from = to;
    }
    return source->data();
}

}  // namespace bp
