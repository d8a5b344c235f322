#include "engine/picture.h"

#include <algorithm>

#include "engine/base_rows.h"
#include "engine/finisher.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

// Composes rows of a region: the base, or one that is there already, and the parts over it.
class Composer final : public StepWork {
  public:
    Composer(const Pile& pile, const Rect& region, int level, const Raster16* base, const SolvedEdges& edges,
             std::size_t first, std::size_t parts, const Knitting* knitting, RowSink& sink)
        : pile_(pile), region_(region), level_(level), known_(base), sink_(sink), gathering_(pile, region, level) {
        if (!known_) base_.emplace(pile, gathering_, knitting, level);
        // What does not reach into the region is not read for it.
        for (const Part* part : showing_parts(pile)) {
            const auto number = std::size_t(part - pile.parts.data());
            if (number < first || number >= parts) continue;
            if (intersect(at_level(reach_of(pile, *part), level), region).empty()) continue;
            const auto edge = edges.find(part->id);
            parts_.emplace_back(pile, *part, edge == edges.end() ? nullptr : edge->second, gathering_, level);
        }
    }

    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void begin(const StripPlan& plan) override { sink_.begin(plan); }
    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const std::ptrdiff_t from = std::ptrdiff_t(columns.begin - region_.left) * pile_.channels;
        std::uint16_t* out = sink_.row(y) + from;
        const SkyRow share(pile_, level_, y, columns);
        if (known_)
            std::copy_n(known_->row(y - region_.top) + from, share.width() * pile_.channels, out);
        else
            base_->row(y, columns, rows, share, out);
        for (const PartRows& part : parts_) part.lay(y, columns, rows, share, out);
    }
    Status finish(const Band& band) override { return sink_.finish(band); }
    void end(const StepTimes& spent) override { sink_.end(spent); }

  private:
    const Pile& pile_;
    Rect region_;
    int level_;
    const Raster16* known_;
    RowSink& sink_;
    Gathering gathering_;
    std::optional<BaseRows> base_;
    std::vector<PartRows> parts_;
};

class IntoRaster final : public RowSink {
  public:
    IntoRaster(const Rect& region, Raster16& out) : region_(region), out_(out) {}
    std::uint16_t* row(int y) override { return out_.row(y - region_.top); }

  private:
    Rect region_;
    Raster16& out_;
};

}  // namespace

Result<Raster16> Picture::composed(FrameStore& store, const Rect& region, Job& job, const Laying& laying) const {
    Raster16 out(region.size(), pile_.channels);
    IntoRaster sink(region, out);
    std::shared_ptr<const Knitting> knitting;
    if (!laying.base) {
        Result<std::shared_ptr<const Knitting>> found = knitting_for(pile_, store, job);
        if (!found.ok()) return found.failure();
        knitting = std::move(found).value();
    }
    Composer composer(pile_, region, level_, laying.base, laying.edges, laying.first, laying.parts, knitting.get(),
                      sink);
    if (composer.takes().empty()) {
        if (laying.base) return laying.base->clone();
        const auto background = background_of(pile_);
        for (std::size_t i = 0; i < out.data().size(); ++i) out.data()[i] = background[i % std::size_t(pile_.channels)];
        return out;
    }
    Status done = bring_in_step({pile_, store, composer.takes(), region, level_, 0}, job, composer);
    if (!done.ok()) return done.failure();
    return out;
}

Result<Raster16> Picture::merged(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const {
    const auto merge = [&](const Rect& area) { return composed(store, area, job, {nullptr, SolvedEdges{}, 0}); };
    // A glance reads files anew every time.
    return tiles ? tiles->base(pile_, region, level_, !job.glance(), merge) : merge(region);
}

Result<SolvedEdges> Picture::edges(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const {
    SolvedEdges out;
    const int at = level_of_edges(pile_);
    // From above, because a part lies on what is below it.
    std::vector<Rect> areas{region};
    const auto reaches = [&](const Part& part) {
        return std::any_of(areas.begin(), areas.end(), [&](const Rect& area) {
            const int level = &area == areas.data() ? level_ : at;
            return !intersect(at_level(reach_of(pile_, part), level), area).empty();
        });
    };
    struct Unsolved {
        const Part* part;
        Fingerprint key;
    };
    std::vector<Unsolved> missing;
    const std::vector<const Part*> parts = showing_parts(pile_);
    Rect all;
    for (auto it = parts.rbegin(); it != parts.rend(); ++it) {
        const Part& part = **it;
        const Rect box = box_of_edge(pile_, part);
        if (part.edge == Edge::painted || box.empty() || !reaches(part)) continue;
        const Fingerprint key = key_of_edge(pile_, part);
        if (SharedEdge known = store.kept<SolvedEdge>(key)) {
            out[part.id] = std::move(known);
        } else {
            areas.push_back(box);
            missing.push_back({&part, key});
            all = unite(all, box);
        }
    }
    if (missing.empty()) return out;
    const Picture there(pile_, at, {});
    std::optional<Raster16> base;
    const auto solve = [&](const Part& part) -> Result<SolvedEdge> {
        if (!base) {
            Result<Raster16> merged = there.merged(store, all, job, tiles);
            if (!merged.ok()) return merged.failure();
            base = std::move(merged).value();
        }
        const Rect box = box_of_edge(pile_, part);
        Raster16 below(box.size(), pile_.channels);
        for (int y = 0; y < box.height; ++y)
            std::copy_n(base->row(box.top - all.top + y) + std::ptrdiff_t(box.left - all.left) * pile_.channels,
                        below.row_samples(), below.row(y));
        Result<Raster16> laid = there.composed(store, box, job, {&below, out, std::size_t(&part - pile_.parts.data())});
        if (!laid.ok()) return laid.failure();
        const Result<PartAlone> own = part_alone(pile_, part, store, box, at, job);
        if (!own.ok()) return own.failure();
        return solved_edge(pile_, part, own.value(), laid.value());
    };
    const bool can_keep = content_of(pile_).has_value();
    for (auto it = missing.rbegin(); it != missing.rend(); ++it) {
        Result<SolvedEdge> edge = solved<SolvedEdge>(store.derived(), can_keep ? std::optional(it->key) : std::nullopt,
                                                     [&] { return solve(*it->part); });
        if (!edge.ok()) return edge.failure();
        auto shared = std::make_shared<const SolvedEdge>(std::move(edge).value());
        store.keep(it->key, shared);
        out[it->part->id] = std::move(shared);
    }
    return out;
}

Result<Raster16> Picture::raster(FrameStore& store, const Rect& region, Job& job, BaseTiles* tiles) const {
    const Rect area = finish_.around(region);
    const Result<SolvedEdges> edges_there = edges(store, area, job, tiles);
    if (!edges_there.ok()) return edges_there.failure();
    Result<Raster16> picture = [&] {
        if (!tiles) return composed(store, area, job, {nullptr, edges_there.value(), pile_.parts.size()});
        Result<Raster16> base = merged(store, area, job, tiles);
        if (!base.ok() || showing_parts(pile_).empty()) return base;
        return composed(store, area, job, {&base.value(), edges_there.value(), pile_.parts.size()});
    }();
    if (!picture.ok() || finish_.empty()) return picture;
    Raster16 out(region.size(), pile_.channels);
    finish_.make(
        region, [&](int y) { return picture.value().row(y - area.top); },
        [&](int y) { return out.row(y - region.top); });
    return out;
}

Status Picture::rows(FrameStore& store, const Rect& region, Job& job, RowSink& sink) const {
    const Rect area = finish_.around(region);
    Finisher finisher(finish_, pile_.channels, region, sink);
    const Result<std::shared_ptr<const Knitting>> knitting = knitting_for(pile_, store, job);
    if (!knitting.ok()) return knitting.failure();
    const Result<SolvedEdges> edges_there = edges(store, area, job, nullptr);
    if (!edges_there.ok()) return edges_there.failure();
    Composer composer(pile_, area, level_, nullptr, edges_there.value(), 0, pile_.parts.size(), knitting.value().get(),
                      finish_.empty() ? sink : static_cast<RowSink&>(finisher));
    const std::size_t row = std::size_t(area.width) * std::size_t(pile_.channels) * sizeof(std::uint16_t);
    const int held = finish_.empty() ? 0 : 2 * Finisher::rows_held(StripPlan::highest_band, finish_);
    const std::size_t beside = std::size_t(held) * row + finish_.bytes(region.width);
    return bring_in_step({pile_, store, composer.takes(), area, level_, beside}, job, composer);
}

}  // namespace bp
