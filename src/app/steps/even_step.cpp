#include "app/steps/even_step.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/steps/neutral_pick.h"
#include "engine/render.h"
#include "even/tone.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double levels_a_step = 0.01;  // EV
constexpr int most_levels = 300;

}  // namespace

EvenStep::EvenStep(Studio& studio, Viewer& viewer, Canvas& canvas)
    : studio_(studio), viewer_(viewer), canvas_(canvas), lane_(this) {
    auto* light = new QWidget(this);
    page_ = new QVBoxLayout(light);
    page_->setContentsMargins(0, 0, 0, 0);
    page_->setSpacing(space::small);
    build_levels();
    build_look();
    tabs_ = new PageTabs(this);
    tabs_->add(light, tr("Light and colour"), QStringLiteral("page_light"),
               tr("How bright the frames are, and in which colours"));
    tabs_->add(new EvenSensor(studio, viewer, canvas, this), tr("Sensor"), QStringLiteral("page_sensor"),
               tr("Darks, hot pixels and dust: what the sensor adds"));
    column()->addWidget(tabs_);
    connect(&studio.document(), &Document::changed, this, &EvenStep::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &EvenStep::out_of_date);
    refresh();
}

void EvenStep::build_levels() {
    page_->addWidget(quiet_label(tr("Level the frames"), this));
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
    page_->addLayout(row);
    facts_ = quiet_label({}, this);
    page_->addWidget(facts_);
    level_ = new NamedSlider(
        tr("Level of this frame"), tr("Overrules what was measured for the frame that is looked at"), -most_levels,
        most_levels, [](int v) { return tr("%1 EV").arg(number_in_words(v * levels_a_step, 2)); }, this);
    level_->slider()->setObjectName(QStringLiteral("own_level"));
    page_->addWidget(level_);
    const auto overruled = [this](int value) {
        return with_gain_by_person(studio_.pile(), studio_.current(), value * levels_a_step);
    };
    connect(level_, &NamedSlider::changed, this, [this, overruled](int value) { viewer_.try_out(overruled(value)); });
    connect(level_, &NamedSlider::settled, this, [this, overruled](int value) {
        const QString what = tr("Level of frame %1").arg(number_of(studio_.pile(), studio_.current()));
        studio_.document().edit(overruled(value), what, what);
        viewer_.leave_trial();
    });
    connect(level_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
}

void EvenStep::build_look() {
    auto* row = new QHBoxLayout;
    all_ = push(tr("All frames"), QStringLiteral("look_of_all"), tr("What is set below goes for every frame"), this);
    own_ = push(tr("Selection"), QStringLiteral("look_of_selection"),
                tr("What is set below comes on top, for the selected frames alone"), this);
    auto* group = new QButtonGroup(this);
    for (QPushButton* button : {all_, own_}) {
        button->setCheckable(true);
        group->addButton(button);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, &EvenStep::refresh);
    }
    all_->setChecked(true);
    page_->addLayout(row);
    tone_ = new TonePanel(this);
    page_->addWidget(tone_);
    connect(tone_, &TonePanel::tried, this, [this](const Look& look) { viewer_.try_out(with_shown_look(look)); });
    connect(tone_, &TonePanel::settled, this, [this](const Look& look, const QString& value) {
        studio_.document().edit(with_shown_look(look), value, QStringLiteral("look ") + value);
        // An edit that changed nothing leaves what was tried.
        viewer_.leave_trial();
    });
    connect(tone_, &TonePanel::left, this, [this] {
        viewer_.leave_trial();
        refresh();
    });
    connect(tone_, &TonePanel::knot_held, this,
            [this](bool held) { canvas_.set_show_clipping(held || clipping_->isChecked()); });
    // In the frame that is looked at, without the look that is set.
    auto* neutral = new NeutralPick(
        studio_, canvas_, tone_->neutral_button(),
        [this]() -> NeutralPick::Render {
            return
                [pile = with_shown_look({}), frame = studio_.current()](FrameStore& store, const Rect& area, Job& job) {
                    return render_frame(pile, store, frame, area, 0, job);
                };
        },
        this);
    connect(neutral, &NeutralPick::picked, this, [this](const std::array<double, 3>& light) {
        studio_.document().edit(with_shown_look(neutral_for(tone_->look(), light)), tr("Grey"));
    });
    auto* below = new QHBoxLayout;
    reset_ = push(tr("No look"), QStringLiteral("look_reset"),
                  tr("Takes tone and colour back to as they were recorded"), this);
    copy_ = push(tr("Copy to selection"), QStringLiteral("look_copy"),
                 tr("The selected frames get the own look of the frame that is looked at"), this);
    below->addWidget(reset_);
    below->addWidget(copy_);
    page_->addLayout(below);
    clipping_ = new QCheckBox(tr("Show what is clipped"), this);
    clipping_->setObjectName(QStringLiteral("show_clipping"));
    clipping_->setToolTip(tr("Hatches what is white or black in any channel: detail there is lost when frames merge"));
    page_->addWidget(clipping_);
    connect(reset_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(with_shown_look({}), tr("No look")); });
    connect(copy_, &QPushButton::clicked, this, [this] {
        const Frame* from = find_frame(studio_.pile(), studio_.current());
        if (from)
            studio_.document().edit(with_own_look(studio_.pile(), studio_.selected(), from->look), tr("Copy look"));
    });
    connect(clipping_, &QCheckBox::toggled, &canvas_, &Canvas::set_show_clipping);
    connect(&studio_.document(), &Document::opened, this, [this] { tone_->set_distribution({}); });
    connect(&studio_, &Studio::selection_changed, this, &EvenStep::look_at_tones);
    connect(&studio_.thumbnails(), &Thumbnails::finished, this, &EvenStep::look_at_tones);
}

// How bright the frame that is looked at is, as it was recorded: what the ribbon shows.
void EvenStep::look_at_tones() {
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    if (!isVisible() || !frame || !usable(*frame)) return;
    lane_.run<Result<std::vector<float>>>(
        [file = frame->file, store = studio_.stores().frames(), profile = studio_.pile().profile,
         channels = studio_.pile().channels,
         level = studio_.thumbnails().level()](Job& job) -> Result<std::vector<float>> {
            Result<SharedPixels> pixels = store->load(*file, level, job);
            if (!pixels.ok()) return pixels.failure();
            return tone_shares(pixels.value()->widened(), LightCurve::of(profile, channels));
        },
        [this](Result<std::vector<float>> shares) {
            if (shares.ok()) tone_->set_distribution(std::move(shares).value());
        });
}

void EvenStep::opened() {
    tabs_->opened();
    canvas_.set_show_clipping(clipping_->isChecked());
    look_at_tones();
}

void EvenStep::closed() {
    tabs_->closed();
    canvas_.set_show_clipping(false);
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
    if (pile.darks != Darks::off) words << tr("less darks");
    if (pile.spots) words << tr("spots: %1").arg(pile.spots->size());
    if (pile.hot) words << tr("hot pixels: %1").arg(pile.hot->size());
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
               : !frame->gains             ? tr("Frame %1 has no level: too dark, or clipped.").arg(number)
               : frame->gains->by_person   ? tr("Frame %1: level set by you.").arg(number)
                                           : tr("Frame %1: level measured.").arg(number);
    }
    facts_->setText(fact);
    if (frame && !level_->slider()->isSliderDown())
        level_->set_value(frame->gains ? int(std::lround(std::log2(frame->gains->gain[1]) / levels_a_step)) : 0);
    const Look look = shown_look();
    tone_->set_look(look);
    tone_->set_coloured(pile.channels == 3);
    reset_->setEnabled(look != Look{});
    copy_->setEnabled(!of_all() && frame && studio_.selected().size() > 1);
}

}  // namespace bp::app
