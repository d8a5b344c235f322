#include "engine/in_step.h"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <iterator>
#include <optional>

#include "base/first_failure.h"
#include "base/line_vector.h"
#include "base/parallel.h"
#include "engine/left_out.h"
#include "engine/sources.h"

namespace bp {
namespace {

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

// A take on its way.
struct Placing {
    std::size_t source;
    RowReaches reaches;
    Stages further;  // beyond the source's own

    bool from_boxes(const Source& of) const { return of.tiles && reaches.resampled(); }
    Stages all(const Source& of) const {
        Stages out = of.stages;
        out.insert(out.end(), further.begin(), further.end());
        return out;
    }
};

// Rows of a source that come in step: as its own stages leave them, for all of its takes, or with the further stages of
// one of them.
struct Stream {
    std::size_t source = 0;
    const Placing* branch = nullptr;  // null for the source's own
    RowNeeds needs;
    kernels::Span columns;
    std::vector<std::pair<int, int>> by_band;
    std::shared_ptr<FrameRows> rows;
};

// The rows that another stream has made ready.
class Borrowed final : public FrameRows {
  public:
    explicit Borrowed(std::shared_ptr<const FrameRows> rows) : rows_(std::move(rows)) {}
    Size size() const override { return rows_->size(); }
    int bits() const override { return rows_->bits(); }
    int left() const override { return rows_->left(); }
    Status require(int, int) override { return Done{}; }
    SourceRow row(int y) const override { return rows_->row(y); }

  private:
    std::shared_ptr<const FrameRows> rows_;
};

// Every frame that is taken, once.
std::vector<int> frames_in(const std::vector<Take>& takes) {
    std::vector<int> out;
    for (const Take& take : takes)
        if (std::find(out.begin(), out.end(), take.frame) == out.end()) out.push_back(take.frame);
    return out;
}

std::vector<Placing> placings_of(const InStep& what, const std::vector<Source>& sources, FrameStages& stages) {
    std::vector<std::optional<RowReaches>> reaches(what.takes.size());
    std::vector<std::size_t> source_of(what.takes.size());
    parallel_for(0, int(what.takes.size()), [&](int n) {
        const auto i = std::size_t(n);
        const Take& take = what.takes[i];
        const auto source =
            std::find_if(sources.begin(), sources.end(), [&](const Source& s) { return s.frame->id == take.frame; });
        source_of[i] = std::size_t(source - sources.begin());
        if (take.elsewhere && take.elsewhere->only)
            reaches[i].emplace(take.elsewhere->place, what.level, source->size(), what.region, *take.elsewhere->only);
        else if (take.elsewhere)
            reaches[i].emplace(take.elsewhere->place, what.level, source->size(), what.region, take.elsewhere->box);
        else
            reaches[i].emplace(placement(what.pile, *source->frame, take.zone), what.level, source->size(), what.region,
                               take.rows);
    });
    std::vector<Placing> out;
    out.reserve(what.takes.size());
    for (std::size_t i = 0; i < what.takes.size(); ++i) {
        Stages further = stages.softened(what.takes[i].softening);
        const Source& source = sources[source_of[i]];
        const Samples from = made_by(further, made_by(source.stages, source.samples()));
        const Stages looked = stages.looked(what.takes[i].look, from);
        further.insert(further.end(), looked.begin(), looked.end());
        out.push_back({source_of[i], std::move(*reaches[i]), std::move(further)});
    }
    return out;
}

// The columns of a frame that a take reads: one that is resampled may read anywhere.
kernels::Span columns_of(const Source& source, const RowReaches& reaches, const Rect& region) {
    if (reaches.resampled()) return {0, source.size().width};
    const int left = std::clamp(region.left, 0, source.size().width);
    return {left, std::clamp(region.right(), left, source.size().width)};
}

// Those of a source come one after the other, its own first.
std::vector<Stream> streams_of(const std::vector<Source>& sources, const std::vector<Placing>& placings,
                               const Rect& region) {
    std::vector<Stream> out;
    for (std::size_t s = 0; s < sources.size(); ++s) {
        Stream own;
        own.source = s;
        std::vector<Stream> branches;
        for (const Placing& placing : placings) {
            if (placing.source != s || placing.from_boxes(sources[s])) continue;
            const StageReach reach = reach_of(placing.further);
            const kernels::Span columns = columns_of(sources[s], placing.reaches, region);
            const kernels::Span read = widened(columns, reach.across, sources[s].size().width);
            own.columns = own.needs.any() ? kernels::Span{std::min(own.columns.begin, read.begin),
                                                          std::max(own.columns.end, read.end)}
                                          : read;
            own.needs.add(placing.reaches, reach.down);
            if (placing.further.empty()) continue;
            branches.push_back({s, &placing, {}, columns, {}, nullptr});
            branches.back().needs.add(placing.reaches);
        }
        if (!own.needs.any()) continue;
        out.push_back(std::move(own));
        std::move(branches.begin(), branches.end(), std::back_inserter(out));
    }
    return out;
}

const Stages& stages_of(const Stream& stream, const std::vector<Source>& sources) {
    return stream.branch ? stream.branch->further : sources[stream.source].stages;
}

RowCost cost_of(const Stream& stream, const std::vector<Source>& sources, int channels) {
    const Source& source = sources[stream.source];
    const Stages& stages = stages_of(stream, sources);
    const int width = source.size().width;
    const Samples from = stream.branch ? made_by(source.stages, source.samples()) : source.samples();
    const StageMemory staged = memory_of(stages, from, channels, width, stream.columns);
    RowCost out{stream.needs, staged.row_bytes, staged.beside_bytes, !source.held};
    if (stream.branch || source.held) return out;
    const StageReach reach = reach_of(stages);
    std::size_t row = 0;
    if (source.open) {
        row = source.open->row_bytes();
        out.fixed_bytes += source.open->decoder_bytes();
    } else {
        const kernels::Span read = widened(stream.columns, reach.across, width);
        row = std::size_t(std::max(0, read.end - read.begin)) * source.tiles->pixel_bytes();
    }
    out.row_bytes += row;
    out.fixed_bytes += row * std::size_t(2 * reach.down);
    return out;
}

Result<StripPlan> plan_of(const InStep& what, const std::vector<Source>& sources, const std::vector<Placing>& placings,
                          const std::vector<Stream>& streams) {
    std::vector<RowCost> costs;
    costs.reserve(streams.size() + 1);
    for (const Stream& stream : streams) costs.push_back(cost_of(stream, sources, what.pile.channels));
    costs.push_back({{}, 0, what.beside_bytes});
    std::size_t resampled = 0, sparse = 0;
    for (const Placing& p : placings)
        if (p.reaches.resampled()) ++(p.reaches.sparse() ? sparse : resampled);
    return plan_strips(costs, sources.size(), resampled, what.region, what.pile.channels,
                       what.store.budget().work_bytes, sparse);
}

// The plan, once the frames that cannot come row by row, whose decoders take in the whole or whose rows lie across the
// frame, are in scratch where that is needed.
Result<StripPlan> planned(const InStep& what, const std::vector<Placing>& placings, Job& job,
                          std::vector<Source>& sources, std::vector<Stream>& streams) {
    streams = streams_of(sources, placings, what.region);
    Result<StripPlan> plan = plan_of(what, sources, placings, streams);
    if (!plan.ok() || plan.value().peak_bytes > StripPlan::comfortable_bytes) {
        std::vector<Source*> heavy;
        for (const Stream& stream : streams) {
            Source& source = sources[stream.source];
            if (stream.branch || !source.open || !(source.open->whole() || stream.needs.lies_across())) continue;
            heavy.push_back(&source);
        }
        if (!heavy.empty()) {
            const Status put = into_scratch(heavy, what.level, what.store, job);
            if (!put.ok()) return put.failure();
            streams = streams_of(sources, placings, what.region);
            plan = plan_of(what, sources, placings, streams);
        }
    }
    if (plan.ok())
        plan.value().frames_in_scratch =
            int(std::count_if(sources.begin(), sources.end(), [](const Source& s) { return s.tiles != nullptr; }));
    return plan;
}

void open_streams(const StripPlan& plan, int channels, std::vector<Source>& sources, std::vector<Stream>& streams) {
    std::shared_ptr<FrameRows> own;
    for (std::size_t i = 0; i < streams.size(); ++i) {
        Stream& stream = streams[i];
        Source& source = sources[stream.source];
        const Stages& stages = stages_of(stream, sources);
        const StageReach reach = reach_of(stages);
        stream.by_band = stream.needs.of(plan.bands);
        const int window = plan.windows[i];
        if (stream.branch)
            stream.rows = std::make_shared<Borrowed>(own);
        else if (source.held)
            stream.rows = held_rows(source.held);
        else if (source.open)
            stream.rows = source.open->window(window + 2 * reach.down, int(stream.source));
        else
            stream.rows = tiled_rows(source.tiles, widened(stream.columns, reach.across, source.size().width),
                                     window + 2 * reach.down);
        if (!stages.empty()) stream.rows = staged_rows(stream.rows, stages, channels, stream.columns, window);
        if (!stream.branch) own = stream.rows;
    }
}

std::vector<PlacedRows> placed_rows(const std::vector<Source>& sources, const std::vector<Placing>& placings,
                                    const std::vector<Stream>& streams, int channels) {
    std::vector<PlacedRows> out;
    out.reserve(placings.size());
    for (const Placing& placing : placings) {
        const Source& source = sources[placing.source];
        if (placing.from_boxes(source)) {
            out.emplace_back(source.tiles, placing.all(source), placing.reaches, channels);
            continue;
        }
        const Placing* branch = placing.further.empty() ? nullptr : &placing;
        const auto stream = std::find_if(streams.begin(), streams.end(), [&](const Stream& s) {
            return s.source == placing.source && s.branch == branch;
        });
        out.emplace_back(stream->rows, placing.reaches, channels);
    }
    return out;
}

// Reads all of a source that a band needs.
class SourceReader {
  public:
    SourceReader(std::size_t number, const std::vector<Source>& sources, const std::vector<Placing>& placings,
                 std::vector<Stream>& streams, const std::vector<Band>& bands)
        : source_(&sources[number]) {
        for (Stream& stream : streams)
            if (stream.source == number) streams_.push_back(&stream);
        RowNeeds boxes;
        for (const Placing& placing : placings)
            if (placing.source == number && placing.from_boxes(*source_)) boxes.add(placing.reaches);
        if (boxes.any()) boxes_by_band_ = boxes.of(bands);
    }
    // May run while pieces of band - 1 are taken by others.
    Status read(std::size_t band) {
        for (Stream* stream : streams_) {
            const auto& rows = stream->by_band;
            Status got = stream->rows->require(rows[band == 0 ? band : band - 1].first, rows[band].second);
            if (!got.ok()) return of_frame(got.failure(), source_->frame->id);
        }
        if (band >= 2 && !boxes_by_band_.empty())
            source_->tiles->let_go(boxes_by_band_[band - 2].first, boxes_by_band_[band - 2].second);
        return Done{};
    }

  private:
    const Source* source_;
    std::vector<Stream*> streams_;
    std::vector<std::pair<int, int>> boxes_by_band_;
};

// Memory of a thread, kept from piece to piece.
struct PieceMemory {
    LineVector<std::uint16_t> samples;
    std::vector<kernels::Span> silent;
    std::vector<std::size_t> silent_ends;  // by row of every take with something left out
};

// A take with what is left out of it.
struct Ballot {
    const RowReaches* reaches;
    std::optional<LeftOut> left_out;
};
std::vector<Ballot> ballots_of(const InStep& what, const std::vector<Placing>& placings) {
    std::vector<Ballot> out(placings.size());
    for (std::size_t k = 0; k < placings.size(); ++k) {
        out[k].reaches = &placings[k].reaches;
        if (what.takes[k].left_out) out[k].left_out.emplace(*what.takes[k].left_out, what.level);
    }
    return out;
}

// Adds the stretches of a take's rows that do not vote.
void add_silence(const Ballot& ballot, const Rect& piece, const FrameRow* rows, PieceMemory& memory) {
    const bool any = ballot.left_out->touches(ballot.reaches->of(Band{piece.top, piece.bottom()}));
    std::optional<kernels::RowPlaces> places;
    if (any && ballot.reaches->resampled())
        places.emplace(ballot.reaches->map(), kernels::Span{piece.left, piece.right()});
    for (int i = 0; i < piece.height; ++i) {
        if (any && !rows[i].cover.empty())
            ballot.left_out->add_silence(*ballot.reaches, places ? &*places : nullptr, piece.top + i, piece.left,
                                         rows[i].cover, memory.silent);
        memory.silent_ends.push_back(memory.silent.size());
    }
}

// The rows of a piece, take after take, of those that show in it.
struct TakenRows {
    std::vector<std::size_t> takes;
    std::vector<FrameRow> rows;
};

void put_votes(const std::vector<Ballot>& ballots, const Rect& piece, PieceMemory& memory, TakenRows& taken) {
    const auto height = std::size_t(piece.height);
    memory.silent.clear();
    memory.silent_ends.clear();
    for (std::size_t n = 0; n < taken.takes.size(); ++n) {
        const Ballot& ballot = ballots[taken.takes[n]];
        if (ballot.left_out) add_silence(ballot, piece, taken.rows.data() + n * height, memory);
    }
    std::size_t from = 0;
    auto end = memory.silent_ends.begin();
    for (std::size_t n = 0; n < taken.takes.size(); ++n)
        for (std::size_t i = 0; ballots[taken.takes[n]].left_out && i < height; ++i, ++end) {
            taken.rows[n * height + i].silent = std::span(memory.silent).subspan(from, *end - from);
            from = *end;
        }
}

// `memory` holds the rows that are resampled.
TakenRows take_all(int channels, const std::vector<PlacedRows>& takes, const std::vector<Ballot>& ballots,
                   const Rect& piece, PieceMemory& memory, Stopwatch& placing) {
    const Stopwatch::Lap lap(placing);
    // Apart by more than the samples: what lies at the same place of every frame must not meet in the same lines of a
    // cache. Every frame begins at a line of its own.
    constexpr std::size_t apart = 160;
    const std::size_t each = in_whole_lines<std::uint16_t>(
        std::size_t(piece.width) * std::size_t(piece.height) * std::size_t(channels) + apart);
    TakenRows out;
    std::size_t resampled = 0;
    for (std::size_t k = 0; k < takes.size(); ++k) {
        if (!takes[k].shows_in(piece)) continue;
        out.takes.push_back(k);
        if (takes[k].resampled()) ++resampled;
    }
    if (memory.samples.size() < resampled * each) memory.samples.resize(resampled * each);
    out.rows.resize(out.takes.size() * std::size_t(piece.height));
    std::uint16_t* room = memory.samples.data();
    FrameRow* rows = out.rows.data();
    for (const std::size_t k : out.takes) {
        takes[k].take(piece, room, rows);
        rows += piece.height;
        if (takes[k].resampled()) room += each;
    }
    put_votes(ballots, piece, memory, out);
    return out;
}

}  // namespace

std::vector<Take> takes_of(const std::vector<int>& frames, Zone zone) {
    std::vector<Take> out;
    out.reserve(frames.size());
    for (const int frame : frames) out.push_back({frame, zone, every_row, {}, {}, nullptr, std::nullopt});
    return out;
}

Status bring_in_step(const InStep& what, Job& job, StepWork& work) {
    for (const Take& take : what.takes)
        if (!find_frame(what.pile, take.frame))
            return Failure{Fault::wrong_call, "", "This frame is not in the pile any more."};
    FrameStages stages(what.pile, what.level);
    Result<std::vector<Source>> opened =
        open_sources(what.pile, frames_in(what.takes), what.level, what.store, stages, job);
    if (!opened.ok()) return opened.failure();
    std::vector<Source>& sources = opened.value();
    const std::vector<Placing> placings = placings_of(what, sources, stages);
    std::vector<Stream> streams;
    const Result<StripPlan> plan = planned(what, placings, job, sources, streams);
    if (!plan.ok()) return plan.failure();
    const std::vector<Band>& bands = plan.value().bands;
    open_streams(plan.value(), what.pile.channels, sources, streams);
    const std::vector<PlacedRows> takes = placed_rows(sources, placings, streams, what.pile.channels);
    const std::vector<Ballot> ballots = ballots_of(what, placings);
    std::vector<SourceReader> readers;
    readers.reserve(sources.size());
    for (std::size_t s = 0; s < sources.size(); ++s) readers.emplace_back(s, sources, placings, streams, bands);
    work.begin(plan.value());
    job.begin({"Merging %1", {frames_counted(sources.size())}}, long(bands.size()));

    FirstFailure failure;
    Stopwatch reading, placing, merging, finishing;
    const auto read = [&](std::size_t source, std::size_t band) {
        const Stopwatch::Lap lap(reading);
        const Status got = readers[source].read(band);
        if (!got.ok()) failure.note(got.failure());
    };
    const auto merge = [&](const Rect& piece) {
        static thread_local PieceMemory memory;
        const TakenRows taken = take_all(what.pile.channels, takes, ballots, piece, memory, placing);
        const Stopwatch::Lap lap(merging);
        std::vector<FrameRow> rows(takes.size());
        for (int i = 0; i < piece.height; ++i) {
            for (std::size_t n = 0; n < taken.takes.size(); ++n)
                rows[taken.takes[n]] = taken.rows[n * std::size_t(piece.height) + std::size_t(i)];
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
        const int reads = b < bands.size() ? int(sources.size()) : 0;
        std::vector<Rect> pieces;
        if (b >= 1 && b <= bands.size()) pieces = pieces_of(bands[b - 1], what.region, plan.value().piece);
        // In this order, one at a time: frames take long, and a core that is done with one early goes on with pieces.
        parallel_each(0, finishes + reads + int(pieces.size()), [&](int i) {
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
