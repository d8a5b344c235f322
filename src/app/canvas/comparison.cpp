#include "app/canvas/comparison.h"

namespace bp::app {

Comparison::Comparison(Studio& studio, Viewer& first) : QObject(&first), studio_(studio), viewer_(studio, this) {
    viewer_.follow([this] { return frame(); });
    viewer_.set_active(false);
    connect(&studio.document(), &Document::opened, this, [this] {
        held_ = 0;
        if (second_ == Second::held) second_ = Second::result;
        set_on(false);
        apply();
    });
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
    held_ = studio_.current();
    set_second(Second::held);
    set_on(true);
}

void Comparison::apply() {
    viewer_.set_view(second_ == Second::result ? View::result : View::frame);
    viewer_.show_again();
}

QString Comparison::name() const {
    if (second_ == Second::result) return tr("Result");
    return tr("frame %1").arg(number_of(studio_.pile(), frame()));
}

}  // namespace bp::app
