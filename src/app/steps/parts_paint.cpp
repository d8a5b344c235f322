#include "app/steps/parts_paint.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "app/panels/brush_panel.h"
#include "pile/part_edits.h"

namespace bp::app {

PartsPaint::PartsPaint(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail, PartTarget& target,
                       QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), rail_(rail), target_(target) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    column()->addWidget(
        new BrushPanel(canvas_, QStringLiteral("brush"),
                       {tr("Keep"), tr("Paints: what you paint over shows this frame (K)"), tr("Give back"),
                        tr("Paints: what you paint over shows what lies below again (K)")},
                       BrushPanel::Kind::soft, target_, this));
    build_taking();
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

void PartsPaint::build_taking() {
    auto* row = new QHBoxLayout;
    hold_ = push(tr("Hold the place"), QStringLiteral("patches_hold"),
                 tr("The rail shows what every frame has where the pointer is, as wide as the brush. Held, it stays "
                    "there: a click on a frame takes the place from it, one more click more of it, a click with Shift "
                    "gives it back (T)"),
                 this);
    hold_->setCheckable(true);
    take_ = push(tr("Take it"), QStringLiteral("patches_take"),
                 tr("Takes what belongs to the held place from the frame that is chosen"), this);
    row->addWidget(hold_);
    row->addWidget(take_);
    column()->addLayout(row);
    connect(hold_, &QPushButton::clicked, &rail_, &TimeRail::hold_patches);
    connect(take_, &QPushButton::clicked, this, [this] { take(studio_.current(), true); });
    connect(&rail_, &TimeRail::patches_held, this, [this](bool on) {
        hold_->setChecked(on);
        take_->setEnabled(on);
        if (!on) last_.reset();
    });
    connect(&rail_, &TimeRail::patch_clicked, this, &PartsPaint::take);
    connect(&canvas_, &Canvas::pointed, this, &PartsPaint::point_at);
    connect(&studio_, &Studio::place_taken, &target_, &PartTarget::set_active);
    take_->setEnabled(false);
}

void PartsPaint::opened() {
    canvas_.set_painting(&target_);
    rail_.show_patches(true);
}

void PartsPaint::closed() {
    canvas_.set_painting(nullptr);
    rail_.show_patches(false);
}

void PartsPaint::point_at(QPointF canvas) {
    if (!rail_.shows_patches()) return;
    TimeRail::PatchPlace place{canvas, canvas_.brush().size, {}};
    const Layer& seen = viewer_.overview();
    if (viewer_.view() == View::result && !seen.image.isNull() && seen.area.width > 0) {
        const double scale = double(seen.image.width()) / seen.area.width;
        const int side = std::max(8, int(std::lround(place.side * scale)));
        place.shown = seen.image.copy(int(std::lround((canvas.x() - seen.area.left) * scale)) - side / 2,
                                      int(std::lround((canvas.y() - seen.area.top) * scale)) - side / 2, side, side);
    }
    rail_.set_patch_place(place);
}

void PartsPaint::take(int frame, bool take) {
    if (!rail_.patch_place()) return;
    const QPointF at = rail_.patch_place()->at;
    const bool again = last_ && last_->frame == frame && last_->take == take && last_->at == at;
    last_ = Taken{frame, take, at, again ? last_->more + 1 : 0};
    studio_.take_place(frame, {at.x() - 0.5, at.y() - 0.5}, last_->more, take);
}

void PartsPaint::refresh() {
    const Pile& pile = studio_.pile();
    const int number = number_of(pile, studio_.current());
    if (viewer_.view() == View::frame)
        hint_->setText(tr("Paint over what you want of frame %1.").arg(number));
    else if (const Part* part = find_part(pile, target_.active()))
        hint_->setText(tr("Painting works on the chosen part, from frame %1.").arg(number_of(pile, part->frame)));
    else
        hint_->setText(
            tr("Point at a place and hold T: a click on a frame below takes it from there. Or flip to Frame "
               "and paint."));
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
