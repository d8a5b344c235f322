#include "engine/render.h"

#include <algorithm>
#include <cmath>
#include <mutex>
#include <optional>

#include "base/parallel.h"
#include "kernels/blend.h"
#include "merge/row.h"

namespace bp {
namespace {

using kernels::Span;

constexpr std::size_t band_budget = 192U << 20;
constexpr int lowest_band = 8;
constexpr int highest_band = 64;

// Rows of one frame on the canvas, band by band. Rows that need no resampling are handed through.
class PlacedRows {
  public:
    PlacedRows(std::unique_ptr<FrameRows> rows, const Matrix& placed, int level, const Rect& region, int channels)
        : rows_(std::move(rows)), region_(region), channels_(channels) {
        if (!placed.is_identity()) to_source_ = inverse(at_level(placed, level));
    }

    // Must be called once before the first band, with the bands that will be asked for.
    void plan(const std::vector<std::pair<int, int>>& bands) {
        reach_.clear();
        for (const auto& [top, bottom] : bands) reach_.push_back(reach(top, bottom));
        // Rows can be let go only when no later band reads them either.
        for (std::size_t i = reach_.size(); i-- > 1;)
            reach_[i - 1].first = std::min(reach_[i - 1].first, reach_[i].first);
    }

    // Reads band number `index`, canvas rows [top, bottom).
    Status read(std::size_t index, int top, int bottom) {
        top_ = top;
        Status got = rows_->require(reach_[index].first, reach_[index].second);
        if (!got.ok() || !to_source_) return got;
        const int first = reach_[index].first;
        std::vector<const std::uint16_t*> pointers;
        for (int y = first; y < reach_[index].second; ++y) pointers.push_back(rows_->row(y));
        const std::size_t stride = std::size_t(region_.width) * std::size_t(channels_);
        warped_.resize(std::size_t(bottom - top) * stride);
        spans_.assign(std::size_t(bottom - top), Span{});
        for (int y = top; y < bottom; ++y) {
            const Span span = span_of(y);
            if (span.empty()) continue;
            std::uint16_t* out = warped_.data() + std::size_t(y - top) * stride +
                                 std::size_t(span.begin - region_.left) * std::size_t(channels_);
            kernels::warp_row(pointers.data(), first, rows_->size(), channels_, *to_source_, y, span, out);
            spans_[std::size_t(y - top)] = {span.begin - region_.left, span.end - region_.left};
        }
        return got;
    }

    FrameRow row(int y) const {
        if (!to_source_) {
            const Size size = rows_->size();
            if (y >= size.height) return {};
            const std::uint16_t* samples = rows_->row(y) + std::ptrdiff_t(region_.left) * channels_;
            return {samples, {0, std::min(region_.width, size.width - region_.left)}};
        }
        const std::size_t stride = std::size_t(region_.width) * std::size_t(channels_);
        return {warped_.data() + std::size_t(y - top_) * stride, spans_[std::size_t(y - top_)]};
    }

  private:
    Span span_of(int y) const {
        return kernels::covered_span(*to_source_, rows_->size(), y, {region_.left, region_.right()});
    }

    // Frame rows [first, second) that canvas rows [top, bottom) read.
    std::pair<int, int> reach(int top, int bottom) const {
        const int height = rows_->size().height;
        if (!to_source_) return {std::min(top, height), std::min(bottom, height)};
        int first = height;
        int last = 0;
        for (int y = top; y < bottom; ++y) {
            const Span span = span_of(y);
            if (span.empty()) continue;
            const kernels::RowReach r = kernels::rows_reached(*to_source_, y, span);
            first = std::min(first, std::clamp(r.first, 0, height - 1));
            last = std::max(last, std::clamp(r.last, 0, height - 1) + 1);
        }
        return {first, std::max(first, last)};
    }

    std::unique_ptr<FrameRows> rows_;
    Rect region_;
    int channels_;
    std::optional<Matrix> to_source_;
    std::vector<std::pair<int, int>> reach_;
    int top_ = 0;
    std::vector<std::uint16_t> warped_;
    std::vector<Span> spans_;
};

Result<std::vector<PlacedRows>> open_placed(const Pile& pile, FrameStore& store, const std::vector<int>& ids,
                                            const Rect& region, int level, Job& job) {
    std::vector<std::unique_ptr<FrameRows>> opened(ids.size());
    std::mutex mutex;
    std::optional<Failure> failure;
    parallel_for(0, int(ids.size()), [&](int i) {
        if (job.stopped()) return;
        const Frame& frame = *find_frame(pile, ids[std::size_t(i)]);
        Result<std::unique_ptr<FrameRows>> rows = store.rows(*frame.file, level, int(ids.size()));
        if (rows.ok()) {
            opened[std::size_t(i)] = std::move(rows).value();
        } else {
            const std::lock_guard lock(mutex);
            failure = rows.failure();
        }
    });
    if (job.stopped()) return stopped_failure();
    if (failure) return *failure;
    std::vector<PlacedRows> out;
    for (std::size_t i = 0; i < ids.size(); ++i)
        out.emplace_back(std::move(opened[i]), placement(pile, *find_frame(pile, ids[i])), level, region,
                         pile.channels);
    return out;
}

std::vector<std::pair<int, int>> bands_of(const Rect& region, std::size_t frames, int channels) {
    const std::size_t row = std::max<std::size_t>(
        1, frames * std::size_t(region.width) * std::size_t(channels) * 2 * sizeof(std::uint16_t));
    const int height = std::clamp(int(band_budget / row), lowest_band, highest_band);
    std::vector<std::pair<int, int>> out;
    for (int y = region.top; y < region.bottom(); y += height)
        out.emplace_back(y, std::min(y + height, region.bottom()));
    return out;
}

using RowWork = std::function<void(int y, const std::vector<FrameRow>& rows)>;

// Brings the frames through the region in step, a band at a time, and hands every row of all of them to `work`.
Status in_step(const Pile& pile, FrameStore& store, const std::vector<int>& ids, const Rect& region, int level,
               Job& job, const RowWork& work) {
    Result<std::vector<PlacedRows>> opened = open_placed(pile, store, ids, region, level, job);
    if (!opened.ok()) return opened.failure();
    std::vector<PlacedRows>& frames = opened.value();
    const auto bands = bands_of(region, ids.size(), pile.channels);
    for (PlacedRows& frame : frames) frame.plan(bands);
    job.begin("Merging " + std::to_string(ids.size()) + " frames", long(bands.size()));
    for (std::size_t b = 0; b < bands.size(); ++b) {
        if (job.stopped()) return stopped_failure();
        const auto [top, bottom] = bands[b];
        std::mutex mutex;
        std::optional<Failure> failure;
        parallel_for(0, int(frames.size()), [&, t = top, e = bottom](int i) {
            Status got = frames[std::size_t(i)].read(b, t, e);
            if (got.ok()) return;
            const std::lock_guard lock(mutex);
            failure = got.failure();
        });
        if (failure) return *failure;
        parallel_for(top, bottom, [&](int y) {
            std::vector<FrameRow> rows;
            rows.reserve(frames.size());
            for (const PlacedRows& frame : frames) rows.push_back(frame.row(y));
            work(y, rows);
        });
        job.advance();
    }
    return Done{};
}

MergeTools tools_for(const Pile& pile, const std::vector<int>& ids) {
    MergeTools tools{
        pile.merge.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded(), {}};
    for (const int id : ids)
        tools.strength_tables.push_back(strength_table(find_frame(pile, id)->strength, tools.curve));
    return tools;
}

// The parts that show, with the frames that are to be read for them.
std::vector<const Part*> showing(const Pile& pile) {
    std::vector<const Part*> out;
    for (const Part& part : pile.parts) {
        const Frame* frame = find_frame(pile, part.frame);
        if (part.on && part.strength > 0 && frame && usable(*frame) && !part.mask.empty()) out.push_back(&part);
    }
    return out;
}

void lay_part(const Part& part, const FrameRow& row, int level, int y, const Rect& region, Raster16& base) {
    if (row.cover.empty()) return;
    const int width = row.cover.end - row.cover.begin;
    std::vector<std::uint8_t> mask(std::size_t(width), 0);
    part.mask.read_row(level, y, region.left + row.cover.begin, width, mask.data());
    const std::ptrdiff_t from = std::ptrdiff_t(row.cover.begin) * base.channels();
    kernels::lay_over(row.samples + from, mask.data(), int(std::lround(255 * part.strength)), std::size_t(width),
                      base.channels(), base.row(y - region.top) + from);
}

void copy_covered(const FrameRow& row, int channels, std::uint16_t* out) {
    const std::ptrdiff_t from = std::ptrdiff_t(row.cover.begin) * channels;
    if (!row.cover.empty()) std::copy_n(row.samples + from, (row.cover.end - row.cover.begin) * channels, out + from);
}

}  // namespace

WorkingSpace working_space(const Pile& pile) {
    return {pile.profile, pile.channels};
}

Result<Raster16> render_base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    const std::vector<int> ids = merged_ids(pile);
    Raster16 out(region.size(), pile.channels);
    if (ids.empty()) return out;
    const MergeTools tools = tools_for(pile, ids);
    Status done = in_step(pile, store, ids, region, level, job, [&](int y, const std::vector<FrameRow>& rows) {
        merge_row(pile.merge.mode, rows, region.width, pile.channels, tools, out.row(y - region.top));
    });
    if (!done.ok()) return done.failure();
    return out;
}

Status lay_parts(const Pile& pile, FrameStore& store, const Rect& region, int level, Raster16& base, Job& job) {
    const std::vector<const Part*> parts = showing(pile);
    if (parts.empty()) return Done{};
    std::vector<int> ids;
    ids.reserve(parts.size());
    for (const Part* part : parts) ids.push_back(part->frame);
    return in_step(pile, store, ids, region, level, job, [&](int y, const std::vector<FrameRow>& rows) {
        for (std::size_t k = 0; k < parts.size(); ++k) lay_part(*parts[k], rows[k], level, y, region, base);
    });
}

Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    Result<Raster16> base = render_base(pile, store, region, level, job);
    if (!base.ok()) return base;
    Status laid = lay_parts(pile, store, region, level, base.value(), job);
    if (!laid.ok()) return laid.failure();
    return base;
}

Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job) {
    Raster16 out(region.size(), pile.channels);
    Status done = in_step(pile, store, {frame}, region, level, job, [&](int y, const std::vector<FrameRow>& rows) {
        copy_covered(rows[0], pile.channels, out.row(y - region.top));
    });
    if (!done.ok()) return done.failure();
    return out;
}

Result<Raster16> render_difference(const Pile& pile, FrameStore& store, int frame, int gain, const Rect& region,
                                   int level, Job& job) {
    Result<Raster16> a = render_frame(pile, store, frame, region, level, job);
    if (!a.ok()) return a;
    Result<Raster16> b = render_frame(pile, store, pile.reference, region, level, job);
    if (!b.ok()) return b;
    Raster16 out(region.size(), pile.channels);
    kernels::difference(a.value().data().data(), b.value().data().data(), gain, out.data().size(), out.data().data());
    return out;
}

}  // namespace bp
