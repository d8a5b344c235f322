#include "engine/in_step.h"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <functional>
#include <mutex>
#include <optional>

#include "base/line_vector.h"
#include "base/parallel.h"
#include "engine/darks.h"
#include "engine/evened.h"
#include "engine/mended.h"

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

// Adds up how long threads were in something.
class Stopwatch {
  public:
    class Lap {
      public:
        explicit Lap(Stopwatch& of) : of_(of) {}
        ~Lap() { of_.nanoseconds_ += (std::chrono::steady_clock::now() - begin_) / std::chrono::nanoseconds(1); }
        Lap(const Lap&) = delete;
        Lap& operator=(const Lap&) = delete;

      private:
        Stopwatch& of_;
        std::chrono::steady_clock::time_point begin_ = std::chrono::steady_clock::now();
    };
    double seconds() const { return double(nanoseconds_) * 1e-9; }

  private:
    std::atomic<std::int64_t> nanoseconds_{0};
};

// A frame before it is gone through: in memory, on the scratch disk, or with an open decoder.
struct Source {
    const FrameFile* file = nullptr;
    SharedPixels held;
    SharedTiles tiles;
    std::unique_ptr<OpenFrame> open;
    RawDarkUse dark;      // of a raw file
    SensorWork sensor;    // nothing, for most frames
    SharedEvener evener;  // null for a frame that is merged as it was recorded
    SharedHotPixels hot;  // of the level; null when there are none

    int bits() const { return open ? open->bits() : tiles ? tiles->bits() : held->row(0).narrow ? 8 : 16; }
    Size size() const { return held ? held->size() : tiles ? tiles->size() : open->size(); }
};

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
Status named(Status done, int id) {
    return done.ok() ? done : Status(of_frame(done.failure(), id));
}

enum class Way { memory, scratch, stream };

// How frames that are not there yet are best brought: a run shares one way.
Way way_for(const InStep& what, const std::vector<Source>& sources) {
    const auto away = [](const Source& s) { return !s.held && !s.tiles; };
    const auto first = std::find_if(sources.begin(), sources.end(), away);
    if (first == sources.end()) return Way::memory;
    if (what.level > scaled_levels || what.store.keeps(*first->file, what.level, int(sources.size())))
        return Way::memory;
    const auto missing = std::count_if(sources.begin(), sources.end(), away);
    return what.store.keeps_tiles(*first->file, what.level, int(missing)) ? Way::scratch : Way::stream;
}

Status open_source(const InStep& what, Way way, Job& job, Source& out) {
    if (out.held || out.tiles) return Done{};
    if (way == Way::memory) {
        Result<SharedPixels> loaded = what.store.load(*out.file, what.level, job, out.dark);
        if (!loaded.ok()) return loaded.failure();
        out.held = std::move(loaded).value();
        return Done{};
    }
    Result<std::unique_ptr<OpenFrame>> opened = open_frame(*out.file, what.level, what.store.space(), out.dark);
    if (!opened.ok()) return opened.failure();
    out.open = std::move(opened).value();
    return Done{};
}

Status into_scratch(const InStep& what, Job& job, Source& source) {
    Result<SharedTiles> made = what.store.load_tiles(*source.file, what.level, *source.open, job, source.dark);
    source.open.reset();
    if (!made.ok()) return made.failure();
    source.tiles = std::move(made).value();
    return Done{};
}

// What is to be undone of the sensor's doing before the frame is placed.
Status sensor_of(const InStep& what, const Frame& frame, Job& job, Source& out) {
    const DarkChoice darks = darks_of(what.pile, frame);
    if (darks.ids.empty()) return Done{};
    if (dark_of_mosaic(frame)) {
        Result<RawDarkUse> dark = raw_dark_for(what.pile, darks, what.store);
        if (!dark.ok()) return dark.failure();
        out.dark = std::move(dark).value();
        return Done{};
    }
    Result<SharedRaster> dark = mean_dark(what.pile, darks.ids, what.level, what.store, job);
    if (!dark.ok()) return dark.failure();
    out.sensor.dark = std::move(dark).value();
    out.sensor.dark_scale = darks.scale;
    return Done{};
}

Result<std::vector<Source>> open_sources(const InStep& what, Job& job) {
    std::vector<Source> out(what.frames.size());
    bool all_here = true;
    for (std::size_t i = 0; i < out.size(); ++i) {
        const Frame& frame = *find_frame(what.pile, what.frames[i].id);
        out[i].file = frame.file.get();
        Status undone = sensor_of(what, frame, job, out[i]);
        if (!undone.ok()) return undone.failure();
        out[i].held = what.store.held(*out[i].file, what.level, out[i].dark);
        if (!out[i].held) out[i].tiles = what.store.held_tiles(*out[i].file, what.level, out[i].dark);
        all_here = all_here && (out[i].held || out[i].tiles);
    }
    if (all_here) return out;
    const Way way = way_for(what, out);
    const int count = int(out.size());
    job.begin({"Reading %1", {frames_counted(out.size())}}, count);
    Status done = for_each_of(count, count, job, [&](int i) -> Status {
        Source& source = out[std::size_t(i)];
        const int id = what.frames[std::size_t(i)].id;
        Status opened = named(open_source(what, way, job, source), id);
        if (!opened.ok() || way != Way::scratch || !source.open) return opened;
        Status put = into_scratch(what, job, source);
        // Scratch saves time here; without it the frame comes from its file.
        const bool no_scratch = !put.ok() && put.failure().fault == Fault::output;
        return named(no_scratch ? open_source(what, Way::stream, job, source) : put, id);
    });
    if (!done.ok()) return done.failure();
    return out;
}

std::vector<RowReaches> reaches_of(const InStep& what, const std::vector<Source>& sources) {
    std::vector<std::optional<RowReaches>> found(sources.size());
    parallel_for(0, int(sources.size()), [&](int n) {
        const auto i = std::size_t(n);
        const Wanted& frame = what.frames[i];
        found[i].emplace(placement(what.pile, *find_frame(what.pile, frame.id), frame.zone), what.level,
                         sources[i].size(), what.region, frame.rows);
    });
    std::vector<RowReaches> out;
    out.reserve(sources.size());
    for (auto& reaches : found) out.push_back(std::move(*reaches));
    return out;
}

// The columns of a frame that are mended: one more at either side, which mending looks at.
kernels::Span mended_columns(kernels::Span columns, int width) {
    return {std::max(0, columns.begin - 1), std::min(width, columns.end + 1)};
}

// The columns of a frame that are evened: a frame that is resampled may be read anywhere.
kernels::Span evened_columns(const Source& source, const RowReaches& reaches, const Rect& region) {
    if (reaches.resampled()) return {0, source.size().width};
    return {region.left, std::min(region.right(), source.size().width)};
}

FrameCost cost_of(const Source& source, const RowReaches& reaches, const Rect& region, int channels) {
    FrameCost cost{&reaches, 0, 0};
    if (source.open) {
        cost.row_bytes = source.open->row_bytes();
        cost.decoder_bytes = source.open->decoder_bytes();
    } else if (source.tiles && !reaches.resampled()) {
        cost.row_bytes = std::size_t(region.width) * source.tiles->pixel_bytes();
    }
    if (source.tiles && reaches.resampled()) return cost;
    const kernels::Span columns = evened_columns(source, reaches, region);
    const std::size_t samples = std::size_t(std::max(0, columns.end - columns.begin + 2)) * std::size_t(channels);
    if (source.sensor.any()) cost.row_bytes += samples * 2;
    if (source.hot) cost.row_bytes += samples * std::size_t(source.sensor.any() ? 2 : source.bits() / 8);
    if (source.evener) cost.row_bytes += samples * 2;
    return cost;
}

Result<StripPlan> plan_of(const InStep& what, const std::vector<Source>& sources,
                          const std::vector<RowReaches>& reaches) {
    std::vector<FrameCost> costs;
    costs.reserve(sources.size());
    for (std::size_t i = 0; i < sources.size(); ++i)
        costs.push_back(cost_of(sources[i], reaches[i], what.region, what.pile.channels));
    return plan_strips(costs, what.region, what.pile.channels, what.store.budget().work_bytes);
}

// Puts the frames into scratch that cannot come row by row: whose decoders take in the whole, or whose rows lie across
// the frame. As many at a time as the budget allows.
Result<bool> make_room(const InStep& what, const std::vector<RowReaches>& reaches, Job& job,
                       std::vector<Source>& sources) {
    std::vector<Source*> heavy;
    std::size_t most = 1;
    for (std::size_t i = 0; i < sources.size(); ++i) {
        OpenFrame* open = sources[i].open.get();
        if (!open || !(open->whole() || reaches[i].lies_across())) continue;
        heavy.push_back(&sources[i]);
        most = std::max(most, open->decoder_bytes() + TiledFrame::side * open->row_bytes());
    }
    if (heavy.empty()) return false;
    const std::size_t at_once = what.store.budget().work_bytes / most;
    if (at_once == 0) return too_little_memory(1, most, what.store.budget().work_bytes);
    const int count = int(heavy.size());
    job.begin({"Preparing %1", {frames_counted(heavy.size())}}, count);
    Status done = for_each_of(count, int(std::min(at_once, heavy.size())), job,
                              [&](int i) { return into_scratch(what, job, *heavy[std::size_t(i)]); });
    if (!done.ok()) return done.failure();
    return true;
}

Result<StripPlan> planned(const InStep& what, const std::vector<RowReaches>& reaches, Job& job,
                          std::vector<Source>& sources) {
    Result<StripPlan> plan = plan_of(what, sources, reaches);
    if (!plan.ok() || plan.value().peak_bytes > StripPlan::comfortable_bytes) {
        const Result<bool> room = make_room(what, reaches, job, sources);
        if (!room.ok()) return room.failure();
        if (room.value()) plan = plan_of(what, sources, reaches);
    }
    if (plan.ok())
        plan.value().frames_in_scratch =
            int(std::count_if(sources.begin(), sources.end(), [](const Source& s) { return s.tiles != nullptr; }));
    return plan;
}

std::vector<PlacedRows> frames_of(const InStep& what, const StripPlan& plan, std::vector<Source>& sources,
                                  std::vector<RowReaches>& reaches) {
    std::vector<PlacedRows> out;
    out.reserve(sources.size());
    for (std::size_t i = 0; i < sources.size(); ++i) {
        Source& source = sources[i];
        std::unique_ptr<FrameRows> rows;
        const kernels::Span columns = evened_columns(source, reaches[i], what.region);
        const kernels::Span mended = mended_columns(columns, source.size().width);
        const int beside = source.hot ? 2 : 0;  // rows that mending looks at above and below
        if (source.held)
            rows = held_rows(std::move(source.held));
        else if (source.open)
            rows = source.open->window(plan.windows[i] + beside, int(i));
        else if (!reaches[i].resampled())
            rows = tiled_rows(std::move(source.tiles), source.hot ? mended : columns, plan.windows[i] + beside);
        if (rows && source.sensor.any())
            rows = sensor_rows(std::move(rows), source.sensor, what.pile.channels, source.hot ? mended : columns,
                               plan.windows[i] + beside);
        if (rows && source.hot)
            rows = mended_rows(std::move(rows), source.hot, what.pile.channels, mended, plan.windows[i]);
        if (rows && source.evener)
            rows = evened_rows(std::move(rows), source.evener, what.pile.channels, columns, plan.windows[i]);
        if (rows)
            out.emplace_back(std::move(rows), std::move(reaches[i]), what.region, what.pile.channels, plan.bands);
        else
            out.emplace_back(std::move(source.tiles), Care{source.sensor, source.hot, source.evener},
                             std::move(reaches[i]), what.region, what.pile.channels, plan.bands);
    }
    return out;
}

// The rows of a piece, frame after frame; `samples` holds those that are resampled.
std::vector<FrameRow> take_all(const std::vector<PlacedRows>& frames, const Rect& piece, int channels,
                               LineVector<std::uint16_t>& samples, Stopwatch& placing) {
    const Stopwatch::Lap lap(placing);
    // Apart by more than the samples: what lies at the same place of every frame must not meet in the same lines of a
    // cache. Every frame begins at a line of its own.
    constexpr std::size_t apart = 160;
    const std::size_t each = in_whole_lines<std::uint16_t>(
        std::size_t(piece.width) * std::size_t(piece.height) * std::size_t(channels) + apart);
    const auto resampled = std::count_if(frames.begin(), frames.end(), [](const auto& f) { return f.resampled(); });
    if (samples.size() < std::size_t(resampled) * each) samples.resize(std::size_t(resampled) * each);
    std::vector<FrameRow> out(frames.size() * std::size_t(piece.height));
    std::uint16_t* room = samples.data();
    for (std::size_t k = 0; k < frames.size(); ++k) {
        frames[k].take(piece, room, out.data() + k * std::size_t(piece.height));
        if (frames[k].resampled()) room += each;
    }
    return out;
}

}  // namespace

SharedSpots spots_at(const Pile& pile, int level) {
    if (!pile.spots || pile.spots->empty()) return nullptr;
    if (level == 0) return pile.spots;
    std::vector<SensorSpot> out;
    for (const SensorSpot& spot : *pile.spots) out.push_back(at_level(spot, level));
    return std::make_shared<const std::vector<SensorSpot>>(std::move(out));
}

std::vector<Wanted> wanted(const std::vector<int>& ids, Zone zone) {
    std::vector<Wanted> out;
    out.reserve(ids.size());
    for (const int id : ids) out.push_back({id, zone});
    return out;
}

Status bring_in_step(const InStep& what, Job& job, StepWork& work) {
    for (const Wanted& frame : what.frames)
        if (!find_frame(what.pile, frame.id))
            return Failure{Fault::wrong_call, "", "This frame is not in the pile any more."};
    Result<std::vector<Source>> opened = open_sources(what, job);
    if (!opened.ok()) return opened.failure();
    Eveners eveners(what.pile);
    const SharedHotPixels hot = what.pile.hot && !what.pile.hot->empty()
                                    ? std::make_shared<const HotPixels>(at_level(*what.pile.hot, what.level))
                                    : SharedHotPixels();
    const SharedSpots spots = spots_at(what.pile, what.level);
    const bool sensor = spots || what.pile.darks != Darks::off;
    const auto tables = sensor ? std::make_shared<const SensorTables>(what.pile.profile, what.pile.channels) : nullptr;
    for (std::size_t i = 0; i < what.frames.size(); ++i) {
        Source& source = opened.value()[i];
        source.sensor.spots = spots;
        if (source.sensor.any()) source.sensor.tables = tables;
        source.evener = eveners.of(*find_frame(what.pile, what.frames[i].id), source.sensor.any() ? 16 : source.bits());
        source.hot = hot;
    }
    std::vector<RowReaches> reaches = reaches_of(what, opened.value());
    const Result<StripPlan> plan = planned(what, reaches, job, opened.value());
    if (!plan.ok()) return plan.failure();
    const std::vector<Band>& bands = plan.value().bands;
    std::vector<PlacedRows> frames = frames_of(what, plan.value(), opened.value(), reaches);
    work.begin(plan.value());
    job.begin({"Merging %1", {frames_counted(frames.size())}}, long(bands.size()));

    FirstFailure failure;
    Stopwatch reading, placing, merging, finishing;
    const auto read = [&](std::size_t frame, std::size_t band) {
        const Stopwatch::Lap lap(reading);
        const Status got = frames[frame].read(band);
        if (!got.ok()) failure.note(of_frame(got.failure(), what.frames[frame].id));
    };
    const auto merge = [&](const Rect& piece) {
        static thread_local LineVector<std::uint16_t> samples;
        const std::vector<FrameRow> taken = take_all(frames, piece, what.pile.channels, samples, placing);
        const Stopwatch::Lap lap(merging);
        std::vector<FrameRow> rows(frames.size());
        for (int i = 0; i < piece.height; ++i) {
            for (std::size_t k = 0; k < frames.size(); ++k)
                rows[k] = taken[k * std::size_t(piece.height) + std::size_t(i)];
            work.row(piece.top + i, {piece.left, piece.right()}, rows);
        }
    };
    const auto finish = [&](std::size_t band) {
        const Stopwatch::Lap lap(finishing);
        Status done = work.finish(bands[band]);
        if (!done.ok()) failure.note(done.failure());
        job.advance();
    };
    for (std::size_t b = 0; b < bands.size() + 2; ++b) {
        const int finishes = b >= 2 ? 1 : 0;
        const int reads = b < bands.size() ? int(frames.size()) : 0;
        std::vector<Rect> pieces;
        if (b >= 1 && b <= bands.size()) pieces = pieces_of(bands[b - 1], what.region, plan.value().piece);
        parallel_for(0, finishes + reads + int(pieces.size()), [&](int i) {
            if (job.stopped() || failure.any()) return;
            if (i < finishes)
                finish(b - 2);
            else if (i < finishes + reads)
                read(std::size_t(i - finishes), b);
            else
                merge(pieces[std::size_t(i - finishes - reads)]);
        });
        if (job.stopped()) return stopped_failure();
        if (failure.any()) return failure.get();
    }
    work.end({reading.seconds(), placing.seconds(), merging.seconds(), finishing.seconds()});
    return Done{};
}

}  // namespace bp
