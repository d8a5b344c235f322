#include "engine/layers.h"

#include <algorithm>
#include <chrono>
#include <cmath>

#include "base/gate.h"
#include "base/parallel.h"
#include "engine/render.h"
#include "engine/resizing.h"
#include "engine/turning.h"
#include "engine/way_out.h"
#include "engine/writing_out.h"
#include "io/layered_writer.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

// What a part lays down in a box of the canvas, and how much of it counts.
class LayerRows final : public StepWork {
  public:
    LayerRows(const Pile& pile, const Part& part, const SharedEdge& edge, const Rect& box, Raster16& samples,
              Raster16& share)
        : pile_(pile),
          box_(box),
          samples_(samples),
          share_(share),
          gathering_(pile, box, 0),
          rows_(pile, part, edge, gathering_, 0) {}
    const std::vector<Take>& takes() const { return gathering_.takes(); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow zone(pile_, 0, y, columns);
        std::vector<std::uint16_t> scratch;
        const FrameRow row = rows_.over(y, columns, rows, zone, scratch);
        if (row.cover.empty()) return;
        const int left = columns.begin - box_.left, channels = pile_.channels;
        const int count = row.cover.end - row.cover.begin;
        std::vector<std::uint8_t> mask(std::size_t(columns.end - columns.begin), 0);
        rows_.read_mask(y, columns.begin, int(mask.size()), mask.data());
        std::copy_n(row.wide + std::ptrdiff_t(row.cover.begin) * channels, count * channels,
                    samples_.row(y - box_.top) + std::ptrdiff_t(left + row.cover.begin) * channels);
        std::uint16_t* share = share_.row(y - box_.top) + left;
        for (int x = row.cover.begin; x < row.cover.end; ++x) share[x] = std::uint16_t(mask[std::size_t(x)] * 257);
    }

  private:
    const Pile& pile_;
    Rect box_;
    Raster16& samples_;
    Raster16& share_;
    Gathering gathering_;
    PartRows rows_;
};

// None for a join that the format does not know.
std::optional<std::string> operation_of(Join join) {
    switch (join) {
        case Join::replace:
            return "svg:src-over";
        case Join::lighter:
            return "svg:lighten";
        case Join::darker:
            return "svg:darken";
        case Join::add:
            break;
    }
    return std::nullopt;
}

Raster16 piece_of(const Raster16& from, const Rect& area, const Rect& wanted) {
    Raster16 out(wanted.size(), from.channels());
    const Rect there = intersect(area, wanted);
    for (int y = there.top; y < there.bottom(); ++y)
        std::copy_n(from.row(y - area.top) + std::ptrdiff_t(there.left - area.left) * from.channels(),
                    there.width * from.channels(),
                    out.row(y - wanted.top) + std::ptrdiff_t(there.left - wanted.left) * from.channels());
    return out;
}

class Layers {
  public:
    Layers(const Pile& pile, const WayOut& way, FrameStore& store, Job& job, LayeredWriter& to)
        : pile_(pile), way_(way), store_(store), job_(job), to_(to), turn_(pile) {}

    Status base() {
        Pile base = pile_;
        base.parts.clear();
        base.finish = {};
        if (merged_ids(base).empty()) return Done{};  // parts alone
        PictureLayer layer;
        layer.name = "base";
        Result<std::unique_ptr<RowWriter>> writer = to_.layer(layer, exported_head(pile_));
        if (!writer.ok()) return writer.failure();
        Status written = way_.write(base, store_, job_, *writer.value(), [](RowSink& way) -> RowSink& { return way; });
        return written.ok() ? writer.value()->finish() : written;
    }
    Status parts() {
        const Picture picture(pile_, 0, {});
        const Result<SolvedEdges> edges = picture.edges(store_, turn_.made_from(way_.area()), job_, nullptr);
        if (!edges.ok()) return edges.failure();
        for (const Part& part : pile_.parts) {
            const Frame* frame = find_frame(pile_, part.frame);
            if (!frame || !usable(*frame) || part.mask.empty()) continue;
            const auto edge = edges.value().find(part.id);
            Status written =
                this->part(picture, part, edges.value(), edge == edges.value().end() ? nullptr : edge->second);
            if (!written.ok()) return written;
        }
        return Done{};
    }

  private:
    Status part(const Picture& picture, const Part& part, const SolvedEdges& edges, const SharedEdge& edge) {
        const Rect box = intersect(reach_of(pile_, part), turn_.made_from(way_.area()));
        if (box.empty()) return Done{};
        const std::size_t pixels = way_.smaller() ? std::size_t(way_.area().width) * std::size_t(way_.area().height)
                                                  : std::size_t(box.width) * std::size_t(box.height);
        const MemoryGate::Ticket ticket(MemoryGate::of_process(),
                                        3 * pixels * std::size_t(pile_.channels + 1) * sizeof(std::uint16_t));
        Raster16 samples(box.size(), pile_.channels), share(box.size(), 1);
        LayerRows rows(pile_, part, edge, box, samples, share);
        Status read = bring_in_step({pile_, store_, rows.takes(), box, 0, samples.bytes() + share.bytes()}, job_, rows);
        if (!read.ok()) return read;
        const std::optional<std::string> operation = operation_of(part.join);
        if (!operation && part.on) {
            const auto count = std::size_t(&part - pile_.parts.data()) + 1;
            Result<Raster16> there = picture.first_parts(edges, count, store_, box, job_);
            if (!there.ok()) return there.failure();
            samples = std::move(there).value();
            for (std::uint16_t& one : share.data()) one = one > 0 ? 65535 : 0;
        }
        PictureLayer layer{part.name.empty() ? "part " + std::to_string(part.id) : part.name,
                           operation.value_or("svg:src-over"),
                           operation ? part.strength : 1.0,
                           part.on,
                           0,
                           0};
        return write(layer, std::move(samples), std::move(share), box);
    }
    // Turned, made smaller and brought to a profile like the picture.
    Status write(PictureLayer& layer, Raster16 samples, Raster16 share, const Rect& box) {
        Rect area = intersect(turn_.shown_in(box), way_.area());
        if (area.empty()) return Done{};
        const auto as_seen = [&](const Raster16& of) {
            return turned(pile_, area, 0,
                          [&](const Rect& there) -> Result<Raster16> { return piece_of(of, box, there); });
        };
        Result<Raster16> colours = as_seen(samples), shares = as_seen(share);
        if (!colours.ok()) return colours.failure();
        if (!shares.ok()) return shares.failure();
        Point at{double(area.left - way_.area().left), double(area.top - way_.area().top)};
        if (way_.smaller()) {
            // Pixels of the smaller picture are those of all of it.
            colours = reduced(piece_of(colours.value(), area, way_.area()), way_.size(), pile_.profile);
            shares = reduced(piece_of(shares.value(), area, way_.area()), way_.size(), Profile::linear_srgb());
            at = {};
        }
        Raster16& of = colours.value();
        const int channels = of.channels();
        if (const auto& conversion = way_.conversion())
            parallel_for(0, of.height(), [&](int y) { conversion->run(of.row(y), of.row(y), of.width()); });
        Raster16 out(of.size(), channels + 1);
        for (int y = 0; y < of.height(); ++y) {
            std::uint16_t* to = out.row(y);
            for (int x = 0; x < of.width(); ++x) {
                for (int c = 0; c < channels; ++c) *to++ = of.at(x, y, c);
                *to++ = shares.value().at(x, y, 0);
            }
        }
        layer.left = int(at.x);
        layer.top = int(at.y);
        PictureHead head = exported_head(pile_);
        head.size = out.size();
        head.channels = out.channels();
        Result<std::unique_ptr<RowWriter>> writer = to_.layer(layer, head);
        if (!writer.ok()) return writer.failure();
        std::vector<const std::uint16_t*> all;
        all.reserve(std::size_t(out.height()));
        for (int y = 0; y < out.height(); ++y) all.push_back(out.row(y));
        Status written = writer.value()->write(all);
        return written.ok() ? writer.value()->finish() : written;
    }

    const Pile& pile_;
    const WayOut& way_;
    FrameStore& store_;
    Job& job_;
    LayeredWriter& to_;
    const Turn turn_;
};

// Rows go on, and into a second picture as well.
class Both final : public RowSink {
  public:
    Both(const Rect& area, int channels, RowSink& first, RowSink& second)
        : samples_(std::size_t(area.width) * std::size_t(channels)), first_(first), second_(second) {}
    void begin(const StripPlan& plan) override {
        first_.begin(plan);
        second_.begin(plan);
    }
    std::uint16_t* row(int y) override { return first_.row(y); }
    Status finish(const Band& band) override {
        for (int y = band.first; y < band.second; ++y) std::copy_n(first_.row(y), samples_, second_.row(y));
        if (Status done = second_.finish(band); !done.ok()) return done;
        return first_.finish(band);
    }

  private:
    std::size_t samples_;
    RowSink& first_;
    RowSink& second_;
};

class Small final : public RowSink {
  public:
    explicit Small(Raster16& out) : out_(out) {}
    std::uint16_t* row(int y) override { return out_.row(y); }

  private:
    Raster16& out_;
};

Status write_whole_picture(const Pile& pile, const WayOut& way, FrameStore& store, Job& job, LayeredWriter& to) {
    Raster16 small(reduced_size(way.area().size(), LayeredWriter::thumbnail_side), pile.channels);
    Small into(small);
    Reducer reducer(way.area(), small.size(), pile.profile, pile.channels, into);
    Result<std::unique_ptr<RowWriter>> writer = to.merged(exported_head(pile));
    if (!writer.ok()) return writer.failure();
    std::optional<Both> both;
    Status written = way.write(pile, store, job, *writer.value(), [&](RowSink& on) -> RowSink& {
        return both.emplace(way.area(), pile.channels, on, reducer);
    });
    if (!written.ok()) return written;
    if (Status whole = writer.value()->finish(); !whole.ok()) return whole;
    if (way.conversion())
        for (int y = 0; y < small.height(); ++y) way.conversion()->run(small.row(y), small.row(y), small.width());
    PictureHead head = exported_head(pile);
    head.size = small.size();
    Result<std::unique_ptr<RowWriter>> thumbnail = to.thumbnail(head);
    if (!thumbnail.ok()) return thumbnail.failure();
    std::vector<const std::uint16_t*> rows;
    rows.reserve(std::size_t(small.height()));
    for (int y = 0; y < small.height(); ++y) rows.push_back(small.row(y));
    Status done = thumbnail.value()->write(rows);
    return done.ok() ? thumbnail.value()->finish() : done;
}

}  // namespace

Status write_layers(const Pile& pile, const std::filesystem::path& file, const ExportOptions& options, Job& job,
                    Exported& out) {
    const auto begin = std::chrono::steady_clock::now();
    const Result<WayOut> way = WayOut::of(pile);
    if (!way.ok()) return way.failure();
    out.area = way.value().area();
    out.size = way.value().size();
    const std::size_t taken = way.value().bytes();
    FrameStore store(working_space(pile), {0, options.memory_bytes - std::min(options.memory_bytes, taken)},
                     options.scratch);
    if (options.known)
        if (Status shared = share_what_is_known(pile, *options.known, store, job); !shared.ok()) return shared;
    Status written = write_in_layers(file, out.size, exported_head(pile).dpi, options.write.bits == 8 ? 8 : 16,
                                     options.scratch->folder(), [&](LayeredWriter& to) -> Status {
                                         Layers layers(pile, way.value(), store, job, to);
                                         if (Status based = layers.base(); !based.ok()) return based;
                                         if (Status laid = layers.parts(); !laid.ok()) return laid;
                                         return write_whole_picture(pile, way.value(), store, job, to);
                                     });
    out.merge_s = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    return written;
}

}  // namespace bp
