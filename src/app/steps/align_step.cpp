#include "app/steps/align_step.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "app/steps/align_cover.h"
#include "app/steps/align_hand.h"
#include "app/steps/align_place.h"
#include "app/steps/align_zones.h"

namespace bp::app {
namespace {

struct Worst {
    double residual = 0;
    int lost = 0;
};

Worst worst_of(const Pile& pile, Zone zone) {
    Worst out;
    for (const Frame& frame : pile.frames) {
        const auto& place = frame.places[zone];
        if (!usable(frame) || frame.aside || !place || frame.role == Role::dark) continue;
        if (place->aligned)
            out.residual = std::max(out.residual, place->residual_px);
        else
            ++out.lost;
    }
    return out;
}

QString summary_of(const Pile& pile, Zone zone) {
    const Model model = method_of(pile, zone).model;
    if (model == Model::none) return AlignStep::tr("none");
    const Worst worst = worst_of(pile, zone);
    QString text =
        AlignStep::tr("%1, worst %2 px").arg(within_sentence(word(model))).arg(number_in_words(worst.residual, 2));
    if (worst.lost > 0) text += AlignStep::tr(", %1 lost").arg(worst.lost);
    return text;
}

}  // namespace

AlignStep::AlignStep(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison)
    : studio_(studio), canvas_(canvas) {
    auto* tabs = new QHBoxLayout;
    tabs->setSpacing(space::hair);
    column()->addLayout(tabs);
    zones_ = new ZoneSwitch(studio, QStringLiteral("align_on"), this);
    column()->addWidget(zones_);
    auto* place = new AlignPlace(studio, canvas, this);
    add_page(tr("Place"), QStringLiteral("page_place"), tr("How the frames have moved"), place, true);
    add_page(tr("By hand"), QStringLiteral("page_hand"), tr("Moves one frame over the reference"),
             new AlignHand(studio, viewer, canvas, comparison, this), true);
    add_page(tr("Zones"), QStringLiteral("page_zones"), tr("Sky and land, each in its own way"),
             new AlignZones(studio, canvas, this), false);
    add_page(tr("Cover"), QStringLiteral("page_cover"), tr("Where not every frame reaches, and the crop"),
             new AlignCover(studio, viewer, canvas, this), false);
    auto* pages = new QButtonGroup(this);
    for (const Tab& tab : pages_) {
        pages->addButton(tab.button);
        tabs->addWidget(tab.button);
    }
    pages_.front().button->setChecked(true);
    connect(place, &AlignPlace::table_wanted, this, &AlignStep::table_wanted);
    connect(&studio.document(), &Document::changed, this, &AlignStep::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &AlignStep::out_of_date);
    connect(&studio, &Studio::zone_changed, this, &AlignStep::out_of_date);
    refresh();
}

void AlignStep::add_page(const QString& name, const QString& object, const QString& tip, Page* page, bool of_a_zone) {
    auto* tab = push(name, object, tip, this);
    tab->setCheckable(true);
    tab->setProperty("tab", true);
    tab->setSizePolicy(QSizePolicy::Minimum, QSizePolicy::Fixed);
    const int number = int(pages_.size());
    pages_.push_back({tab, page, of_a_zone});
    column()->addWidget(page);
    page->setVisible(number == 0);
    connect(tab, &QPushButton::clicked, this, [this, number] { show_page(number); });
}

void AlignStep::show_page(int page) {
    if (page == page_) return;
    pages_[std::size_t(page_)].page->closed();
    pages_[std::size_t(page_)].page->hide();
    page_ = page;
    pages_[std::size_t(page_)].page->show();
    refresh();
    pages_[std::size_t(page_)].page->opened();
}

void AlignStep::opened() {
    canvas_.set_show_pole(true);
    pages_[std::size_t(page_)].page->opened();
}

void AlignStep::closed() {
    canvas_.set_show_pole(false);
    pages_[std::size_t(page_)].page->closed();
}

QString AlignStep::summary() const {
    const Pile& pile = studio_.pile();
    if (!pile.zones) return summary_of(pile, Zone::sky);
    return tr("sky %1; land %2").arg(summary_of(pile, Zone::sky), summary_of(pile, Zone::land));
}

bool AlignStep::needs_look() const {
    const Pile& pile = studio_.pile();
    const auto any_lost = [&](Zone zone) {
        return method_of(pile, zone).model != Model::none && worst_of(pile, zone).lost > 0;
    };
    return any_lost(Zone::sky) || (pile.zones && any_lost(Zone::land));
}

void AlignStep::refresh() {
    zones_->set_wanted(pages_[std::size_t(page_)].of_a_zone);
    for (const Tab& tab : pages_) tab.page->out_of_date();
}

}  // namespace bp::app
