#include "app/steps/finish_step.h"

#include <QHBoxLayout>
#include <algorithm>

#include "app/steps/finish_colours.h"
#include "app/steps/finish_crop.h"
#include "app/steps/finish_detail.h"
#include "app/steps/finish_mend.h"
#include "app/steps/finish_places.h"
#include "app/steps/finish_tone.h"
#include "app/work/commands.h"
#include "pile/finish_edits.h"

namespace bp::app {

FinishStep::FinishStep(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer) {
    tabs_ = new PageTabs(this, 3);
    tabs_->add(new FinishTone(studio, viewer, canvas, this), tr("Tone"), QStringLiteral("page_finish_tone"),
               tr("Tone and colour of all of the picture"));
    tabs_->add(new FinishCurve(studio, viewer, this), tr("Curve"), QStringLiteral("page_finish_curve"),
               tr("A free curve of brightness, or of one channel"));
    tabs_->add(new FinishColours(studio, viewer, this), tr("Colour"), QStringLiteral("page_finish_colour"),
               tr("Ranges of colours, and the colours of dark and bright tones"));
    tabs_->add(new FinishPlaces(studio, viewer, canvas, this), tr("Places"), QStringLiteral("page_finish_places"),
               tr("Areas with tone, colour and detail of their own"));
    tabs_->add(new FinishDetail(studio, viewer, this), tr("Detail"), QStringLiteral("page_finish_detail"),
               tr("Sharpness, local contrast, noise, and the edges of the picture"));
    tabs_->add(new FinishMend(studio, viewer, canvas, this), tr("Mend"), QStringLiteral("page_finish_mend"),
               tr("Spots, wires and scratches, mended from what surrounds them"));
    tabs_->add(new FinishCrop(studio, viewer, canvas, this), tr("Crop"), QStringLiteral("page_finish_crop"),
               tr("Which area of the canvas is the picture, free or to a ratio"));
    column()->addWidget(tabs_);
    build_files();
    connect(&studio.document(), &Document::changed, this, &FinishStep::out_of_date);
}

void FinishStep::build_files() {
    before_ = push(tr("Hold to see before"), QStringLiteral("finish_before"), tip_of("before"), this);
    column()->addWidget(before_);
    connect(before_, &QPushButton::pressed, this, [this] { viewer_.set_finished(false); });
    connect(before_, &QPushButton::released, this, [this] { viewer_.set_finished(true); });
    auto* row = new QHBoxLayout;
    auto* take = push(tr("Take a finish…"), QStringLiteral("finish_take"),
                      tr("Uses the values of a finish file, or of another pile, in place of those here"), this);
    save_ = push(tr("Save finish…"), QStringLiteral("finish_save"),
                 tr("Writes the values of this step to a file, to be used on other piles"), this);
    row->addWidget(take);
    row->addWidget(save_);
    column()->addLayout(row);
    none_ = push(tr("No finish"), QStringLiteral("finish_none"), tr("Takes all values of this step back"), this);
    column()->addWidget(none_);
    connect(take, &QPushButton::clicked, this, &FinishStep::take_wanted);
    connect(save_, &QPushButton::clicked, this, &FinishStep::save_wanted);
    connect(none_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_finish(studio_.pile(), {}), tr("No finish")); });
}

void FinishStep::closed() {
    tabs_->closed();
    viewer_.set_finished(true);
}

QString FinishStep::summary() const {
    const Finish& finish = studio_.pile().finish;
    QStringList words;
    if (studio_.pile().crop) words << tr("crop");
    if (studio_.pile().turn_deg != 0) words << tr("turned");
    if (finish.glow > 0) words << tr("glow");
    if (finish.look != Look{}) words << tr("tone");
    if (finish.curves != Curves{}) words << tr("curve");
    if (!finish.colours.empty() || finish.tints != TwoTints{}) words << tr("colour");
    const auto on =
        std::count_if(finish.places.begin(), finish.places.end(), [](const FinishPlace& p) { return p.on; });
    if (on > 0) words << tr("%n place(s)", nullptr, int(on));
    if (finish.detail != Detail{} || finish.give_back) words << tr("detail");
    if (finish.edges.stops != 0) words << tr("edges");
    if (!finish.mended.empty()) words << tr("%n mended", nullptr, int(finish.mended.size()));
    return words.isEmpty() ? tr("as merged") : words.join(tr(", "));
}

void FinishStep::refresh() {
    const bool any = studio_.pile().finish != Finish{};
    before_->setEnabled(any);
    save_->setEnabled(any);
    none_->setEnabled(any);
}

}  // namespace bp::app
