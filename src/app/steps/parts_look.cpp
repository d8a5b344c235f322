#include "app/steps/parts_look.h"

#include "app/looks/words.h"
#include "pile/part_edits.h"

namespace bp::app {

PartsLook::PartsLook(Studio& studio, Viewer& viewer, PartTarget& target, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), target_(target) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    tone_ = new TonePanel(this, QStringLiteral("part_look"));
    column()->addWidget(tone_);
    reset_ = push(tr("No look"), QStringLiteral("part_look_reset"),
                  tr("Takes tone and colour of the part back to those of its frame"), this);
    column()->addWidget(reset_);
    const auto looked = [this](const Look& look) { return with_part_look(studio_.pile(), target_.active(), look); };
    connect(tone_, &TonePanel::tried, this, [this, looked](const Look& look) { viewer_.try_out(looked(look)); });
    connect(tone_, &TonePanel::settled, this, [this, looked](const Look& look, const QString& value) {
        studio_.document().edit(looked(look), tr("%1 of part").arg(value),
                                QStringLiteral("part look %1 %2").arg(target_.active()).arg(value));
        // An edit that changed nothing leaves what was tried.
        viewer_.leave_trial();
    });
    connect(tone_, &TonePanel::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(reset_, &QPushButton::clicked, this,
            [this, looked] { studio_.document().edit(looked({}), tr("No look of part")); });
    connect(&studio.document(), &Document::changed, this, &PartsLook::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, &PartsLook::out_of_date);
}

void PartsLook::closed() {
    if (viewer_.trying()) viewer_.leave_trial();
}

void PartsLook::refresh() {
    const Pile& pile = studio_.pile();
    const Part* part = find_part(pile, target_.active());
    hint_->setText(part ? tr("On top of its frame's own look: %1.").arg(name_of_part(pile, *part))
                        : tr("Choose a part in the list below."));
    tone_->setVisible(part != nullptr);
    reset_->setVisible(part != nullptr);
    if (!part) return;
    tone_->set_coloured(pile.channels == 3);
    tone_->set_look(part->look);
    reset_->setEnabled(part->look != Look{});
}

}  // namespace bp::app
