#include "app/steps/align_zones.h"

#include <QHBoxLayout>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr int first_reach_px = 40;

}  // namespace

AlignZones::AlignZones(Studio& studio, Canvas& canvas, QWidget* parent)
    : Page(parent),
      studio_(studio),
      canvas_(canvas),
      sky_(
          studio, [](const Pile& pile) { return pile.zones ? &pile.zones->sky : nullptr; },
          [](Pile pile, const Mask& mask) { return with_zones(std::move(pile), mask); },
          [](const Brush& brush) { return brush.keep ? tr("Paint sky") : tr("Paint land"); }) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    auto* row = new QHBoxLayout;
    suggest_ = push(tr("Suggest sky"), QStringLiteral("zones_suggest"),
                    tr("Finds what turns with the stars and what stands still"), this);
    remove_ = push(tr("One zone"), QStringLiteral("zones_remove"),
                   tr("Aligns and merges all of the picture in one way again"), this);
    row->addWidget(suggest_);
    row->addWidget(remove_);
    column()->addLayout(row);
    brush_ = new BrushPanel(canvas_, QStringLiteral("sky_brush"),
                            {tr("Sky"), tr("Paints: what you paint over is sky (K)"), tr("Land"),
                             tr("Paints: what you paint over is land (K)")},
                            BrushPanel::Kind::plain, sky_, this);
    column()->addWidget(brush_);
    const auto pixels = [](int v) { return tr("%1 px").arg(v); };
    reach_ = new NamedSlider(tr("Edges within"), tr("How far from the painted border its true place may be"), 4, 200,
                             pixels, this);
    reach_->slider()->setObjectName(QStringLiteral("zones_reach"));
    reach_->set_value(first_reach_px);
    column()->addWidget(reach_);
    snap_ = push(tr("Snap to edges"), QStringLiteral("zones_snap"),
                 tr("Brings the border to roofs, masts and branches"), this);
    column()->addWidget(snap_);
    feather_ = new NamedSlider(tr("Feather"), tr("Width of the border in which sky and land go over into each other"),
                               0, int(Mask::widest_softening), pixels, this);
    feather_->slider()->setObjectName(QStringLiteral("zones_feather"));
    column()->addWidget(feather_);

    connect(suggest_, &QPushButton::clicked, &studio, &Studio::suggest_zones);
    connect(snap_, &QPushButton::clicked, this, [this] { studio_.snap_zones(reach_->value()); });
    connect(remove_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(without_zones(studio_.pile()), tr("One zone")); });
    connect(feather_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(with_feather(studio_.pile(), value), tr("Feather"), QStringLiteral("feather"));
    });
}

void AlignZones::closed() {
    canvas_.set_painting(nullptr);
}

void AlignZones::refresh() {
    const Pile& pile = studio_.pile();
    const bool divided = pile.zones.has_value();
    hint_->setText(
        divided
            ? tr("Sky: %1, %2. Land: %3, %4. Choose how under Place and in the Merge step.")
                  .arg(within_sentence(word(pile.methods.sky.model)), within_sentence(word(pile.methods.sky.mode)),
                       within_sentence(word(pile.methods.land.model)), within_sentence(word(pile.methods.land.mode)))
            : tr("Paint roughly over the sky, or let it be suggested. Then each zone has its own align and merge."));
    suggest_->setEnabled(pile.methods.sky.model == Model::stars);
    for (QWidget* w : std::initializer_list<QWidget*>{snap_, reach_, feather_, remove_}) w->setEnabled(divided);
    if (divided && !feather_->slider()->isSliderDown()) feather_->set_value(int(std::lround(pile.zones->feather_px)));
}

}  // namespace bp::app
