#include "engine/made_like.h"

#include <memory>

#include "engine/aligning.h"
#include "engine/hot_search.h"
#include "engine/knitting.h"
#include "engine/levelling.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "pile/streak_edits.h"

namespace bp {

Result<Pile> made_like(const Like& like, std::size_t memory_bytes, Job& job) {
    Pile pile = like.pile;
    if (const Model model = method_of(pile, Zone::sky).model; model != Model::none) {
        auto alignments = align_frames(pile, model, pile.reference, job);
        if (!alignments.ok()) return alignments.failure();
        pile = with_alignments(pile, model, pile.reference, alignments.value());
    }
    FrameStore store(working_space(pile), {0, memory_bytes});
    if (pile.levelling != Levelling::off) {
        auto gains = measure_gains(pile, pile.levelling, store, job);
        if (!gains.ok()) return gains.failure();
        pile = with_gains(pile, pile.levelling, gains.value());
    }
    if (!like.streaks_out.empty() || knits(pile)) {
        Result<std::shared_ptr<const MovingLights>> lights = moving_lights(pile, store, job);
        if (!lights.ok()) return lights.failure();
        if (!like.streaks_out.empty()) pile = with_found_streaks(std::move(pile), lights.value()->streaks);
        for (const StreakKind kind : like.streaks_out) pile = with_streaks_left_out(pile, streaks_of(pile, kind), true);
    }
    if (like.hot) {
        Result<HotPixels> hot = search_hot_pixels(pile, store, job);
        if (!hot.ok()) return hot.failure();
        pile = with_hot_pixels(std::move(pile), std::make_shared<const HotPixels>(std::move(hot).value()));
    }
    return pile;
}

}  // namespace bp
