#include "pile/like.h"

#include <algorithm>

#include "pile/edits.h"
#include "pile/finish_file.h"
#include "pile/streak_edits.h"

namespace bp {
namespace {

// What of the pattern is about its own frames alone.
std::vector<Saying> belonging(const Pile& pattern, Size size) {
    std::vector<Saying> out;
    const auto any = [&](const auto& has) { return std::any_of(pattern.frames.begin(), pattern.frames.end(), has); };
    if (!pattern.parts.empty()) out.emplace_back("Parts of its frames are not taken.");
    if (pattern.zones)
        out.emplace_back("Where its sky and land are is not taken: all is aligned and merged as its sky.");
    if (!pattern.trust.empty()) out.emplace_back("Where aligning may look is not taken.");
    if (pattern.crop || pattern.turn_deg != 0) out.emplace_back("Its crop and its level horizon are not taken.");
    if (pattern.spots && !pattern.spots->empty() && pattern.size != size)
        out.emplace_back("Dust on the sensor is not taken: the frames are of another size.");
    if (any([](const Frame& f) { return f.aside; })) out.emplace_back("Which frames were set aside is not taken.");
    if (any([](const Frame& f) {
            return f.look != Look{} || f.strength != 1 || !f.left_out.empty() || (f.gains && f.gains->by_person);
        }))
        out.emplace_back("Looks, levels, strengths and left out areas of single frames are not taken.");
    return out;
}

}  // namespace

Like like(Pile frames, const Pile& pattern) {
    Like out;
    out.left = belonging(pattern, frames.size);
    out.hot = pattern.hot && !pattern.hot->empty();
    for (const StreakKindEntry& entry : streak_kinds()) {
        const std::vector<StreakAt> of_kind = streaks_of(pattern, entry.kind);
        const auto left_out = [&](const StreakAt& at) { return find_streak(pattern, at)->left_out; };
        if (!of_kind.empty() && std::all_of(of_kind.begin(), of_kind.end(), left_out))
            out.streaks_out.insert(entry.kind);
    }
    LoadedFinish finish = finish_for(pattern.finish, pattern.size, frames.size);
    std::move(finish.remarks.begin(), finish.remarks.end(), std::back_inserter(out.left));

    frames.outcome = pattern.outcome;
    frames.methods = pattern.methods;
    frames.look = pattern.look;
    frames.levelling = pattern.levelling;
    frames.darks = pattern.darks;
    if (pattern.size == frames.size) frames.spots = pattern.spots;
    frames.knit = pattern.knit;
    frames.light = pattern.light;
    frames.canvas = pattern.canvas;
    frames.cover = pattern.cover;
    frames.sequence = pattern.sequence;
    frames.finish = std::move(finish.finish);
    frames.exporting = pattern.exporting;
    frames.also = pattern.also;
    frames.growth = pattern.growth;
    out.pile = std::move(frames);
    return out;
}

}  // namespace bp
