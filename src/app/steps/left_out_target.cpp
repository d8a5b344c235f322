#include "app/steps/left_out_target.h"

#include "engine/carried_mask.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

Mask left_out_of(const Pile& pile, const Frame& frame) {
    return frame.left_out.empty() ? Mask(pile.size) : frame.left_out;
}

}  // namespace

LeftOutTarget::LeftOutTarget(Studio& studio, Viewer& viewer) : studio_(studio), viewer_(viewer) {
    connect(&studio.document(), &Document::changed, this, &LeftOutTarget::catch_up);
    connect(&studio, &Studio::selection_changed, this, &LeftOutTarget::catch_up);
    connect(&studio, &Studio::zone_changed, this, &LeftOutTarget::catch_up);
}

std::vector<int> LeftOutTarget::frames() const {
    std::vector<int> out;
    for (const int id : studio_.selected()) {
        const Frame* frame = find_frame(studio_.pile(), id);
        if (frame && usable(*frame) && frame->role == Role::scene) out.push_back(id);
    }
    return out;
}

void LeftOutTarget::catch_up() {
    const Pile& pile = studio_.pile();
    const Frame* frame = studio_.document().open() ? find_frame(pile, studio_.current()) : nullptr;
    shown_ = frame ? on_canvas(left_out_of(pile, *frame), placement(pile, *frame, studio_.zone())) : Mask();
}

std::optional<Mask> LeftOutTarget::begin() {
    if (viewer_.view() != View::frame) {
        studio_.say(tr("Switch to Frame to leave out something that one frame, or some, should not give."));
        return std::nullopt;
    }
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    if (!frame || !usable(*frame) || frame->role != Role::scene) {
        studio_.say(tr("This frame takes no part in the merge: there is nothing to leave out."), true);
        return std::nullopt;
    }
    return shown_;
}

void LeftOutTarget::write(const Mask& painted, const Brush& brush) {
    // A pixel votes or does not: the soft edge of a brush is neither.
    constexpr std::uint8_t half = 128;
    Mask mask = painted;
    mask.edit(painted.bounds_of_change(shown_),
              [](int, int, std::uint8_t v) { return std::uint8_t(v >= half ? 255 : 0); });
    Pile next = studio_.pile();
    const std::vector<int> ids = frames();
    const Mask before = shown_;
    for (const int id : ids) {
        const Frame& frame = *find_frame(next, id);
        const Mask area = carried_back(left_out_of(next, frame), before, mask, placement(next, frame, studio_.zone()));
        const int only[] = {id};
        next = with_left_out(std::move(next), only, area);
    }
    const auto count = int(ids.size());
    studio_.document().edit(std::move(next), brush.keep ? tr("Leave out of %n frame(s)", nullptr, count)
                                                        : tr("Take in again in %n frame(s)", nullptr, count));
}

const Mask* LeftOutTarget::hatched() const {
    return viewer_.view() == View::frame && !shown_.empty() ? &shown_ : nullptr;
}

}  // namespace bp::app
