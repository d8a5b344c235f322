#include "engine/grown_rows.h"

#include <algorithm>
#include <array>
#include <cstring>

#include "base/parallel.h"
#include "kernels/blend.h"

namespace bp {

std::vector<int> growing_ids(const Pile& pile) {
    return merged_ids(pile);
}

bool grows_by_one(const Pile& pile) {
    return std::all_of(both_zones.begin(), both_zones.end(), [&](Zone zone) {
        const ModeEntry& entry = entry_of(method_of(pile, zone).mode);
        return entry.shows_brightest() || entry.mode == Mode::minimum || entry.mode == Mode::one ||
               merged_ids(pile, zone).size() <= 1;
    });
}

// What is done with the rows of one call.
class Grown::Work final : public StepWork {
  public:
    Work(Grown& grown, const std::vector<int>& until, std::vector<Raster16>& out)
        : grown_(grown), out_(out), gathering_(grown.pile_, grown.region_, grown.level_) {
        const Pile& pile = grown.pile_;
        const bool by_one = grows_by_one(pile);
        for (const Zone zone : both_zones) {
            Layer layer{method_of(pile, zone).mode, {}};
            if (zone == Zone::sky || pile.zones) {
                int from = grown.grown_;
                for (const int to : until) {
                    layer.steps.push_back(step_of(zone, by_one ? from : 0, to));
                    from = to;
                }
            }
            layers_.push_back(std::move(layer));
        }
        if (grown.knitting_) add_knitting(until);
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(grown_.pile_, grown_.level_, y, columns);
        const auto into_picture = [&](std::size_t i) {
            return out_[i].row(y - grown_.region_.top) +
                   std::ptrdiff_t(columns.begin - grown_.region_.left) * channels();
        };
        const auto there_already = [](std::size_t, const std::uint16_t*) {};
        // The land first, because the sky is laid over it.
        if (!share.all()) grow(Zone::land, y, columns, rows, into_picture, there_already);
        if (share.all()) {
            grow(Zone::sky, y, columns, rows, into_picture, there_already);
        } else if (share.any()) {
            // Two, because a picture is made from the one before.
            static thread_local std::array<std::vector<std::uint16_t>, 2> sky;
            for (auto& row : sky) row.resize(std::size_t(samples(columns)));
            grow(
                Zone::sky, y, columns, rows, [](std::size_t i) { return sky[i % 2].data(); },
                [&](std::size_t i, const std::uint16_t* row) {
                    kernels::lay_over(row, share.from(0), 255, std::size_t(share.width()), channels(), into_picture(i));
                });
        }
    }

  private:
    // What makes the next picture of a zone: the one before where every frame is gone through once, and frames.
    struct Step {
        std::vector<std::size_t> rows;  // by their places among all rows
        MergeTools tools;
        std::vector<KnitRows> knits = {};
    };
    struct Layer {
        Mode mode;
        std::vector<Step> steps;
    };

    int channels() const { return grown_.pile_.channels; }
    std::ptrdiff_t samples(kernels::Span columns) const {
        return std::ptrdiff_t(columns.end - columns.begin) * channels();
    }

    Step step_of(Zone zone, int from, int to) {
        const Pile& pile = grown_.pile_;
        const MergeTools all = tools_for(pile, zone);
        Step out{{}, all};
        out.tools.strengths.clear();
        out.tools.reference = 0;
        // The one before is whole.
        if (grows_by_one(pile)) out.tools.strengths.emplace_back();
        const std::vector<int> of_zone = merged_ids(pile, zone);
        const std::vector<Softening> softenings = softenings_of(pile, zone);
        for (int k = from; k < to; ++k) {
            const int id = grown_.ids_[std::size_t(k)];
            const auto found = std::find(of_zone.begin(), of_zone.end(), id);
            if (found == of_zone.end()) continue;
            const auto at = std::size_t(found - of_zone.begin());
            out.rows.push_back(gathering_.add(id, zone, softenings[at]));
            if (id == pile.reference || method_of(pile, zone).mode == Mode::one)
                out.tools.reference = int(out.tools.strengths.size());
            out.tools.strengths.push_back(all.strengths[at]);
        }
        return out;
    }
    // A pause is closed when the later of its frames comes.
    void add_knitting(const std::vector<int>& until) {
        const auto place = [&](int id) {
            return int(std::find(grown_.ids_.begin(), grown_.ids_.end(), id) - grown_.ids_.begin());
        };
        int from = grown_.grown_;
        for (std::size_t i = 0; i < until.size(); ++i) {
            Knitting now;
            for (const Seam& seam : grown_.knitting_->seams) {
                const int later = std::max(place(seam.before), place(seam.after));
                if (later >= from && later < until[i]) now.seams.push_back(seam);
            }
            from = until[i];
            knittings_.push_back(std::make_unique<const Knitting>(std::move(now)));
            if (!knittings_.back()->seams.empty())
                layers_.front().steps[i].knits.emplace_back(grown_.pile_, tools_for(grown_.pile_, Zone::sky),
                                                            *knittings_.back(), gathering_, grown_.level_);
        }
    }

    // What the frames up to each picture make of a row of a zone: written to what room(i) gives for picture i, and
    // handed on in order.
    template <class Room, class Take>
    void grow(Zone zone, int y, kernels::Span columns, const std::vector<FrameRow>& rows, const Room& room,
              const Take& take) {
        const Layer& layer = layers_[zone == Zone::sky ? 0 : 1];
        const int width = columns.end - columns.begin;
        if (grown_.zones_.empty()) {
            for (std::size_t i = 0; i < layer.steps.size(); ++i) {
                std::uint16_t* after = room(i);
                merge_row(layer.mode, chosen(layer.steps[i], rows, {}), width, channels(), layer.steps[i].tools, after);
                take(i, after);
            }
            return;
        }
        Zoned& so_far = grown_.zones_[zone == Zone::sky ? 0 : 1];
        const int top = y - grown_.region_.top, left = columns.begin - grown_.region_.left;
        std::uint16_t* kept = so_far.merged.row(top) + std::ptrdiff_t(left) * channels();
        std::uint8_t* open = so_far.open.row(top) + left;
        const std::uint16_t* before = kept;
        for (std::size_t i = 0; i < layer.steps.size(); ++i) {
            const Step& step = layer.steps[i];
            std::uint16_t* after = room(i);
            if (step.rows.empty()) {
                std::copy_n(before, samples(columns), after);
            } else {
                const std::vector<kernels::Span> silent = stretches(open, width);
                const FrameRow one_before{nullptr, before, {0, width}, silent};
                const std::vector<FrameRow> merged = chosen(step, rows, one_before);
                // The one mode that merges nothing shows its frame.
                merge_row(layer.mode == Mode::one ? Mode::lighten : layer.mode, merged, width, channels(), step.tools,
                          after);
                if (!silent.empty())
                    for (std::size_t k = 1; k < merged.size(); ++k) close(merged[k], open);
            }
            for (const KnitRows& knit : step.knits) knit.add(y, columns, rows, after);
            take(i, after);
            before = after;
        }
        std::copy_n(before, samples(columns), kept);
    }
    std::vector<FrameRow> chosen(const Step& step, const std::vector<FrameRow>& rows,
                                 const std::optional<FrameRow>& before) const {
        std::vector<FrameRow> out;
        if (before) out.push_back(*before);
        for (const std::size_t at : step.rows) out.push_back(rows[at]);
        return out;
    }
    static std::vector<kernels::Span> stretches(const std::uint8_t* open, int width) {
        std::vector<kernels::Span> out;
        for (int x = 0; x < width;) {
            // Nearly always there is none.
            const void* found = std::memchr(open + x, 1, std::size_t(width - x));
            if (!found) break;
            const auto begin = int(static_cast<const std::uint8_t*>(found) - open);
            x = int(std::find(open + begin, open + width, 0) - open);
            out.push_back({begin, x});
        }
        return out;
    }
    static void close(const FrameRow& row, std::uint8_t* open) {
        int x = row.cover.begin;
        for (const kernels::Span& span : row.silent) {
            if (span.begin > x) std::fill(open + x, open + std::min(span.begin, row.cover.end), std::uint8_t{0});
            x = std::max(x, span.end);
        }
        if (x < row.cover.end) std::fill(open + x, open + row.cover.end, std::uint8_t{0});
    }

    Grown& grown_;
    std::vector<Raster16>& out_;
    Gathering gathering_;
    std::vector<Layer> layers_;  // sky, land
    std::vector<std::unique_ptr<const Knitting>> knittings_;
};

Grown::Grown(const Pile& pile, const Rect& region, int level, const Knitting* knitting)
    : pile_(pile), region_(region), level_(level), knitting_(knitting), ids_(growing_ids(pile)) {
    if (!grows_by_one(pile)) return;
    const auto background = background_of(pile);
    for (int i = 0; i < (pile.zones ? 2 : 1); ++i) {
        Zoned zone{Raster16(region.size(), pile.channels, Unset()), Raster8(region.size(), 1, Unset())};
        parallel_for(0, region.height, [&](int y) {
            std::fill_n(zone.open.row(y), region.width, std::uint8_t{1});
            std::uint16_t* to = zone.merged.row(y);
            for (int x = 0; x < region.width; ++x) to = std::copy_n(background.data(), pile.channels, to);
        });
        zones_.push_back(std::move(zone));
    }
}

std::size_t Grown::bytes(std::size_t pictures) const {
    const std::size_t samples = std::size_t(region_.width) * std::size_t(region_.height) * std::size_t(pile_.channels);
    return pictures * samples * sizeof(std::uint16_t);
}

void Grown::give_back(Raster16 picture) {
    if (picture.size() == region_.size()) spare_.push_back(std::move(picture));
}

Result<std::vector<Raster16>> Grown::next(const std::vector<int>& until, FrameStore& store, Job& job) {
    std::vector<Raster16> out;
    for (std::size_t i = 0; i < until.size(); ++i) {
        if (spare_.empty()) {
            out.emplace_back(region_.size(), pile_.channels, Unset());
            continue;
        }
        out.push_back(std::move(spare_.back()));
        spare_.pop_back();
    }
    Work work(*this, until, out);
    const Status done = bring_in_step({pile_, store, work.takes(), region_, level_, bytes(until.size())}, job, work);
    if (!done.ok()) return done.failure();
    grown_ = until.back();
    return out;
}

}  // namespace bp
