#include "app/steps/even_step.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <array>
#include <cmath>

#include "app/words.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double levels_a_step = 0.01;  // EV
constexpr int most_levels = 300;

// The values in the order in which a picture is worked on, under their headings.
struct Section {
    const char* title;
    std::vector<double Look::*> values;
};
const std::array<Section, 2> sections{{
    {QT_TRANSLATE_NOOP("bp::app::EvenStep", "Tone"),
     {&Look::exposure_ev, &Look::contrast, &Look::highlights, &Look::shadows, &Look::white, &Look::floor}},
    {QT_TRANSLATE_NOOP("bp::app::EvenStep", "Colour"),
     {&Look::temperature, &Look::tint, &Look::saturation, &Look::vibrance}},
}};

const LookValue& entry_for(double Look::*value) {
    return *std::find_if(look_values().begin(), look_values().end(),
                         [value](const LookValue& v) { return v.value == value; });
}

int steps_of(const LookValue& value, double amount) {
    return int(std::lround(amount / value.step));
}

}  // namespace

EvenStep::EvenStep(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {
    build_levels();
    build_look();
    connect(&studio.document(), &Document::changed, this, &EvenStep::refresh);
    connect(&studio, &Studio::selection_changed, this, &EvenStep::refresh);
    refresh();
}

void EvenStep::build_levels() {
    column()->addWidget(quiet_label(tr("Level the frames"), this));
    auto* row = new QHBoxLayout;
    auto* group = new QButtonGroup(this);
    for (const Levelling kind : {Levelling::off, Levelling::light, Levelling::colour}) {
        const auto name = name_of(kind);
        QPushButton* button =
            push(word(kind), QStringLiteral("level_%1").arg(QString::fromUtf8(name.data(), qsizetype(name.size()))),
                 what_it_does(kind), this);
        button->setCheckable(true);
        group->addButton(button);
        row->addWidget(button);
        kinds_.push_back(button);
        connect(button, &QPushButton::clicked, this, [this, kind] { studio_.level(kind); });
    }
    column()->addLayout(row);
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    level_ = new NamedSlider(
        tr("Level of this frame"), tr("Overrules what was measured for the frame that is looked at"), -most_levels,
        most_levels, [](int v) { return tr("%1 EV").arg(v * levels_a_step, 0, 'f', 2); }, this);
    level_->slider()->setObjectName(QStringLiteral("own_level"));
    column()->addWidget(level_);
    const auto overruled = [this](int value) {
        return with_level_by_person(studio_.pile(), studio_.current(), value * levels_a_step);
    };
    connect(level_, &NamedSlider::changed, this, [this, overruled](int value) { viewer_.try_out(overruled(value)); });
    connect(level_, &NamedSlider::settled, this, [this, overruled](int value) {
        studio_.document().edit(overruled(value),
                                tr("Level of frame %1").arg(number_of(studio_.pile(), studio_.current())));
    });
}

void EvenStep::build_look() {
    auto* row = new QHBoxLayout;
    all_ = push(tr("All frames"), QStringLiteral("look_of_all"), tr("The sliders set the look of every frame"), this);
    own_ = push(tr("Selection"), QStringLiteral("look_of_selection"),
                tr("The sliders add to the look of the selected frames alone"), this);
    auto* group = new QButtonGroup(this);
    for (QPushButton* button : {all_, own_}) {
        button->setCheckable(true);
        group->addButton(button);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, &EvenStep::refresh);
    }
    all_->setChecked(true);
    column()->addLayout(row);
    values_.resize(look_values().size());
    for (const Section& section : sections) {
        column()->addWidget(quiet_label(tr(section.title), this));
        for (double Look::*const member : section.values) {
            const LookValue& entry = entry_for(member);
            auto* slider = new NamedSlider(
                word(entry), what_it_does(entry), steps_of(entry, entry.least), steps_of(entry, entry.most),
                [&entry](int v) { return look_value_in_words(entry, v * entry.step); }, this);
            slider->slider()->setObjectName(
                QStringLiteral("look_%1").arg(QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()))));
            column()->addWidget(slider);
            values_[std::size_t(&entry - look_values().data())] = slider;
            const auto changed = [this, &entry](int v) {
                Look look = shown_look();
                look.*entry.value = v * entry.step;
                return with_shown_look(look);
            };
            connect(slider, &NamedSlider::changed, this, [this, changed](int v) { viewer_.try_out(changed(v)); });
            connect(slider, &NamedSlider::settled, this,
                    [this, changed, &entry](int v) { studio_.document().edit(changed(v), word(entry)); });
        }
    }
    auto* below = new QHBoxLayout;
    reset_ = push(tr("No look"), QStringLiteral("look_reset"), tr("Sets all sliders back"), this);
    copy_ = push(tr("Copy to selection"), QStringLiteral("look_copy"),
                 tr("The selected frames get the own look of the frame that is looked at"), this);
    below->addWidget(reset_);
    below->addWidget(copy_);
    column()->addLayout(below);
    clipping_ = new QCheckBox(tr("Show what is clipped"), this);
    clipping_->setObjectName(QStringLiteral("show_clipping"));
    clipping_->setToolTip(tr("Hatches what is white or black in any channel: detail there is lost when frames merge"));
    column()->addWidget(clipping_);
    hot_ = new QCheckBox(tr("Mend hot pixels"), this);
    hot_->setObjectName(QStringLiteral("hot_pixels"));
    hot_->setToolTip(tr("Finds pixels that glow at one place in all frames, and takes their neighbours instead"));
    column()->addWidget(hot_);
    connect(hot_, &QCheckBox::clicked, this, [this](bool on) {
        // Checked when they have been found.
        hot_->setChecked(studio_.pile().hot != nullptr);
        studio_.mend_hot_pixels(on);
    });
    connect(reset_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_shown_look({}), tr("No look")); });
    connect(copy_, &QPushButton::clicked, this, [this] {
        const Frame* from = find_frame(studio_.pile(), studio_.current());
        if (from)
            studio_.document().edit(with_own_look(studio_.pile(), studio_.selected(), from->look), tr("Copy look"));
    });
    connect(clipping_, &QCheckBox::toggled, &canvas_, &Canvas::set_show_clipping);
}

Look EvenStep::shown_look() const {
    if (of_all()) return studio_.pile().look;
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    return frame ? frame->look : Look{};
}

Pile EvenStep::with_shown_look(const Look& look) const {
    return of_all() ? with_look(studio_.pile(), look) : with_own_look(studio_.pile(), studio_.selected(), look);
}

QString EvenStep::summary() const {
    const Pile& pile = studio_.pile();
    QStringList words;
    if (pile.levelling != Levelling::off)
        words << (pile.levelling == Levelling::light ? tr("light levelled") : tr("light, colour levelled"));
    if (pile.hot) words << tr("%n hot pixel(s)", nullptr, int(pile.hot->size()));
    if (pile.look != Look{}) words << tr("a look");
    const auto own =
        std::count_if(pile.frames.begin(), pile.frames.end(), [](const Frame& f) { return f.look != Look{}; });
    if (own > 0) words << tr("%n with an own look", nullptr, int(own));
    return words.isEmpty() ? tr("as recorded") : words.join(tr(", "));
}

void EvenStep::refresh() {
    const Pile& pile = studio_.pile();
    kinds_[std::size_t(pile.levelling)]->setChecked(true);
    const Frame* frame = find_frame(pile, studio_.current());
    const bool levelled = pile.levelling != Levelling::off;
    level_->setVisible(levelled && frame && frame->id != pile.reference && frame->role == Role::scene);
    facts_->setVisible(levelled);
    QString fact;
    if (levelled && frame) {
        const int number = number_of(pile, frame->id);
        fact = frame->id == pile.reference ? tr("Frame %1 is the reference.").arg(number)
               : !frame->level             ? tr("Frame %1 has no level: too dark, or clipped.").arg(number)
               : frame->level->by_person   ? tr("Frame %1: level set by you.").arg(number)
                                           : tr("Frame %1: level measured.").arg(number);
    }
    facts_->setText(fact);
    if (frame && !level_->slider()->isSliderDown())
        level_->set_value(frame->level ? int(std::lround(std::log2(frame->level->gain[1]) / levels_a_step)) : 0);
    const Look look = shown_look();
    for (std::size_t i = 0; i < values_.size(); ++i) {
        const LookValue& entry = look_values()[i];
        if (!values_[i]->slider()->isSliderDown()) values_[i]->set_value(steps_of(entry, look.*entry.value));
        values_[i]->setEnabled(pile.channels == 3 || !entry.of_colour);
    }
    hot_->setChecked(pile.hot != nullptr);
    hot_->setText(pile.hot ? tr("Mend hot pixels (%1)").arg(pile.hot->size()) : tr("Mend hot pixels"));
    reset_->setEnabled(look != Look{});
    copy_->setEnabled(!of_all() && frame && studio_.selected().size() > 1);
    emit summary_changed();
}

}  // namespace bp::app
