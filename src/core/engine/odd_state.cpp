#include "engine/odd_state.h"

#include <algorithm>

#include "engine/cover.h"

namespace bp {

OddState odd_state(const Pile& pile) {
    const auto all = [&](auto holds) { return std::all_of(pile.frames.begin(), pile.frames.end(), holds); };
    if (all([](const Frame& f) { return !usable(f); })) return OddState::unreadable;
    // Parts over an empty canvas are a picture.
    const auto left = merged_ids(pile, Zone::sky).size();
    if (left == 0 && std::any_of(pile.parts.begin(), pile.parts.end(), [](const Part& p) { return p.on; }))
        return OddState::none;
    if (all([](const Frame& f) { return !usable(f) || f.role == Role::dark; })) return OddState::only_darks;
    if (all([](const Frame& f) { return !usable(f) || f.role != Role::scene || f.aside; }) && merged_ids(pile).empty())
        return OddState::all_aside;
    const bool any_lost = std::any_of(pile.frames.begin(), pile.frames.end(), [&](const Frame& f) {
        return usable(f) && !f.aside && f.role == Role::scene && lost(pile, f);
    });
    if (any_lost && left <= 1) return OddState::unaligned;
    if (pile.cover == Cover::full && !pile.crop && left > 1 && full_cover(pile) == Rect{}) return OddState::no_cover;
    return OddState::none;
}

}  // namespace bp
