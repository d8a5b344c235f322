#include "engine/base_rows.h"

#include <cmath>

#include "kernels/blend.h"

namespace bp {
namespace {

constexpr int step_of_8_bits = 257;

}  // namespace

std::array<std::uint16_t, 3> background_of(const Pile& pile) {
    std::array<std::uint16_t, 3> out{};
    for (std::size_t c = 0; c < out.size(); ++c) out[c] = std::uint16_t(std::lround(65535 * pile.canvas.background[c]));
    return out;
}

MergeTools tools_for(const Pile& pile, Zone zone) {
    MergeTools tools{pile.light == Light::linear ? LightCurve::of(pile.profile, pile.channels) : LightCurve::encoded()};
    tools.background = background_of(pile);
    if (method_of(pile, zone).soft_white) tools.white = kernels::White::soft;
    if (method_of(pile, zone).by == By::pixel && pile.channels == 3)
        tools.by_brightness = brightness_weights(pile.profile);
    for (const double strength : strengths_of(pile, zone)) tools.strengths.emplace_back(strength, tools.curve);
    const std::vector<int> ids = merged_ids(pile, zone);
    for (std::size_t i = 0; i < ids.size(); ++i) {
        if (ids[i] == pile.reference) tools.reference = int(i);
        if (find_frame(pile, ids[i])->file->facts.bits == 8) tools.step = step_of_8_bits;
    }
    return tools;
}

BaseRows::BaseRows(const Pile& pile, Gathering& gathering, const Knitting* knitting, int level) : pile_(pile) {
    for (const Zone zone : both_zones) {
        const std::vector<int> ids = merged_ids(pile, zone);
        layers_.push_back({method_of(pile, zone).mode, {}, tools_for(pile, zone)});
        const std::vector<Softening> softenings = softenings_of(pile, zone);
        for (std::size_t i = 0; i < ids.size(); ++i)
            layers_.back().frames.push_back(gathering.add(ids[i], zone, softenings[i]));
    }
    if (knitting) knit_.emplace(pile, layers_.front().tools, *knitting, gathering, level);
}

void BaseRows::row(int y, kernels::Span columns, const std::vector<FrameRow>& rows, const SkyRow& share,
                   std::uint16_t* out) const {
    const int width = share.width();
    const auto sky_row = [&](std::uint16_t* to) {
        merge(Zone::sky, rows, width, to);
        if (knit_) knit_->add(y, columns, rows, to);
    };
    if (!share.all()) merge(Zone::land, rows, width, out);
    if (share.all()) {
        sky_row(out);
    } else if (share.any()) {
        std::vector<std::uint16_t> sky(std::size_t(width) * std::size_t(pile_.channels));
        sky_row(sky.data());
        kernels::lay_over(sky.data(), share.from(0), 255, std::size_t(width), pile_.channels, out);
    }
}

void BaseRows::merge(Zone zone, const std::vector<FrameRow>& rows, int width, std::uint16_t* out) const {
    const Layer& layer = layers_[zone == Zone::sky ? 0 : 1];
    std::vector<FrameRow> merged;
    merged.reserve(layer.frames.size());
    for (const std::size_t at : layer.frames) merged.push_back(rows[at]);
    merge_row(layer.mode, merged, width, pile_.channels, layer.tools, out);
}

}  // namespace bp
