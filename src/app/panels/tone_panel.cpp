#include "app/panels/tone_panel.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <array>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

const LookValue& entry_for(double Look::*value) {
    return *std::find_if(look_values().begin(), look_values().end(),
                         [value](const LookValue& v) { return v.value == value; });
}

int steps_of(const LookValue& value, double amount) {
    return int(std::lround(amount / value.step));
}

}  // namespace

QString TonePanel::object_name(const LookValue& value) const {
    return QStringLiteral("%1_%2").arg(object_).arg(QString::fromUtf8(value.name.data(), qsizetype(value.name.size())));
}

TonePanel::TonePanel(QWidget* parent, QString object) : QWidget(parent), object_(std::move(object)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::hair);
    ribbon_ = new ToneRibbon(this);
    column->addWidget(ribbon_);
    auto* row = new QGridLayout;
    row->setHorizontalSpacing(2);
    row->setVerticalSpacing(0);
    int place = 0;
    for (const ToneRibbon::Knot knot : ToneRibbon::knots) {
        const LookValue& value = entry_for(ToneRibbon::value_of(knot));
        auto* label = new QLabel(word(value), this);
        label->setFont(face(type::small));
        label->setProperty("quiet", true);
        label->setAlignment(Qt::AlignHCenter);
        QSpinBox* box = number(value, this);
        label->setBuddy(box);
        row->addWidget(label, 0, place);
        row->addWidget(box, 1, place);
        row->setColumnStretch(place++, 1);
    }
    column->addLayout(row);
    for (double Look::*const value : {&Look::exposure_ev, &Look::contrast}) column->addWidget(slider(entry_for(value)));

    colour_ = new QWidget(this);
    auto* colours = new QVBoxLayout(colour_);
    colours->setContentsMargins(0, 0, 0, 0);
    colours->setSpacing(space::hair);
    auto* fields = new QGridLayout;
    fields->setHorizontalSpacing(space::small);
    fields->setVerticalSpacing(2);
    cast_ = new CastPad(colour_);
    hue_ = new HueRing(colour_);
    fields->addWidget(cast_, 0, 0, 1, 2, Qt::AlignHCenter);
    fields->addWidget(hue_, 0, 2, 1, 2, Qt::AlignHCenter);
    place = 0;
    for (double Look::*const member : {&Look::warmth, &Look::green_to_magenta, &Look::hue_at, &Look::hue_turn}) {
        const LookValue& value = entry_for(member);
        auto* label = new QLabel(short_word(value), colour_);
        label->setFont(face(type::small));
        label->setProperty("quiet", true);
        label->setAlignment(Qt::AlignHCenter);
        QSpinBox* box = number(value, colour_);
        label->setBuddy(box);
        fields->addWidget(box, 1, place);
        fields->addWidget(label, 2, place);
        fields->setColumnStretch(place++, 1);
    }
    colours->addLayout(fields);
    neutral_ =
        push(tr("Point at grey"), object_ + QStringLiteral("_neutral"),
             tr("Then click on a place of the picture that was grey: warmth and green to magenta make it so"), colour_);
    neutral_->setCheckable(true);
    colours->addWidget(neutral_);
    for (double Look::*const value : {&Look::colour_strength, &Look::pale_colours})
        colours->addWidget(slider(entry_for(value)));
    column->addWidget(colour_);

    connect(ribbon_, &ToneRibbon::held_changed, this, &TonePanel::knot_held);
    const auto follow = [this](auto* control, const QString& what) {
        using Control = std::remove_pointer_t<decltype(control)>;
        connect(control, &Control::tried, this, [this](const Look& look) {
            look_ = look;
            show_numbers();
            emit tried(look);
        });
        connect(control, &Control::settled, this, [this, what](const Look& look) {
            look_ = look;
            show_numbers();
            emit settled(look, what);
        });
        connect(control, &Control::left, this, &TonePanel::left);
    };
    follow(ribbon_, tr("Tone"));
    follow(static_cast<ColourPad*>(cast_), tr("Cast of light"));
    follow(static_cast<ColourPad*>(hue_), tr("Hues"));
    show_numbers();
}

QSpinBox* TonePanel::number(const LookValue& value, QWidget* parent) {
    auto* box = new QSpinBox(parent);
    box->setObjectName(object_name(value));
    box->setAccessibleName(word(value));
    box->setAccessibleDescription(what_it_does(value));
    box->setToolTip(what_it_does(value));
    box->setRange(steps_of(value, value.least), steps_of(value, value.most));
    box->setWrapping(value.value == &Look::hue_at);
    box->setKeyboardTracking(false);
    box->setButtonSymbols(QAbstractSpinBox::NoButtons);
    box->setAlignment(Qt::AlignHCenter);
    box->setFont(face(type::small));
    box->setFocusPolicy(Qt::StrongFocus);
    box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    numbers_.emplace_back(&value, box);
    connect(box, &QSpinBox::valueChanged, this, [this, &value](int v) { set(value, v * value.step, true); });
    return box;
}

NamedSlider* TonePanel::slider(const LookValue& value) {
    auto* out = new NamedSlider(
        word(value), what_it_does(value), steps_of(value, value.least), steps_of(value, value.most),
        [&value](int v) { return look_value_in_words(value, v * value.step); }, this);
    out->slider()->setObjectName(object_name(value));
    sliders_.emplace_back(&value, out);
    connect(out, &NamedSlider::changed, this, [this, &value](int v) { set(value, v * value.step, false); });
    connect(out, &NamedSlider::settled, this, [this, &value](int v) { set(value, v * value.step, true); });
    connect(out, &NamedSlider::left, this, &TonePanel::left);
    return out;
}

void TonePanel::set(const LookValue& value, double amount, bool settles) {
    look_.*value.value = amount;
    if (settles) {
        emit settled(look_, word(value));
    } else {
        show_numbers();
        emit tried(look_);
    }
}

void TonePanel::set_look(const Look& look) {
    look_ = look;
    show_numbers();
}

void TonePanel::show_numbers() {
    for (const auto& [value, box] : numbers_) {
        const QSignalBlocker quiet(box);
        box->setValue(steps_of(*value, look_.*value->value));
    }
    for (const auto& [value, slider] : sliders_)
        if (!slider->slider()->isSliderDown()) slider->set_value(steps_of(*value, look_.*value->value));
    ribbon_->set_look(look_);
    cast_->set_look(look_);
    hue_->set_look(look_);
}

void TonePanel::set_coloured(bool coloured) {
    colour_->setVisible(coloured);
}

bool TonePanel::leave_drag() {
    return ribbon_->leave_drag() || cast_->leave_drag() || hue_->leave_drag();
}

}  // namespace bp::app
