#include "engine/knit_rows.h"

#include <algorithm>
#include <array>

namespace bp {
KnitRows::KnitRows(const Pile& pile, const MergeTools& tools, const Knitting& knitting, Gathering& gathering, int level)
    : channels_(pile.channels),
      level_(level),
      strong_(entry_of(method_of(pile, Zone::sky).mode).uses_strength),
      tools_(tools) {
    const std::vector<int> ids = merged_ids(pile, Zone::sky);
    const std::vector<Softening> softenings = softenings_of(pile, Zone::sky);
    const auto place = [&](int id) { return std::size_t(std::find(ids.begin(), ids.end(), id) - ids.begin()); };
    for (const Seam& seam : knitting.seams) {
        const std::size_t a = place(seam.before), b = place(seam.after);
        // Nothing joins what is left out, and what was sharp does not join what is soft.
        const auto apart = [&](std::size_t at) {
            return (strong_ && tools_.strengths[at].parts() == 0) || softenings[at].radius_px > 0;
        };
        if (apart(a) || apart(b)) continue;
        const std::size_t weaker = tools_.strengths[a].parts() <= tools_.strengths[b].parts() ? a : b;
        for (const KnitStep& step : seam.steps)
            steps_.push_back({step.where.get(), gathering.add(seam.before, Elsewhere{step.before, step.where}),
                              gathering.add(seam.after, Elsewhere{step.after, step.where}), weaker});
    }
}

void KnitRows::add(int y, kernels::Span columns, const std::vector<FrameRow>& rows, std::uint16_t* out) const {
    for (const Step& step : steps_) add_step(step, y, columns, rows, out);
}

void KnitRows::add_step(const Step& step, int y, kernels::Span columns, const std::vector<FrameRow>& rows,
                        std::uint16_t* out) const {
    const FrameRow& before = rows[step.before];
    const FrameRow& after = rows[step.after];
    if (before.cover.empty() || after.cover.empty()) return;
    static thread_local std::vector<kernels::Span> wanted;
    wanted.clear();
    add_wanted(*step.where, level_, y, columns, wanted);
    const Strength& strength = tools_.strengths[step.strength];
    const std::uint16_t* weaker = strong_ && !strength.whole() ? strength.samples<std::uint16_t>() : nullptr;
    for (const kernels::Span& span : wanted)
        for (int x = span.begin - columns.begin; x < span.end - columns.begin; ++x) {
            if (!before.votes_at(x) || !after.votes_at(x)) continue;
            const std::ptrdiff_t at = std::ptrdiff_t(x) * channels_;
            std::array<std::uint16_t, 3> between{};
            for (int c = 0; c < channels_; ++c) {
                const std::uint16_t less = std::min(before.wide[at + c], after.wide[at + c]);
                between[std::size_t(c)] = weaker ? weaker[less] : less;
            }
            std::uint16_t* to = out + at;
            if (tools_.by_brightness) {
                const auto brightness = [this](const std::uint16_t* pixel) {
                    return brightness_of(pixel, *tools_.by_brightness, tools_.curve);
                };
                if (brightness(between.data()) > brightness(to)) std::copy_n(between.begin(), 3, to);
            } else {
                for (int c = 0; c < channels_; ++c) to[c] = std::max(to[c], between[std::size_t(c)]);
            }
        }
}

}  // namespace bp
