#include "app/steps/merge_trails.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <cmath>

#include "app/looks/words.h"
#include "pile/edits.h"

namespace bp::app {

QString share_of_run_in_words(const Pile& pile, Zone zone, double share) {
    const std::vector<int> ids = merged_ids(pile, zone);
    const int frames = ids.empty() ? 0 : std::max(1, int(std::ceil(share * double(ids.size() - 1) - 1e-9)));
    QStringList words{QCoreApplication::translate("Merge", "%n frames", nullptr, frames)};
    if (ids.size() > 1) {
        const auto& begin = find_frame(pile, ids.front())->file->capture.captured;
        const auto& end = find_frame(pile, ids.back())->file->capture.captured;
        if (begin && end && *end > *begin) words << duration_in_words(share * (*end - *begin));
    }
    return words.join(QStringLiteral(", "));
}

MergeTrails::MergeTrails(Studio& studio, Viewer& viewer, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer) {
    column()->addWidget(quiet_label(tr("Trails fade at"), this));
    auto* row = new QHBoxLayout;
    row->setSpacing(2);  // four of them, side by side in the narrow column
    auto* group = new QButtonGroup(this);
    for (const TaperEndEntry& entry : taper_ends()) {
        const auto name = QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()));
        QPushButton* button =
            push(word(entry.end), QStringLiteral("taper_%1").arg(name), what_it_does(entry.end), this);
        button->setCheckable(true);
        button->setProperty("tab", true);
        group->addButton(button);
        row->addWidget(button);
        ends_[std::size_t(entry.end)] = button;
        connect(button, &QPushButton::clicked, this, [this, end = entry.end] {
            Taper next = taper();
            next.end = end;
            settle(next, end == TaperEnd::none ? tr("No taper") : tr("Taper: %1").arg(within_sentence(word(end))), {});
        });
    }
    column()->addLayout(row);
    over_ = new NamedSlider(
        tr("Over"), tr("How long the trails take to rise from nothing to their full light"), 1, 100,
        [this](int value) { return share_of_run_in_words(studio_.pile(), studio_.zone(), value / 100.0); }, this);
    over_->slider()->setObjectName(QStringLiteral("taper_over"));
    column()->addWidget(over_);
    shape_words_ = quiet_label(tr("Shape"), this);
    column()->addWidget(shape_words_);
    curve_ = new TaperCurve(this);
    column()->addWidget(curve_);
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    head_ = new MergeHead(studio, viewer, this);
    column()->addWidget(head_);
    knit_ = new MergeKnit(studio, viewer, this);
    column()->addWidget(knit_);

    const auto over = [this](int value) {
        Taper next = taper();
        next.over = value / 100.0;
        return next;
    };
    const auto through = [this](Point knot) {
        Taper next = taper();
        next.knot = knot;
        return next;
    };
    connect(over_, &NamedSlider::changed, this, [this, over](int value) { try_out(over(value)); });
    connect(over_, &NamedSlider::settled, this, [this, over](int value) {
        settle(over(value), tr("Taper over %1%").arg(value), QStringLiteral("taper_over"));
    });
    connect(over_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    connect(curve_, &TaperCurve::tried, this, [this, through](Point knot) { try_out(through(knot)); });
    connect(curve_, &TaperCurve::settled, this, [this, through](Point knot) {
        settle(through(knot), tr("Shape of the taper"), QStringLiteral("taper_knot"));
    });
    connect(curve_, &TaperCurve::left, &viewer_, &Viewer::leave_trial);
    connect(&studio.document(), &Document::changed, this, &MergeTrails::out_of_date);
    connect(&studio, &Studio::zone_changed, this, &MergeTrails::out_of_date);
    // What is pulled on the time rail is seen here, too.
    connect(&viewer, &Viewer::tried, this, [this] {
        const Method& method = method_of(viewer_.shown(), studio_.zone());
        show_taper(method.taper);
        head_->show_head(method.head);
    });
}

Taper MergeTrails::taper() const {
    return method_of(studio_.pile(), studio_.zone()).taper;
}

void MergeTrails::try_out(const Taper& taper) {
    viewer_.try_out(with_taper(studio_.pile(), taper, studio_.zone()));
}

void MergeTrails::settle(const Taper& taper, const QString& what, const QString& kind) {
    studio_.document().edit(with_taper(studio_.pile(), taper, studio_.zone()), what, kind);
    viewer_.leave_trial();
}

void MergeTrails::show_taper(const Taper& taper) {
    if (!over_->slider()->isSliderDown()) over_->set_value(int(std::lround(taper.over * 100)));
    curve_->set_knot(taper.knot);
}

void MergeTrails::refresh() {
    const Pile& pile = studio_.pile();
    const Method& method = method_of(pile, studio_.zone());
    const bool counts = entry_of(method.mode).uses_strength;
    const bool fades = counts && method.taper.end != TaperEnd::none;
    for (QPushButton* button : ends_) button->setEnabled(counts);
    ends_[std::size_t(method.taper.end)]->setChecked(true);
    over_->setVisible(fades);
    shape_words_->setVisible(fades);
    curve_->setVisible(fades);
    show_taper(method.taper);
    head_->refresh();
    knit_->refresh();
    facts_->setVisible(!counts);
    facts_->setText(
        tr("%1 takes all frames alike: trails fade in Lighten, Add light and the means.").arg(word(method.mode)));
}

}  // namespace bp::app
