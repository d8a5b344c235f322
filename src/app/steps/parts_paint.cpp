#include "app/steps/parts_paint.h"

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "app/panels/brush_panel.h"
#include "pile/part_edits.h"

namespace bp::app {

PartsPaint::PartsPaint(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), target_(target) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    column()->addWidget(
        new BrushPanel(canvas_, QStringLiteral("brush"),
                       {tr("Keep"), tr("Paints: what you paint over shows this frame (K)"), tr("Give back"),
                        tr("Paints: what you paint over shows what lies below again (K)")},
                       BrushPanel::Kind::soft, target_, this));
    lit_ = new FoundList({QStringLiteral("lit_frames"), tr("Lit frames"),
                          tr("Exposures of the foreground. The tick shows what such a light gives: the frame counts "
                             "where it is lighter. Choose one to see it."),
                          tr("All on"), tr("Every lit frame shows where it is lighter")},
                         this);
    column()->addWidget(lit_);
    connect(lit_, &FoundList::chosen, this, [this](int frame) {
        studio_.select(frame);
        if (const Part* part = foreground_part(studio_.pile(), frame)) target_.set_active(part->id);
    });
    connect(lit_, &FoundList::decided, this, [this](const std::vector<int>& frames, bool on) {
        Pile next = studio_.pile();
        for (const int frame : frames) next = with_foreground(std::move(next), frame, on);
        studio_.document().edit(std::move(next), on ? tr("Light on") : tr("Light off"));
    });
    connect(&studio.document(), &Document::changed, this, &PartsPaint::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &PartsPaint::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &PartsPaint::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, &PartsPaint::out_of_date);
}

void PartsPaint::refresh() {
    const Pile& pile = studio_.pile();
    const int number = number_of(pile, studio_.current());
    if (viewer_.view() == View::frame)
        hint_->setText(tr("Paint over what you want of frame %1.").arg(number));
    else if (const Part* part = find_part(pile, target_.active()))
        hint_->setText(tr("Painting works on the chosen part, from frame %1.").arg(number_of(pile, part->frame)));
    else
        hint_->setText(tr("Choose a frame below, flip to Frame, and paint over what you want of it."));
    std::vector<FoundThing> lights;
    for (const Frame& frame : pile.frames) {
        if (frame.role != Role::foreground || !usable(frame)) continue;
        const Part* part = foreground_part(pile, frame.id);
        const QString note = QString::fromStdString(frame.note);
        lights.push_back({frame.id,
                          note.isEmpty() ? tr("Frame %1").arg(number_of(pile, frame.id))
                                         : tr("%1: %2").arg(number_of(pile, frame.id)).arg(note),
                          tr("Tick it to see what this light gives."), part && part->on,
                          frame.id == studio_.current()});
    }
    lit_->set_things(lights, lights.empty() ? QString() : tr("Lit frames"));
    lit_->setVisible(!lights.empty());
}

}  // namespace bp::app
