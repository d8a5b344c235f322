#include "app/steps/place_target.h"

namespace bp::app {

PlaceTarget::PlaceTarget(Studio& studio, Viewer& viewer) : studio_(studio), viewer_(viewer) {
    connect(&studio.document(), &Document::opened, this, [this] { active_ = 0; });
    connect(&studio.document(), &Document::changed, this, [this] {
        if (active_ != 0 && !place()) set_active(0);
    });
}

void PlaceTarget::set_active(int place) {
    if (active_ == place) return;
    active_ = place;
    emit active_changed();
}

std::optional<Mask> PlaceTarget::begin() {
    if (viewer_.view() != View::result) {
        studio_.say(tr("Switch to Result: places are painted in the finished picture."));
        return std::nullopt;
    }
    if (!place()) {
        studio_.say(tr("Choose a place in the list, or make a new one first."));
        return std::nullopt;
    }
    return read();
}

Mask PlaceTarget::read() const {
    const FinishPlace* of = place();
    if (!of) return Mask(studio_.pile().size);
    if (!of->shape) return of->mask.size() == studio_.pile().size ? of->mask : Mask(studio_.pile().size);
    if (drawn_ != of->shape || drawn_soft_ != of->soft || drawn_mask_.size() != studio_.pile().size) {
        drawn_mask_ = mask_of(*of, studio_.pile().size);
        drawn_ = of->shape;
        drawn_soft_ = of->soft;
    }
    return drawn_mask_;
}

bool PlaceTarget::try_out(const Mask& mask, const Rect& changed) {
    const FinishPlace* of = place();
    // What does nothing yet would not be seen.
    if (!of || (of->look == Look{} && of->detail == Detail{})) return false;
    viewer_.try_out_in(with_place_mask(studio_.pile(), active_, mask), changed);
    return true;
}

void PlaceTarget::give_up() {
    if (viewer_.trying()) viewer_.leave_trial();
}

void PlaceTarget::write(const Mask& mask, const Brush& brush) {
    studio_.document().edit(with_place_mask(studio_.pile(), active_, mask), brush.keep ? tr("Keep") : tr("Give back"));
}

const Mask* PlaceTarget::hatched() const {
    const FinishPlace* of = place();
    if (!of || viewer_.view() != View::result) return nullptr;
    if (!shown_ && (of->look != Look{} || of->detail != Detail{})) return nullptr;
    if (!of->shape) return of->mask.empty() ? nullptr : &of->mask;
    (void)read();
    return &drawn_mask_;
}

}  // namespace bp::app
