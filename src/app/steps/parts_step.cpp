#include "app/steps/parts_step.h"

#include <algorithm>

#include "app/looks/words.h"
#include "app/steps/parts_list.h"
#include "app/steps/parts_look.h"
#include "app/steps/parts_mask.h"
#include "app/steps/parts_paint.h"
#include "app/steps/parts_place.h"
#include "app/steps/parts_pointing.h"
#include "app/steps/parts_sequence.h"
#include "app/steps/parts_shower.h"

namespace bp::app {

PartsStep::PartsStep(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail)
    : studio_(studio), target_(studio, viewer) {
    tabs_ = new PageTabs(this, 3);
    tabs_->add(new PartsPaint(studio, viewer, canvas, rail, target_, this), tr("Paint"), QStringLiteral("page_paint"),
               tr("Paint over what you want of a frame, and switch lit frames on"));
    tabs_->add(new PartsSequence(studio, viewer, this), tr("Sequence"), QStringLiteral("page_sequence"),
               tr("One subject in many places"));
    tabs_->add(new PartsShower(studio, viewer, canvas, target_, this), tr("Shower"), QStringLiteral("page_shower"),
               tr("The meteors of all frames over one"));
    tabs_->add(new PartsPlace(studio, viewer, canvas, target_, this), tr("Place"), QStringLiteral("page_part_place"),
               tr("Move, turn and scale parts, on a canvas as large as the print"));
    tabs_->add(new PartsMask(studio, viewer, canvas, target_, this), tr("Mask"), QStringLiteral("page_mask"),
               tr("Ellipses, ramps and what is alike; the mask grown, softened, swapped"));
    tabs_->add(new PartsLook(studio, viewer, target_, this), tr("Look"), QStringLiteral("page_part_look"),
               tr("Tone and colour of the chosen part alone"));
    column()->addWidget(tabs_);
    auto* list = new PartsList(studio, viewer, target_, this);
    column()->addWidget(list);
    new PartsPointing(studio, viewer, canvas, rail, list->rows(), this);
    connect(&studio.document(), &Document::changed, this, &PartsStep::out_of_date);
    connect(&studio.document(), &Document::opened, this, [this] {
        const Outcome outcome = studio_.pile().outcome;
        tabs_->show(outcome == Outcome::sequence ? QStringLiteral("page_sequence")
                    : outcome == Outcome::shower ? QStringLiteral("page_shower")
                                                 : QStringLiteral("page_paint"));
    });
}

QString PartsStep::summary() const {
    const Pile& pile = studio_.pile();
    if (pile.parts.empty()) return tr("none");
    const auto on = std::count_if(pile.parts.begin(), pile.parts.end(), [](const Part& p) { return p.on; });
    if (pile.parts.size() == 1)
        return tr("1 part: %1, frame %2")
            .arg(name_of_part(pile, pile.parts.front()))
            .arg(number_of(pile, pile.parts.front().frame));
    return tr("%1 parts, %2 shown").arg(pile.parts.size()).arg(on);
}

}  // namespace bp::app
