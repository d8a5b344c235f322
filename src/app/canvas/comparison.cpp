#include "app/canvas/comparison.h"

#include <utility>

namespace bp::app {

Comparison::Comparison(Studio& studio, Viewer& first) : QObject(&first), studio_(studio), viewer_(studio, this) {
    viewer_.follow([this] { return frame(); });
    viewer_.set_active(false);
    connect(&studio.document(), &Document::opened, this, [this] {
        held_ = 0;
        held_merge_.reset();
        if (second_ == Second::held || second_ == Second::merge) second_ = Second::result;
        set_on(false);
        apply();
    });
    connect(&studio.document(), &Document::changed, this, &Comparison::show_held_merge);
    connect(&studio, &Studio::selection_changed, this, [this] {
        if (on_ && second_ == Second::before) emit changed();
    });
}

int Comparison::frame() const {
    const Pile& pile = studio_.pile();
    switch (second_) {
        case Second::reference:
            return pile.reference;
        case Second::before:
            return frame_before(pile, studio_.current());
        case Second::held:
            return find_frame(pile, held_) ? held_ : pile.reference;
        case Second::result:
        case Second::merge:
        case Second::unfinished:
            break;
    }
    return studio_.current();
}

void Comparison::set_on(bool on) {
    if (on_ == on) return;
    on_ = on;
    viewer_.set_active(on);
    emit changed();
}

void Comparison::set_second(Second second) {
    second_ = second;
    apply();
    emit changed();
}

void Comparison::hold() {
    if (second_ == Second::merge)
        hold_merge();
    else
        hold_frame();
}

void Comparison::hold_frame() {
    held_ = studio_.current();
    set_second(Second::held);
    set_on(true);
}

void Comparison::hold_merge() {
    held_merge_ = merge_settings_of(studio_.pile());
    set_second(Second::merge);
    set_on(true);
}

void Comparison::swap_merge() {
    if (!held_merge_) return;
    const MergeSettings now = merge_settings_of(studio_.pile());
    const MergeSettings next = *std::exchange(held_merge_, now);
    studio_.document().edit(with_merge_settings(studio_.pile(), next), tr("Swap settings of the merge"));
    show_held_merge();
}

void Comparison::show_held_merge() {
    if (second_ == Second::merge && held_merge_ && studio_.document().open())
        viewer_.try_out(with_merge_settings(studio_.pile(), *held_merge_));
}

void Comparison::apply() {
    viewer_.leave_trial();
    const bool of_result = second_ == Second::result || second_ == Second::merge || second_ == Second::unfinished;
    viewer_.set_finished(second_ != Second::unfinished);
    viewer_.set_view(of_result ? View::result : View::frame);
    viewer_.show_again();
    show_held_merge();
}

QString Comparison::name() const {
    if (second_ == Second::result) return tr("Result");
    if (second_ == Second::merge) return tr("Held settings");
    if (second_ == Second::unfinished) return tr("Before finishing");
    return tr("frame %1").arg(number_of(studio_.pile(), frame()));
}

}  // namespace bp::app
