#include "app/panels/brush_panel.h"

#include <QHBoxLayout>
#include <cmath>

#include "app/looks/theme.h"

namespace bp::app {
namespace {

// The size slider is geometric: 4 to 1000 pixels.
constexpr double least_size = 4;
constexpr double size_ratio = 250;

double size_at(int position) {
    return least_size * std::pow(size_ratio, position / 100.0);
}

int position_of(double size) {
    return int(std::lround(100 * std::log(size / least_size) / std::log(size_ratio)));
}

QString percent(int value) {
    return BrushPanel::tr("%1%").arg(value);
}

}  // namespace

BrushPanel::BrushPanel(Canvas& canvas, const QString& name, const Words& words, Kind kind, MaskTarget& on,
                       QWidget* parent)
    : QWidget(parent), canvas_(canvas), on_(on) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::small);
    auto* row = new QHBoxLayout;
    keep_ = push(words.keep, name + QStringLiteral("_keep"), words.keep_tip, this);
    give_back_ = push(words.give_back, name + QStringLiteral("_give_back"), words.give_back_tip, this);
    for (QPushButton* b : {keep_, give_back_}) {
        b->setCheckable(true);
        row->addWidget(b);
    }
    column->addLayout(row);
    size_ = new NamedSlider(
        tr("Size"), tr("Width of the brush in pixels of the picture (, and .)"), 0, 100,
        [](int v) { return tr("%1 px").arg(std::lround(size_at(v))); }, this);
    size_->slider()->setObjectName(name + QStringLiteral("_size"));
    softness_ = new NamedSlider(tr("Softness"), tr("How gently the edge of a stroke fades"), 0, 100, percent, this);
    softness_->slider()->setObjectName(name + QStringLiteral("_softness"));
    strength_ = new NamedSlider(tr("Strength"), tr("The most that one stroke gives or takes"), 1, 100, percent, this);
    strength_->slider()->setObjectName(name + QStringLiteral("_strength"));
    // Each sets its own alone: the others may stand between two of their sliders' places.
    const auto add = [&](NamedSlider* slider, void (*set)(Brush&, int)) {
        column->addWidget(slider);
        connect(slider, &NamedSlider::changed, this, [this, set](int value) {
            Brush brush = canvas_.brush();
            set(brush, value);
            canvas_.set_brush(brush);
        });
    };
    add(size_, [](Brush& brush, int value) { brush.size = size_at(value); });
    add(softness_, [](Brush& brush, int value) { brush.softness = value / 100.0; });
    add(strength_, [](Brush& brush, int value) { brush.strength = value / 100.0; });
    for (NamedSlider* s : {softness_, strength_}) s->setVisible(kind == Kind::soft);
    const auto choose = [this](bool keep) {
        Brush brush = canvas_.brush();
        brush.keep = keep;
        canvas_.set_brush(brush);
        canvas_.set_painting(&on_);
        refresh();
    };
    connect(keep_, &QPushButton::clicked, this, [choose] { choose(true); });
    connect(give_back_, &QPushButton::clicked, this, [choose] { choose(false); });
    connect(&canvas, &Canvas::brush_changed, this, &BrushPanel::refresh);
    connect(&canvas, &Canvas::painting_changed, this, &BrushPanel::refresh);
    refresh();
}

void BrushPanel::refresh() {
    const Brush& brush = canvas_.brush();
    // Neither, while the brush is not taken up.
    const bool paints = canvas_.paints_on() == &on_;
    keep_->setChecked(paints && brush.keep);
    give_back_->setChecked(paints && !brush.keep);
    if (std::lround(size_at(size_->value())) != std::lround(brush.size)) size_->set_value(position_of(brush.size));
    softness_->set_value(int(std::lround(brush.softness * 100)));
    strength_->set_value(int(std::lround(brush.strength * 100)));
}

}  // namespace bp::app
