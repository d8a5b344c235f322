#include "engine/in_step.h"

#include <atomic>
#include <mutex>
#include <optional>

#include "base/parallel.h"

namespace bp {
namespace {

// The first failure that any thread meets.
class FirstFailure {
  public:
    void note(const Failure& failure) {
        const std::lock_guard lock(mutex_);
        if (!failure_) failure_ = failure;
        any_ = true;
    }
    bool any() const { return any_; }
    // Only when any(), and no thread is at work any more.
    const Failure& get() const { return *failure_; }

  private:
    std::mutex mutex_;
    std::atomic<bool> any_{false};
    std::optional<Failure> failure_;
};

// A frame before the plan is made: in memory, or with an open decoder.
struct Source {
    SharedPixels held;
    std::unique_ptr<OpenFrame> open;

    Size size() const { return held ? held->size() : open->size(); }
};

Status open_source(const InStep& what, int id, Source& out) {
    const FrameFile& file = *find_frame(what.pile, id)->file;
    out.held = what.store.held(file, what.level);
    if (out.held) return Done{};
    if (what.store.keeps(file, what.level, int(what.ids.size()))) {
        Result<SharedPixels> loaded = what.store.load(file, what.level);
        if (!loaded.ok()) return loaded.failure();
        out.held = std::move(loaded).value();
        return Done{};
    }
    Result<std::unique_ptr<OpenFrame>> opened = open_frame(file, what.level, what.store.space());
    if (!opened.ok()) return opened.failure();
    out.open = std::move(opened).value();
    return Done{};
}

Result<std::vector<Source>> open_sources(const InStep& what, Job& job) {
    std::vector<Source> out(what.ids.size());
    FirstFailure failure;
    parallel_for(0, int(what.ids.size()), [&](int i) {
        if (job.stopped()) return;
        Status opened = open_source(what, what.ids[std::size_t(i)], out[std::size_t(i)]);
        if (!opened.ok()) failure.note(opened.failure());
    });
    if (job.stopped()) return stopped_failure();
    if (failure.any()) return failure.get();
    return out;
}

std::vector<RowReaches> reaches_of(const InStep& what, const std::vector<Source>& sources) {
    std::vector<RowReaches> out;
    out.reserve(sources.size());
    for (std::size_t i = 0; i < sources.size(); ++i)
        out.emplace_back(placement(what.pile, *find_frame(what.pile, what.ids[i])), what.level, sources[i].size(),
                         what.region);
    return out;
}

Result<StripPlan> plan_of(const InStep& what, const std::vector<Source>& sources,
                          const std::vector<RowReaches>& reaches) {
    std::vector<FrameCost> costs;
    costs.reserve(sources.size());
    for (std::size_t i = 0; i < sources.size(); ++i) {
        const OpenFrame* open = sources[i].open.get();
        costs.push_back({&reaches[i], open ? open->row_bytes() : 0, open ? open->decoder_bytes() : 0});
    }
    return plan_strips(costs, what.region, what.pile.channels, what.store.budget().work_bytes);
}

std::vector<PlacedRows> frames_of(const InStep& what, const StripPlan& plan, std::vector<Source>& sources,
                                  std::vector<RowReaches>& reaches) {
    std::vector<PlacedRows> out;
    out.reserve(sources.size());
    for (std::size_t i = 0; i < sources.size(); ++i) {
        Source& source = sources[i];
        std::unique_ptr<FrameRows> rows =
            source.open ? source.open->window(plan.windows[i], int(i)) : held_rows(std::move(source.held));
        out.emplace_back(std::move(rows), std::move(reaches[i]), what.region, what.pile.channels, plan.bands);
    }
    return out;
}

}  // namespace

Status bring_in_step(const InStep& what, Job& job, StepWork& work) {
    Result<std::vector<Source>> opened = open_sources(what, job);
    if (!opened.ok()) return opened.failure();
    std::vector<RowReaches> reaches = reaches_of(what, opened.value());
    Result<StripPlan> planned = plan_of(what, opened.value(), reaches);
    if (!planned.ok()) return planned.failure();
    const std::vector<Band>& bands = planned.value().bands;
    std::vector<PlacedRows> frames = frames_of(what, planned.value(), opened.value(), reaches);
    work.begin(planned.value());
    job.begin("Merging " + std::to_string(frames.size()) + " frames", long(bands.size()));

    FirstFailure failure;
    const auto read = [&](std::size_t frame, std::size_t band) {
        Status got = frames[frame].read(band, bands[band]);
        if (!got.ok()) failure.note(got.failure());
    };
    const auto merge = [&](std::size_t band, int y) {
        std::vector<FrameRow> rows;
        rows.reserve(frames.size());
        for (const PlacedRows& frame : frames) rows.push_back(frame.row(band, bands[band], y));
        work.row(y, rows);
    };
    const auto finish = [&](std::size_t band) {
        Status done = work.finish(bands[band]);
        if (!done.ok()) failure.note(done.failure());
        job.advance();
    };
    for (std::size_t b = 0; b < bands.size() + 2; ++b) {
        const int finishes = b >= 2 ? 1 : 0;
        const int reads = b < bands.size() ? int(frames.size()) : 0;
        const Band merged = b >= 1 && b <= bands.size() ? bands[b - 1] : Band{0, 0};
        parallel_for(0, finishes + reads + merged.second - merged.first, [&](int i) {
            if (job.stopped() || failure.any()) return;
            if (i < finishes)
                finish(b - 2);
            else if (i < finishes + reads)
                read(std::size_t(i - finishes), b);
            else
                merge(b - 1, merged.first + i - finishes - reads);
        });
        if (job.stopped()) return stopped_failure();
        if (failure.any()) return failure.get();
    }
    return Done{};
}

}  // namespace bp
