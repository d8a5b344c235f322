#include "engine/render.h"

#include <algorithm>
#include <cmath>

#include "kernels/blend.h"
#include "kernels/extremes.h"

namespace bp {
namespace {

constexpr int step_of_8_bits = 257;

MergeTools tools_for(const Pile& pile, const std::vector<int>& ids) {
    MergeTools tools{
        pile.merge.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded(), {}, 1};
    for (const int id : ids) {
        const Frame& frame = *find_frame(pile, id);
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

// `out` is row y of the region.
void lay_part(const Part& part, const FrameRow& row, int level, int y, int left, int channels, std::uint16_t* out) {
    if (row.cover.empty()) return;
    const int width = row.cover.end - row.cover.begin;
    std::vector<std::uint8_t> mask(std::size_t(width), 0);
    part.mask.read_row(level, y, left + row.cover.begin, width, mask.data());
    std::vector<std::uint16_t> scratch;
    kernels::lay_over(widened(row, channels, scratch), mask.data(), int(std::lround(255 * part.strength)),
                      std::size_t(width), channels, out + std::ptrdiff_t(row.cover.begin) * channels);
}

// Composes rows of the picture: the first frames are merged, parts of these or of more frames lie over.
class Composer final : public StepWork {
  public:
    enum class Lay { base, base_and_parts };

    Composer(const Pile& pile, const Rect& region, int level, Lay lay, RowSink& sink)
        : pile_(pile),
          region_(region),
          level_(level),
          sink_(sink),
          ids_(merged_ids(pile)),
          tools_(tools_for(pile, ids_)) {
        merged_ = ids_.size();
        if (lay == Lay::base) return;
        for (const Part* part : showing(pile)) {
            const auto known = std::find(ids_.begin(), ids_.end(), part->frame);
            parts_.emplace_back(part, std::size_t(known - ids_.begin()));
            if (known == ids_.end()) ids_.push_back(part->frame);
        }
    }

    const std::vector<int>& ids() const { return ids_; }

    void begin(const StripPlan& plan) override { sink_.begin(plan); }
    void row(int y, const std::vector<FrameRow>& rows) override {
        std::uint16_t* out = sink_.row(y);
        const std::vector<FrameRow> merged(rows.begin(), rows.begin() + std::ptrdiff_t(merged_));
        merge_row(pile_.merge.mode, merged, region_.width, pile_.channels, tools_, out);
        for (const auto& [part, at] : parts_) lay_part(*part, rows[at], level_, y, region_.left, pile_.channels, out);
    }
    Status finish(const Band& band) override { return sink_.finish(band); }
    void end(const StepTimes& spent) override { sink_.end(spent); }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    RowSink& sink_;
    std::vector<int> ids_;
    MergeTools tools_;
    std::size_t merged_ = 0;
    std::vector<std::pair<const Part*, std::size_t>> parts_;
};

// Lays parts over a base that is already there.
class PartsLayer final : public StepWork {
  public:
    PartsLayer(std::vector<const Part*> parts, const Rect& region, int level, Raster16& base)
        : parts_(std::move(parts)), region_(region), level_(level), base_(base) {}
    void row(int y, const std::vector<FrameRow>& rows) override {
        for (std::size_t k = 0; k < parts_.size(); ++k)
            lay_part(*parts_[k], rows[k], level_, y, region_.left, base_.channels(), base_.row(y - region_.top));
    }

  private:
    std::vector<const Part*> parts_;
    Rect region_;
    int level_;
    Raster16& base_;
};

// One frame where it covers.
class OneFrame final : public StepWork {
  public:
    OneFrame(const Rect& region, Raster16& out) : region_(region), out_(out) {}
    void row(int y, const std::vector<FrameRow>& rows) override {
        const FrameRow& row = rows[0];
        if (row.cover.empty()) return;
        std::vector<std::uint16_t> scratch;
        const std::uint16_t* from = widened(row, out_.channels(), scratch);
        std::copy_n(from, (row.cover.end - row.cover.begin) * out_.channels(),
                    out_.row(y - region_.top) + std::ptrdiff_t(row.cover.begin) * out_.channels());
    }

  private:
    Rect region_;
    Raster16& out_;
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
    if (composer.ids().empty()) return out;
    Status done = bring_in_step({pile, store, composer.ids(), region, level}, job, composer);
    if (!done.ok()) return done.failure();
    return out;
}

}  // namespace

WorkingSpace working_space(const Pile& pile) {
    return {pile.profile, pile.channels, pile.balance};
}

Status render_to(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job, RowSink& sink) {
    Composer composer(pile, region, level, Composer::Lay::base_and_parts, sink);
    return bring_in_step({pile, store, composer.ids(), region, level}, job, composer);
}

Result<Raster16> render(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    return composed(pile, store, region, level, job, Composer::Lay::base_and_parts);
}

Result<Raster16> render_base(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    return composed(pile, store, region, level, job, Composer::Lay::base);
}

Status lay_parts(const Pile& pile, FrameStore& store, const Rect& region, int level, Raster16& base, Job& job) {
    std::vector<const Part*> parts = showing(pile);
    if (parts.empty()) return Done{};
    std::vector<int> ids;
    ids.reserve(parts.size());
    for (const Part* part : parts) ids.push_back(part->frame);
    PartsLayer layer(std::move(parts), region, level, base);
    return bring_in_step({pile, store, std::move(ids), region, level}, job, layer);
}

Result<Raster16> render_frame(const Pile& pile, FrameStore& store, int frame, const Rect& region, int level, Job& job) {
    Raster16 out(region.size(), pile.channels);
    OneFrame one(region, out);
    Status done = bring_in_step({pile, store, {frame}, region, level}, job, one);
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
