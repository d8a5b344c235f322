#include "engine/origins.h"

#include <algorithm>
#include <array>
#include <optional>

#include "engine/picture.h"
#include "engine/render.h"
#include "engine/zone_rows.h"
#include "pile/part_edits.h"

namespace bp {
namespace {

// A frame of a zone at one pixel.
struct Candidate {
    std::uint16_t place;                   // among all frames, from 1
    std::array<std::uint16_t, 3> samples;  // as they compete
};

// The channel of a picture's pixel that gives most to its brightness.
std::size_t main_channel(const std::array<std::uint16_t, 3>& pixel, int channels,
                         const kernels::BrightnessWeights& weights, const LightCurve& curve) {
    std::size_t best = 0;
    std::uint64_t most = 0;
    for (std::size_t c = 0; c < std::size_t(channels); ++c) {
        const std::uint64_t light = (channels == 1 ? 1 : weights[c]) * std::uint64_t(curve.light(pixel[c]));
        if (light <= most) continue;
        most = light;
        best = c;
    }
    return best;
}

// The place of a frame among those of the origins, from 1; it is added where it is not there yet.
std::uint16_t place_in(Origins& out, int id) {
    const auto known = std::find(out.frames.begin(), out.frames.end(), id);
    if (known != out.frames.end()) return std::uint16_t(known - out.frames.begin() + 1);
    out.frames.push_back(id);
    return std::uint16_t(out.frames.size());
}

class Finding final : public StepWork {
  public:
    Finding(const Pile& pile, const Rect& region, int level, Origins& out)
        : pile_(pile),
          region_(region),
          level_(level),
          out_(out),
          gathering_(pile, region, level),
          curve_(pile.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded()) {
        if (pile.channels == 3) weights_ = brightness_weights(pile.profile);
        for (const Zone zone : both_zones) {
            if (zone == Zone::land && !pile.zones) continue;
            Layer& layer = layers_[zone == Zone::sky ? 0 : 1];
            const std::vector<int> ids = merged_ids(pile, zone);
            const std::vector<double> strengths = strengths_of(pile, zone);
            const std::vector<Softening> softenings = softenings_of(pile, zone);
            layer.method = method_of(pile, zone);
            for (std::size_t k = 0; k < ids.size(); ++k) {
                layer.rows.push_back(gathering_.add(ids[k], zone, softenings[k]));
                layer.places.push_back(place_in(out_, ids[k]));
                layer.strengths.emplace_back(strengths[k], curve_);
                if (ids[k] == pile.reference) layer.reference = k;
            }
        }
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        std::vector<Candidate> candidates;
        for (int x = 0; x < share.width(); ++x) {
            const bool sky = share.all() || (share.any() && *share.from(x) >= half);
            const auto [first, second] = at(layers_[sky ? 0 : 1], rows, x, candidates);
            out_.first.at(columns.begin + x - region_.left, y - region_.top, 0) = first;
            out_.second.at(columns.begin + x - region_.left, y - region_.top, 0) = second;
        }
    }

  private:
    static constexpr std::uint8_t half = 128;
    struct Layer {
        Method method;
        std::vector<std::size_t> rows;
        std::vector<std::uint16_t> places;
        std::vector<Strength> strengths;
        std::optional<std::size_t> reference;
    };
    using Two = std::pair<std::uint16_t, std::uint16_t>;

    Two at(const Layer& layer, const std::vector<FrameRow>& rows, int x, std::vector<Candidate>& candidates) const {
        candidates.clear();
        std::uint16_t shown = 0;  // where nobody votes
        const bool strong = layer.method.mode == Mode::lighten;
        for (std::size_t k = 0; k < layer.rows.size(); ++k) {
            const FrameRow& row = rows[layer.rows[k]];
            if (x < row.cover.begin || x >= row.cover.end) continue;
            if (shown == 0 || k == layer.reference) shown = layer.places[k];
            if (!row.votes_at(x)) continue;
            Candidate candidate{layer.places[k], {}};
            for (int c = 0; c < pile_.channels; ++c) {
                const std::ptrdiff_t at = std::ptrdiff_t(x) * pile_.channels + c;
                const std::uint16_t sample = row.narrow ? kernels::to_16(row.narrow[at]) : row.wide[at];
                const Strength& strength = layer.strengths[k];
                candidate.samples[std::size_t(c)] =
                    strong && !strength.whole() ? strength.samples<std::uint16_t>()[sample] : sample;
            }
            candidates.push_back(candidate);
        }
        if (candidates.empty()) return {shown, shown};
        switch (layer.method.mode) {
            case Mode::lighten:
            case Mode::maximum:
                return by_extreme(layer, candidates, [](auto a, auto b) { return a > b; });
            case Mode::minimum:
                return by_extreme(layer, candidates, [](auto a, auto b) { return a < b; });
            case Mode::median:
                return by_middle(candidates);
            default:
                return {candidates.front().place, candidates.front().place};
        }
    }

    template <class Better>
    Two by_extreme(const Layer& layer, const std::vector<Candidate>& candidates, const Better& better) const {
        if (layer.method.by == By::pixel && pile_.channels == 3) {
            const auto brightness = [&](const Candidate& c) {
                return brightness_of(c.samples.data(), weights_, curve_);
            };
            const Candidate* best = &candidates.front();
            for (const Candidate& c : candidates)
                if (better(brightness(c), brightness(*best))) best = &c;
            return {best->place, best->place};
        }
        std::array<std::uint16_t, 3> result = candidates.front().samples;
        std::array<std::uint16_t, 3> from{};
        from.fill(candidates.front().place);
        for (const Candidate& c : candidates)
            for (std::size_t i = 0; i < std::size_t(pile_.channels); ++i)
                if (better(c.samples[i], result[i])) {
                    result[i] = c.samples[i];
                    from[i] = c.place;
                }
        const std::uint16_t place = from[main_channel(result, pile_.channels, weights_, curve_)];
        return {place, place};
    }

    Two by_middle(std::vector<Candidate>& candidates) const {
        const std::size_t low = (candidates.size() - 1) / 2, high = candidates.size() / 2;
        const auto middles = [&](std::size_t channel) -> std::pair<Candidate, Candidate> {
            std::stable_sort(candidates.begin(), candidates.end(), [channel](const Candidate& a, const Candidate& b) {
                return a.samples[channel] < b.samples[channel];
            });
            // Of those that have the middle value, the earliest.
            const auto first_of = [&](std::size_t at) {
                while (at > 0 && candidates[at - 1].samples[channel] == candidates[at].samples[channel]) --at;
                return candidates[at];
            };
            return {first_of(low), first_of(high)};
        };
        std::array<std::uint16_t, 3> result{};
        std::array<Two, 3> from{};
        std::sort(candidates.begin(), candidates.end(),
                  [](const Candidate& a, const Candidate& b) { return a.place < b.place; });
        const std::vector<Candidate> in_order = candidates;
        for (std::size_t c = 0; c < std::size_t(pile_.channels); ++c) {
            candidates = in_order;
            const auto [a, b] = middles(c);
            result[c] = std::uint16_t((unsigned(a.samples[c]) + b.samples[c] + 1) / 2);
            from[c] = {a.place, b.place};
        }
        return from[main_channel(result, pile_.channels, weights_, curve_)];
    }

    const Pile& pile_;
    Rect region_;
    int level_;
    Origins& out_;
    Gathering gathering_;
    LightCurve curve_;
    kernels::BrightnessWeights weights_{};
    std::array<Layer, 2> layers_;  // sky, land
};

// Goes over what the base's origins are with those of the parts.
class PartsOver final : public StepWork {
  public:
    // `picture` is the base of the region, and becomes the picture with its parts.
    PartsOver(const Pile& pile, const Rect& region, int level, const SolvedEdges& edges, Raster16& picture,
              Origins& out)
        : pile_(pile),
          region_(region),
          level_(level),
          picture_(picture),
          out_(out),
          gathering_(pile, region, level),
          curve_(LightCurve::of(pile.profile, pile.channels)) {
        if (pile.channels == 3) weights_ = brightness_weights(pile.profile);
        for (const Part& part : pile.parts) {
            const Frame* frame = find_frame(pile, part.frame);
            if (!part.on || !frame || !usable(*frame)) continue;
            if (intersect(at_level(reach_of(pile, part), level), region).empty()) continue;
            const auto edge = edges.find(part.id);
            parts_.emplace_back(pile, part, edge == edges.end() ? nullptr : edge->second, gathering_, level);
            places_.push_back(place_in(out, part.frame));
        }
    }
    const std::vector<Take>& takes() const { return gathering_.takes(); }

    void row(int y, kernels::Span columns, const std::vector<FrameRow>& rows) override {
        const SkyRow share(pile_, level_, y, columns);
        const int left = columns.begin - region_.left;
        std::uint16_t* now = picture_.row(y - region_.top) + std::ptrdiff_t(left) * pile_.channels;
        std::vector<std::uint8_t> mask(std::size_t(share.width()));
        std::vector<std::uint16_t> scratch;
        for (std::size_t k = 0; k < parts_.size(); ++k) {
            const Part& part = parts_[k].part();
            parts_[k].read_mask(y, columns.begin, share.width(), mask.data());
            const FrameRow over = parts_[k].over(y, columns, rows, share, scratch);
            for (int x = over.cover.begin; x < over.cover.end; ++x) {
                constexpr double half_of_all = 127.5;
                if (mask[std::size_t(x)] * part.strength < half_of_all) continue;
                const std::ptrdiff_t at = std::ptrdiff_t(x) * pile_.channels;
                if (!tells(part.join, over.wide + at, now + at)) continue;
                out_.first.at(left + x, y - region_.top, 0) = places_[k];
                out_.second.at(left + x, y - region_.top, 0) = places_[k];
            }
            parts_[k].lay(y, columns, rows, share, now);
        }
    }

  private:
    bool tells(Join join, const std::uint16_t* over, const std::uint16_t* below) const {
        if (join == Join::replace) return true;
        const auto brightness = [&](const std::uint16_t* pixel) {
            return pile_.channels == 1 ? std::uint64_t(curve_.light(*pixel)) : brightness_of(pixel, weights_, curve_);
        };
        const auto a = brightness(over), b = brightness(below);
        return join == Join::darker ? a < b : a > b;
    }

    const Pile& pile_;
    Rect region_;
    int level_;
    Raster16& picture_;
    Origins& out_;
    Gathering gathering_;
    LightCurve curve_;
    kernels::BrightnessWeights weights_{};
    std::vector<PartRows> parts_;
    std::vector<std::uint16_t> places_;
};

bool chooses(Mode mode) {
    return mode == Mode::lighten || mode == Mode::maximum || mode == Mode::minimum || mode == Mode::median ||
           mode == Mode::one;
}

}  // namespace

bool has_origins(const Pile& pile) {
    return chooses(pile.methods.sky.mode) && (!pile.zones || chooses(pile.methods.land.mode));
}

Result<Origins> origins_of(const Pile& pile, FrameStore& store, const Rect& region, int level, Job& job) {
    if (!has_origins(pile))
        return Failure{Fault::wrong_call, "",
                       "Means and added light come from all frames together: there is no frame to tell."};
    Origins out{{}, Raster16(region.size(), 1), Raster16(region.size(), 1)};
    Finding work(pile, region, level, out);
    if (!work.takes().empty()) {
        const Status done = bring_in_step({pile, store, work.takes(), region, level, 0}, job, work);
        if (!done.ok()) return done.failure();
    }
    if (!shows_parts(pile)) return out;
    Pile without = pile;
    without.parts.clear();
    Result<Raster16> picture = composed(without, store, region, level, job);
    if (!picture.ok()) return picture.failure();
    const Result<SolvedEdges> edges = Picture(pile, level, {}).edges(store, region, job, nullptr);
    if (!edges.ok()) return edges.failure();
    PartsOver over(pile, region, level, edges.value(), picture.value(), out);
    if (over.takes().empty()) return out;
    const Status done = bring_in_step({pile, store, over.takes(), region, level, 0}, job, over);
    if (!done.ok()) return done.failure();
    return out;
}

}  // namespace bp
