#include "app/steps/merge_knit.h"

#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/knitting.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

// The slider is geometric: 1 second to an hour.
constexpr int positions = 100;

double seconds_at(int position) {
    const double s = std::pow(Knit::longest_pause_s, double(position) / positions);
    const double unit = s < 10 ? 1 : s < 60 ? 5 : s < 600 ? 10 : 60;
    return std::max(1.0, std::round(s / unit) * unit);
}

int position_of(double seconds) {
    return int(std::lround(positions * std::log(std::max(1.0, seconds)) / std::log(Knit::longest_pause_s)));
}

}  // namespace

MergeKnit::MergeKnit(Studio& studio, Viewer& viewer, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, space::small, 0, 0);
    column->setSpacing(space::small);
    on_ = new QCheckBox(tr("Knit the breaks"), this);
    on_->setObjectName(QStringLiteral("knit"));
    on_->setToolTip(
        tr("Closes what pauses between exposures leave open in trails: of stars along the way the sky turned, of boats "
           "and "
           "lamps along their own"));
    column->addWidget(on_);
    longest_ = new NamedSlider(
        tr("Longest pause"), tr("Longer pauses stay open. A frame that is set aside makes one"), 0, positions,
        [](int position) { return duration_in_words(seconds_at(position)); }, this);
    longest_->slider()->setObjectName(QStringLiteral("knit_longest"));
    column->addWidget(longest_);
    show_ = new QCheckBox(tr("Show what was added"), this);
    show_->setObjectName(QStringLiteral("knit_show"));
    show_->setToolTip(tr("Hatches the pixels of the result that knitting changed"));
    column->addWidget(show_);
    facts_ = quiet_label({}, this);
    facts_->setObjectName(QStringLiteral("knit_facts"));
    column->addWidget(facts_);
    connect(on_, &QCheckBox::clicked, this, [this](bool on) {
        // Checked when the motion has been found.
        on_->setChecked(studio_.pile().knit.on);
        studio_.knit(on);
        if (!on || studio_.pile().knit.on) return;
        facts_->setText(tr("Looking how the lights moved. The breaks are closed when that is known."));
        facts_->show();
    });
    connect(&studio_.finding(), &Lane::busy_changed, this, &MergeKnit::refresh);
    connect(longest_, &NamedSlider::settled, this, [this](int position) {
        Knit knit = studio_.pile().knit;
        knit.longest_s = seconds_at(position);
        studio_.document().edit(with_knit(studio_.pile(), knit),
                                tr("Knit up to %1").arg(duration_in_words(knit.longest_s)),
                                QStringLiteral("knit_longest"));
    });
    connect(show_, &QCheckBox::toggled, &viewer_, &Viewer::set_show_added);
}

void MergeKnit::refresh() {
    const Pile& pile = studio_.pile();
    const Method& method = method_of(pile, Zone::sky);
    const bool grows = entry_of(method.mode).shows_brightest();
    const bool can = grows && method.model == Model::none;
    on_->setEnabled(can || pile.knit.on);
    on_->setChecked(pile.knit.on);
    longest_->setVisible(pile.knit.on && can);
    show_->setVisible(pile.knit.on && can);
    if (!longest_->slider()->isSliderDown()) longest_->set_value(position_of(pile.knit.longest_s));
    if (!grows) {
        facts_->setText(tr("Trails grow in Lighten and Maximum: there their breaks can be closed."));
    } else if (!can) {
        facts_->setText(tr("These frames are aligned, and their stars leave no trails."));
    } else if (pile.knit.on) {
        int closed = 0;
        double longest = 0;
        const std::vector<Pause> pauses = pauses_of(pile);
        for (const Pause& pause : pauses) {
            closed += pause.closed ? 1 : 0;
            if (pause.closed) longest = std::max(longest, pause.length_s);
        }
        facts_->setText(tr("%1 of %2 pauses are closed, the longest of them %3.")
                            .arg(closed)
                            .arg(pauses.size())
                            .arg(duration_in_words(longest)));
    }
    facts_->setVisible(!can || pile.knit.on);
}

}  // namespace bp::app
