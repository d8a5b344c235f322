#include "app/panels/value_sliders.h"

#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {

ValueSliders::ValueSliders(Studio& studio, Viewer& viewer, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), column_(new QVBoxLayout(this)) {
    column_->setContentsMargins(0, 0, 0, 0);
    column_->setSpacing(space::small);
}

void ValueSliders::add(const ValueOf& value) {
    const auto words = [unit = value.unit, suffix = value.suffix, decimals = value.decimals](int v) {
        return number_in_words(v * unit, decimals) + suffix;
    };
    auto* slider = new NamedSlider(value.name, value.tip, value.low, value.high, words, this);
    slider->slider()->setObjectName(value.object);
    column_->addWidget(slider);
    connect(slider, &NamedSlider::changed, this,
            [this, value](int v) { viewer_.try_out(value.write(studio_.pile(), v * value.unit)); });
    connect(slider, &NamedSlider::settled, this, [this, value](int v) {
        const QString merged =
            value.whose ? QStringLiteral("%1 %2").arg(value.object).arg(value.whose()) : value.object;
        studio_.document().edit(value.write(studio_.pile(), v * value.unit), value.name, merged);
        // An edit that changed nothing leaves what was tried.
        viewer_.leave_trial();
    });
    connect(slider, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    sliders_.emplace_back(value, slider);
}

void ValueSliders::show_values() {
    for (const auto& [value, slider] : sliders_)
        if (!slider->slider()->isSliderDown())
            slider->set_value(int(std::lround(value.read(studio_.pile()) / value.unit)));
}

}  // namespace bp::app
