#include "engine/sources.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "base/first_failure.h"
#include "base/parallel.h"
#include "engine/darks.h"
#include "engine/plan.h"

namespace bp {
namespace {

// Does `body` for each of `count` things, at most `at_once` at a time, and counts them off on the job.
Status for_each_of(int count, int at_once, Job& job, const std::function<Status(int)>& body) {
    FirstFailure failure;
    for (int begin = 0; begin < count; begin += at_once) {
        parallel_for(begin, std::min(count, begin + at_once), [&](int i) {
            if (job.stopped() || failure.any()) return;
            Status done = body(i);
            if (!done.ok()) failure.note(done.failure());
            job.advance();
        });
        if (job.stopped()) return stopped_failure();
        if (failure.any()) return failure.get();
    }
    return Done{};
}

// What went wrong with a frame, if anything, is said to be of this one.
Status named(Status done, const Source& source) {
    return done.ok() ? done : Status(of_frame(done.failure(), source.frame->id));
}

enum class Supply { memory, scratch, stream };

// How frames that are not there yet are best brought: a run shares one supply.
Supply supply_for(const std::vector<Source>& sources, int level, const FrameStore& store, bool glance) {
    const auto away = [](const Source& s) { return !s.held && !s.tiles; };
    const auto first = std::find_if(sources.begin(), sources.end(), away);
    if (first == sources.end()) return Supply::memory;
    const FrameFile& file = *first->frame->file;
    if (glance && level == 0) return Supply::stream;
    if (level > scaled_levels || store.keeps(file, level, int(sources.size()))) return Supply::memory;
    const auto missing = std::count_if(sources.begin(), sources.end(), away);
    return store.keeps_tiles(file, level, int(missing)) ? Supply::scratch : Supply::stream;
}

Status open_source(Supply supply, int level, FrameStore& store, Job& job, Source& out) {
    if (out.held || out.tiles) return Done{};
    if (supply == Supply::memory) {
        Result<SharedPixels> loaded = store.load(*out.frame->file, level, job, out.how);
        if (!loaded.ok()) return loaded.failure();
        out.held = std::move(loaded).value();
        return Done{};
    }
    Result<std::unique_ptr<OpenFrame>> opened = open_frame(*out.frame->file, level, store.space(), out.how);
    if (!opened.ok()) return opened.failure();
    out.open = std::move(opened).value();
    return Done{};
}

Status put_into_scratch(int level, FrameStore& store, Job& job, Source& source) {
    Result<SharedTiles> made = store.load_tiles(*source.frame->file, level, *source.open, job, source.how);
    source.open.reset();
    if (!made.ok()) return made.failure();
    source.tiles = std::move(made).value();
    return Done{};
}

Status find_dark(const Pile& pile, int level, FrameStore& store, Job& job, Source& out) {
    const DarkChoice darks = darks_of(pile, *out.frame);
    if (darks.ids.empty()) return Done{};
    if (dark_of_mosaic(*out.frame)) {
        Result<Developing> dark = raw_dark_for(pile, darks, store);
        if (!dark.ok()) return dark.failure();
        out.how = std::move(dark).value();
        return Done{};
    }
    Result<SharedRaster> dark = mean_dark(pile, darks.ids, level, store, job);
    if (!dark.ok()) return dark.failure();
    out.dark = std::move(dark).value();
    out.dark_scale = std::ldexp(darks.scale, -out.how.stops);
    return Done{};
}

}  // namespace

Samples Source::samples() const {
    return samples_of(open ? open->bits() : tiles ? tiles->bits() : held->bits());
}

Result<std::vector<Source>> open_sources(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store,
                                         FrameStages& stages, Job& job) {
    std::vector<Source> out(ids.size());
    bool all_here = true;
    for (std::size_t i = 0; i < out.size(); ++i) {
        Source& source = out[i];
        source.frame = find_frame(pile, ids[i]);
        source.how = developing_of(pile, *source.frame);
        Status found = find_dark(pile, level, store, job, source);
        if (!found.ok()) return found.failure();
        source.held = store.held(*source.frame->file, level, source.how);
        if (!source.held) source.tiles = store.held_tiles(*source.frame->file, level, source.how);
        all_here = all_here && (source.held || source.tiles);
    }
    if (!all_here) {
        const Supply supply = supply_for(out, level, store, job.glance());
        const int count = int(out.size());
        job.begin({"Reading %1", {frames_counted(out.size())}}, count);
        Status done = for_each_of(count, count, job, [&](int i) -> Status {
            Source& source = out[std::size_t(i)];
            Status opened = named(open_source(supply, level, store, job, source), source);
            if (!opened.ok() || supply != Supply::scratch || !source.open) return opened;
            Status put = put_into_scratch(level, store, job, source);
            // Scratch saves time here; without it the frame comes from its file.
            const bool no_scratch = !put.ok() && put.failure().fault == Fault::output;
            return named(no_scratch ? open_source(Supply::stream, level, store, job, source) : put, source);
        });
        if (!done.ok()) return done.failure();
    }
    for (Source& source : out)
        source.stages = stages.of(*source.frame, source.dark, source.dark_scale, source.how.stops, source.samples());
    return out;
}

Status bring_frames(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store, Job& job) {
    FrameStages stages(pile, level);
    const Result<std::vector<Source>> opened = open_sources(pile, ids, level, store, stages, job);
    return opened.ok() ? Status(Done{}) : Status(opened.failure());
}

std::size_t frames_away(const Pile& pile, const std::vector<int>& ids, int level, FrameStore& store) {
    return std::size_t(std::count_if(ids.begin(), ids.end(), [&](int id) {
        const Frame* frame = find_frame(pile, id);
        if (!frame) return false;
        const Developing how = developing_of(pile, *frame);
        return !store.held(*frame->file, level, how) && !store.held_tiles(*frame->file, level, how);
    }));
}

Status into_scratch(const std::vector<Source*>& heavy, int level, FrameStore& store, Job& job) {
    std::size_t most = 1;
    for (const Source* source : heavy)
        most = std::max(most, source->open->decoder_bytes() + TiledFrame::side * source->open->row_bytes());
    const std::size_t at_once = store.budget().work_bytes / most;
    if (at_once == 0) return too_little_memory(1, most, store.budget().work_bytes);
    const int count = int(heavy.size());
    job.begin({"Preparing %1", {frames_counted(heavy.size())}}, count);
    return for_each_of(count, int(std::min(at_once, heavy.size())), job,
                       [&](int i) { return put_into_scratch(level, store, job, *heavy[std::size_t(i)]); });
}

}  // namespace bp
