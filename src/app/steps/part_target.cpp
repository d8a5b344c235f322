#include "app/steps/part_target.h"

#include <algorithm>

#include "engine/carried_mask.h"
#include "pile/edits.h"
#include "pile/part_edits.h"

namespace bp::app {

PartTarget::PartTarget(Studio& studio, Viewer& viewer) : studio_(studio), viewer_(viewer) {
    connect(&studio.document(), &Document::opened, this, [this] { active_ = 0; });
    connect(&studio.document(), &Document::changed, this, [this] {
        if (active_ != 0 && !find_part(studio_.pile(), active_)) set_active(0);
    });
}

void PartTarget::set_active(int part) {
    if (active_ == part) return;
    active_ = part;
    emit active_changed();
}

// In Frame view painting works on the frame that is seen; in Result view on the part that is chosen.
int PartTarget::part_to_paint() const {
    const Pile& pile = studio_.pile();
    const Part* chosen = find_part(pile, active_);
    if (viewer_.view() == View::result) return chosen ? active_ : 0;
    if (chosen && chosen->frame == studio_.current()) return active_;
    const auto same = std::find_if(pile.parts.rbegin(), pile.parts.rend(), [&](const Part& p) {
        return p.frame == studio_.current() && p.of == PartOf::painted;
    });
    return same == pile.parts.rend() ? 0 : same->id;
}

std::optional<Mask> PartTarget::begin() {
    if (viewer_.view() != View::result && viewer_.view() != View::frame) {
        studio_.say(tr("Switch to Frame to paint a part of it."));
        return std::nullopt;
    }
    part_ = part_to_paint();
    frame_ = studio_.current();
    if (part_ == 0 && viewer_.view() == View::result) {
        studio_.say(tr("Flip to the frame whose part you want, and paint there."));
        return std::nullopt;
    }
    const Frame* frame = find_frame(studio_.pile(), frame_);
    if (part_ == 0 && (!frame || !usable(*frame))) {
        studio_.say(tr("This frame cannot be used."), true);
        return std::nullopt;
    }
    return read();
}

Mask PartTarget::read() const {
    const Part* part = find_part(studio_.pile(), part_);
    if (!part) return Mask(studio_.pile().size);
    const std::optional<Placement> place = placed();
    return place ? on_canvas(part->mask, *place) : part->mask;
}

std::optional<Placement> PartTarget::placed() const {
    const Part* part = find_part(studio_.pile(), part_);
    if (!part || !part->place || viewer_.view() != View::result) return std::nullopt;
    return Placement(matrix_of(*part->place, studio_.pile().size));
}

Mask PartTarget::painted(const Mask& canvas) const {
    const std::optional<Placement> place = placed();
    return place ? carried_back(find_part(studio_.pile(), part_)->mask, read(), canvas, *place) : canvas;
}

bool PartTarget::try_out(const Mask& mask, const Rect& changed) {
    if (part_ == 0 || viewer_.view() != View::result) return false;
    viewer_.try_out_mask(part_, painted(mask), changed);
    return true;
}

void PartTarget::give_up() {
    if (viewer_.trying()) viewer_.leave_trial();
}

void PartTarget::write(const Mask& mask, const Brush& brush) {
    Pile next = studio_.pile();
    int part = part_;
    const Mask kept = painted(mask);
    if (part == 0) {
        if (!find_frame(next, frame_)) return;
        std::tie(next, part) = with_new_part(std::move(next), frame_);
    }
    studio_.document().edit(with_part_mask(std::move(next), part, kept), brush.keep ? tr("Keep") : tr("Give back"));
    set_active(part);
}

const Mask* PartTarget::hatched() const {
    // The result itself shows what is kept; the hatch would hide it.
    if (viewer_.view() != View::frame) return nullptr;
    const Pile& pile = studio_.pile();
    const Part* chosen = find_part(pile, active_);
    if (chosen && chosen->frame == studio_.current()) return &chosen->mask;
    for (const Part& part : pile.parts)
        if (part.frame == studio_.current() && part.of == PartOf::painted) return &part.mask;
    return nullptr;
}

}  // namespace bp::app
