#include "engine/render.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "kernels/blend.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

constexpr int step_of_8_bits = 257;

MergeTools tools_for(const Pile& pile, const std::vector<int>& ids) {
    MergeTools tools{
        pile.merge.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded(),
        {},
        0,
        1};
    for (const int id : ids) {
        const Frame& frame = *find_frame(pile, id);
        if (id == pile.reference) tools.reference = int(tools.strength_tables.size());
        tools.strength_tables.push_back(strength_table(frame.strength, tools.curve));
        if (frame.file->facts.bits == 8) tools.step = step_of_8_bits;
    }
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

// The covered samples of a row in 16 bits; `scratch` holds them when they had to be widened.
const std::uint16_t* widened(const FrameRow& row, int channels, std::vector<std::uint16_t>& scratch) {
    const std::ptrdiff_t from = std::ptrdiff_t(row.cover.begin) * channels;
    if (row.wide) return row.wide + from;
    scratch.resize(std::size_t(row.cover.end - row.cover.begin) * std::size_t(channels));
    kernels::widen(row.narrow + from, scratch.size(), scratch.data());
    return scratch.data();
}

// `out` is row y from canvas column `left` on.
void lay_part(const Part& part, const FrameRow& row, int level, int y, int left, int channels, std::uint16_t* out) {
    if (row.cover.empty()) return;
    const int width = row.cover.end - row.cover.begin;
    std::vector<std::uint8_t> mask(std::size_t(width), 0);
    part.mask.read_row(level, y, left + row.cover.begin, width, mask.data());
    std::vector<std::uint16_t> scratch;
    kernels::lay_over(widened(row, channels, scratch), mask.data(), int(std::lround(255 * part.strength)),
                      std::size_t(width), channels, out + std::ptrdiff_t(row.cover.begin) * channels);
}

// Canvas rows of a level in which a zone has a share, as first and last row; all of them in a pile without zones.
Band rows_of(const Pile& pile, Zone zone, const Rect& region, int level) {
    if (!pile.zones) return every_row;
    std::vector<std::uint8_t> mask(std::size_t(region.width), 0);
    Band out{0, 0};
    for (int y = region.top; y < region.bottom(); ++y) {
        pile.zones->soft.read_row(level, y, region.left, region.width, mask.data());
        const auto shares = [zone](std::uint8_t m) { return zone == Zone::sky ? m > 0 : m < 255; };
        if (std::none_of(mask.begin(), mask.end(), shares)) continue;
        if (out.second == 0) out.first = y;
        out.second = y + 1;
    }
    return out;
}

// How much of a piece of row is sky, by pixel.
class SkyRow {
  public:
    SkyRow(const Pile& pile, int level, int y, kernels::Span columns)
        : mask_(std::size_t(columns.end - columns.begin), 255) {
        if (pile.zones) pile.zones->soft.read_row(level, y, columns.begin, width(), mask_.data());
    }
    bool any() const {
        return std::any_of(mask_.begin(), mask_.end(), [](std::uint8_t m) { return m > 0; });
    }
    bool all() const {
        return std::all_of(mask_.begin(), mask_.end(), [](std::uint8_t m) { return m == 255; });
    }
    const std::uint8_t* from(int x) const { return mask_.data() + x; }
    int width() const { return int(mask_.size()); }

  private:
    std::vector<std::uint8_t> mask_;
};

// One frame as its zones lie: rows of both come together in `out`. It covers what each zone with a share there covers:
// the longest stretch of it.
FrameRow zones_together(const FrameRow& sky, const FrameRow& land, const SkyRow& share, int channels,
                        std::vector<std::uint16_t>& out) {
    out.assign(std::size_t(share.width()) * std::size_t(channels), 0);
    std::vector<std::uint16_t> scratch;
    for (const FrameRow* row : {&land, &sky}) {
        if (row->cover.empty()) continue;
        const std::uint16_t* samples = widened(*row, channels, scratch);
        const std::ptrdiff_t from = std::ptrdiff_t(row->cover.begin) * channels;
        const int pixels = row->cover.end - row->cover.begin;
        if (row == &land)
            std::copy_n(samples, pixels * channels, out.data() + from);
        else
            kernels::lay_over(samples, share.from(row->cover.begin), 255, std::size_t(pixels), channels,
                              out.data() + from);
    }
    const auto holds = [](const kernels::Span& span, int x) { return x >= span.begin && x < span.end; };
    kernels::Span best, run;
    for (int x = 0; x < share.width(); ++x) {
        const int sky_here = *share.from(x);
        if ((sky_here > 0 && !holds(sky.cover, x)) || (sky_here < 255 && !holds(land.cover, x))) continue;
        run = !run.empty() && run.end == x ? kernels::Span{run.begin, x + 1} : kernels::Span{x, x + 1};
        if (run.end - run.begin > best.end - best.begin) best = run;
    }
    return {nullptr, out.data(), best};
}

// Collects the frames that a piece of work wants, each once in every zone.
class Gathering {
  public:
    Gathering(const Pile& pile, const Rect& region, int level) : zones_(pile.zones.has_value()) {
        for (const Zone zone : {Zone::sky, Zone::land}) rows_[zone] = rows_of(pile, zone, region, level);
    }

    // Where a frame's rows will stand among all rows: in the sky, and in the land of a pile with zones.
    struct Places {
        std::size_t sky = 0;
        std::size_t land = 0;
    };
    Places add(int id) { return {add(id, Zone::sky), zones_ ? add(id, Zone::land) : 0}; }
    std::size_t add(int id, Zone zone) {
        const auto known = std::find_if(frames_.begin(), frames_.end(),
                                        [&](const Take& t) { return t.frame == id && t.zone == zone; });
        const auto at = std::size_t(known - frames_.begin());
        if (known == frames_.end()) frames_.push_back({id, zone, rows_[zone], 0, nullptr});
        return at;
    }
    const std::vector<Take>& frames() const { return frames_; }

    // A frame as its zones lie; `scratch` may hold it.
    FrameRow row(const std::vector<FrameRow>& rows, const Places& at, const SkyRow& share, int channels,
                 std::vector<std::uint16_t>& scratch) const {
        return zones_ ? zones_together(rows[at.sky], rows[at.land], share, channels, scratch) : rows[at.sky];
    }

  private:
    bool zones_;
    std::map<Zone, Band> rows_;
    std::vector<Take> frames_;
};

// Composes rows of the picture: every zone is merged from its frames, parts lie over.
class Composer final : public StepWork {
  public:
    enum class Lay { base, base_and_parts };

    Composer(const Pile& pile, const Rect& region, int level, Lay lay, RowSink& sink)
        : pile_(pile), region_(region), level_(level), sink_(sink), gathering_(pile, region, level) {
        for (const Zone zone : {Zone::sky, Zone::land}) {
            const std::vector<int> ids = merged_ids(pile, zone);
            layers_.push_back({mode_of(pile, zone), {}, tools_for(pile, ids)});
            for (const int id : ids) layers_.back().frames.push_back(gathering_.add(id, zone));
        }
        if (lay == Lay::base) return;
        for (const Part* part : showing(pile)) parts_.emplace_back(part, gathering_.add(part->frame));
    }

    const std::vector<Take>& frames() const { return gathering_.frames(); }

    void begin(const StripPlan& plan) override { sink_.begin(plan); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        std::uint16_t* out = sink_.row(y) + std::ptrdiff_t(columns.begin - region_.left) * pile_.channels;
        const int width = columns.end - columns.begin;
        const SkyRow share(pile_, level_, y, columns);
        if (!share.all()) merge(Zone::land, rows, width, out);
        if (share.all()) {
            merge(Zone::sky, rows, width, out);
        } else if (share.any()) {
            std::vector<std::uint16_t> sky(std::size_t(width) * std::size_t(pile_.channels));
            merge(Zone::sky, rows, width, sky.data());
            kernels::lay_over(sky.data(), share.from(0), 255, std::size_t(width), pile_.channels, out);
        }
        std::vector<std::uint16_t> scratch;
        for (const auto& [part, at] : parts_)
            lay_part(*part, gathering_.row(rows, at, share, pile_.channels, scratch), level_, y, columns.begin,
                     pile_.channels, out);
    }
    Status finish(const Band& band) override { return sink_.finish(band); }
    void end(const StepTimes& spent) override { sink_.end(spent); }

  private:
    // The frames of a zone, by their places among all rows.
    struct Layer {
        Mode mode;
        std::vector<std::size_t> frames;
        MergeTools tools;
    };

    void merge(Zone zone, const std::vector<FrameRow>& rows, int width, std::uint16_t* out) const {
        const Layer& layer = layers_[zone == Zone::sky ? 0 : 1];
        std::vector<FrameRow> merged;
        merged.reserve(layer.frames.size());
        for (const std::size_t at : layer.frames) merged.push_back(rows[at]);
        merge_row(layer.mode, merged, width, pile_.channels, layer.tools, out);
    }

    const Pile& pile_;
    Rect region_;
    int level_;
    RowSink& sink_;
    Gathering gathering_;
    std::vector<Layer> layers_;  // sky, land
    std::vector<std::pair<const Part*, Gathering::Places>> parts_;
};

// Lays parts over a base that is already there.
class PartsLayer final : public StepWork {
  public:
    PartsLayer(const Pile& pile, const std::vector<const Part*>& parts, const Rect& region, int level, Raster16& base)
        : pile_(pile), region_(region), level_(level), base_(base), gathering_(pile, region, level) {
        for (const Part* part : parts) parts_.emplace_back(part, gathering_.add(part->frame));
    }
    const std::vector<Take>& frames() const { return gathering_.frames(); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        std::vector<std::uint16_t> scratch;
        std::uint16_t* out =
            base_.row(y - region_.top) + std::ptrdiff_t(columns.begin - region_.left) * base_.channels();
        for (const auto& [part, at] : parts_)
            lay_part(*part, gathering_.row(rows, at, share, base_.channels(), scratch), level_, y, columns.begin,
                     base_.channels(), out);
    }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    Raster16& base_;
    Gathering gathering_;
    std::vector<std::pair<const Part*, Gathering::Places>> parts_;
};

// One frame where it covers.
class OneFrame final : public StepWork {
  public:
    OneFrame(const Pile& pile, int frame, const Rect& region, int level, Raster16& out)
        : pile_(pile), region_(region), level_(level), out_(out), gathering_(pile, region, level) {
        at_ = gathering_.add(frame);
    }
    const std::vector<Take>& frames() const { return gathering_.frames(); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        std::vector<std::uint16_t> together;
        const FrameRow row = gathering_.row(rows, at_, share, out_.channels(), together);
        if (row.cover.empty()) return;
        std::vector<std::uint16_t> scratch;
        const std::uint16_t* from = widened(row, out_.channels(), scratch);
        std::copy_n(from, (row.cover.end - row.cover.begin) * out_.channels(),
                    out_.row(y - region_.top) +
                        std::ptrdiff_t(columns.begin - region_.left + row.cover.begin) * out_.channels());
    }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    Raster16& out_;
    Gathering gathering_;
    Gathering::Places at_;
};

class IntoRaster final : public RowSink {
  public:
    IntoRaster(const Rect& region, Raster16& out) : region_(region), out_(out) {}
    std::uint16_t* row(int y) override { return out_.row(y - region_.top); }

  private:
    Rect region_;
    Raster16& out_;
};

Result<Raster16> composed(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job,
                          Composer::Lay lay) {
    Raster16 out(region.size(), pile.channels);
    IntoRaster sink(region, out);
    Composer composer(pile, region, level, lay, sink);
    if (composer.frames().empty()) return out;
    Status done = bring_in_step({pile, store, composer.frames(), region, level}, job, composer);
    if (!done.ok()) return done.failure();
    return out;
}

}  // namespace

WorkingSpace working_space(const Pile& pile) {
    return {pile.profile, pile.channels, pile.balance};
}

Status render_to(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, RowSink& sink) {
    Composer composer(pile, region, level, Composer::Lay::base_and_parts, sink);
    return bring_in_step({pile, store, composer.frames(), region, level}, job, composer);
}

Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    return composed(pile, store, region, level, job, Composer::Lay::base_and_parts);
}

Result<Raster16> render_base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    return composed(pile, store, region, level, job, Composer::Lay::base);
}

Status lay_parts(const Pile& pile, FrameStore& store, const Rect& region, int level, Raster16& base, Job& job) {
    const std::vector<const Part*> parts = showing(pile);
    if (parts.empty()) return Done{};
    PartsLayer layer(pile, parts, region, level, base);
    return bring_in_step({pile, store, layer.frames(), region, level}, job, layer);
}

Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job) {
    Raster16 out(region.size(), pile.channels);
    OneFrame one(pile, frame, region, level, out);
    Status done = bring_in_step({pile, store, one.frames(), region, level}, job, one);
    if (!done.ok()) return done.failure();
    return out;
}

Result<Raster16> render_difference(const Pile& pile, FrameStore& store, int frame, int against, int gain,
                                   const Rect& region, int level, Job& job) {
    Result<Raster16> a = render_frame(pile, store, frame, region, level, job);
    if (!a.ok()) return a;
    Result<Raster16> b = render_frame(pile, store, against, region, level, job);
    if (!b.ok()) return b;
    Raster16 out(region.size(), pile.channels);
    kernels::difference(a.value().data().data(), b.value().data().data(), gain, out.data().size(), out.data().data());
    return out;
}

}  // namespace bp
