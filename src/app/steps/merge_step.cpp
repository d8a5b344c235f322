#include "app/steps/merge_step.h"

#include <cmath>

#include "app/looks/words.h"
#include "app/panels/zone_switch.h"
#include "app/steps/merge_leave_out.h"
#include "app/steps/merge_trails.h"
#include "engine/knitting.h"
#include "pile/part_edits.h"

namespace bp::app {

MergeStep::MergeStep(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison) : studio_(studio) {
    column()->addWidget(new ZoneSwitch(studio, QStringLiteral("merge_on"), this));
    tabs_ = new PageTabs(this);
    mode_ = new MergeMode(studio, viewer, canvas, comparison, this);
    tabs_->add(mode_, tr("Mode"), QStringLiteral("page_mode"), tr("How the frames become one picture"));
    tabs_->add(new MergeTrails(studio, viewer, this), tr("Trails"), QStringLiteral("page_trails"),
               tr("Trails may fade towards their ends, have a head, and their breaks be closed"));
    tabs_->add(new MergeLeaveOut(studio, viewer, canvas, this), tr("Leave out"), QStringLiteral("page_leave_out"),
               tr("Areas of frames that take no part"));
    column()->addWidget(tabs_);
    connect(&studio.document(), &Document::changed, this, &MergeStep::out_of_date);
}

QString MergeStep::summary() const {
    const Pile& pile = studio_.pile();
    if (pile.zones)
        return tr("sky %1, land %2")
            .arg(within_sentence(word(pile.methods.sky.mode)), within_sentence(word(pile.methods.land.mode)));
    if (pile.methods.sky.mode == Mode::one) return tr("one frame: %1").arg(number_of(pile, pile.base));
    QString out = tr("%1 of %2").arg(within_sentence(word(pile.methods.sky.mode))).arg(merged_ids(pile).size());
    const Method& method = pile.methods.sky;
    if (method.taper.end != TaperEnd::none && entry_of(method.mode).uses_strength)
        out = tr("%1, taper %2%").arg(out).arg(std::lround(100 * method.taper.over));
    return knits(pile) ? tr("%1, knitted").arg(out) : out;
}

bool MergeStep::needs_look() const {
    return studio_.document().open() && merged_ids(studio_.pile()).empty() && !shows_parts(studio_.pile());
}

}  // namespace bp::app
