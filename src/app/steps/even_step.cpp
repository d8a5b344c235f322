#include "app/steps/even_step.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>
#include <tuple>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "even/tone.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double levels_a_step = 0.01;  // EV
constexpr int most_levels = 300;

}  // namespace

EvenStep::EvenStep(Studio& studio, Viewer& viewer, Canvas& canvas)
    : studio_(studio), viewer_(viewer), canvas_(canvas), lane_(this), tool_(studio, viewer, canvas) {
    auto* tabs = new QHBoxLayout;
    auto* group = new QButtonGroup(this);
    const auto begin_page = [&](const QString& name, const QString& object, const QString& tip) {
        auto* tab = push(name, object, tip, this);
        tab->setCheckable(true);
        tab->setProperty("tab", true);
        group->addButton(tab);
        tabs->addWidget(tab);
        auto* body = new QWidget(this);
        page_ = new QVBoxLayout(body);
        page_->setContentsMargins(0, 0, 0, 0);
        page_->setSpacing(space::small);
        return std::pair{tab, body};
    };
    column()->addLayout(tabs);
    std::tie(light_tab_, light_) = begin_page(tr("Light and colour"), QStringLiteral("page_light"),
                                              tr("How bright the frames are, and in which colours"));
    build_levels();
    build_look();
    std::tie(sensor_tab_, sensor_) =
        begin_page(tr("Sensor"), QStringLiteral("page_sensor"), tr("Darks, hot pixels and dust: what the sensor adds"));
    build_sensor();
    column()->addWidget(light_);
    column()->addWidget(sensor_);
    sensor_->hide();
    light_tab_->setChecked(true);
    connect(group, &QButtonGroup::buttonClicked, this, &EvenStep::show_page);
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
        most_levels, [](int v) { return tr("%1 EV").arg(v * levels_a_step, 0, 'f', 2); }, this);
    level_->slider()->setObjectName(QStringLiteral("own_level"));
    page_->addWidget(level_);
    const auto overruled = [this](int value) {
        return with_level_by_person(studio_.pile(), studio_.current(), value * levels_a_step);
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
    connect(&studio_, &Studio::thumbnails_finished, this, &EvenStep::look_at_tones);
}

// How bright the frame that is looked at is, as it was recorded: what the ribbon shows.
void EvenStep::look_at_tones() {
    const Frame* frame = find_frame(studio_.pile(), studio_.current());
    if (!isVisible() || !frame || !usable(*frame)) return;
    lane_.run<Result<std::vector<float>>>(
        [file = frame->file, store = studio_.store(), profile = studio_.pile().profile,
         channels = studio_.pile().channels,
         level = studio_.thumbnail_level()](Job& job) -> Result<std::vector<float>> {
            Result<SharedPixels> pixels = store->load(*file, level, job);
            if (!pixels.ok()) return pixels.failure();
            return tone_shares(pixels.value()->widened(), LightCurve::of(profile, channels));
        },
        [this](Result<std::vector<float>> shares) {
            if (shares.ok()) tone_->set_distribution(std::move(shares).value());
        });
}

void EvenStep::build_sensor() {
    page_->addWidget(quiet_label(tr("Darks"), this));
    darks_ = new QCheckBox(this);
    darks_->setObjectName(QStringLiteral("darks"));
    darks_->setAccessibleName(tr("Subtract darks"));
    darks_->setToolTip(tr("Takes the mean of the dark frames from every frame: glow and hot pixels go"));
    scaled_ = new QCheckBox(tr("Scale to the exposure"), this);
    scaled_->setObjectName(QStringLiteral("darks_scaled"));
    scaled_->setToolTip(tr("Darks of another exposure are subtracted in proportion to it"));
    useless_ = quiet_label({}, this);
    useless_->setObjectName(QStringLiteral("useless_darks"));
    page_->addWidget(darks_);
    page_->addWidget(scaled_);
    page_->addWidget(useless_);
    page_->addWidget(quiet_label(tr("Hot pixels"), this));
    hot_ = new QCheckBox(tr("Mend hot pixels"), this);
    hot_->setObjectName(QStringLiteral("hot_pixels"));
    hot_->setToolTip(tr("Finds pixels that glow at one place in all frames, and takes their neighbours instead"));
    page_->addWidget(hot_);
    page_->addWidget(quiet_label(tr("Sensor spots"), this));
    auto* row = new QHBoxLayout;
    mark_ = push(tr("Mark"), QStringLiteral("spots_mark"),
                 tr("Click on dust in a frame: it is mended in all. Click on it again to give it back"), this);
    mark_->setCheckable(true);
    suggest_ = push(tr("Suggest spots"), QStringLiteral("spots_suggest"),
                    tr("Looks for round shadows that all frames have at the same place of the sensor"), this);
    row->addWidget(mark_);
    row->addWidget(suggest_);
    page_->addLayout(row);
    spot_size_ = new NamedSlider(
        tr("Size"), tr("Width of the spots that are marked, in pixels of the picture (, and .)"),
        int(2 * smallest_spot_px), int(2 * largest_spot_px / 4), [](int v) { return tr("%1 px").arg(v); }, this);
    spot_size_->slider()->setObjectName(QStringLiteral("spot_size"));
    page_->addWidget(spot_size_);
    connect(darks_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_darks(studio_.pile(), on ? Darks::on : Darks::off),
                                on ? tr("Subtract darks") : tr("Leave darks"));
    });
    connect(scaled_, &QCheckBox::clicked, this, [this](bool on) {
        studio_.document().edit(with_darks(studio_.pile(), on ? Darks::scaled : Darks::on), tr("Scale darks"));
    });
    connect(hot_, &QCheckBox::clicked, this, [this](bool on) {
        // Checked when they have been found.
        hot_->setChecked(studio_.pile().hot != nullptr);
        studio_.mend_hot_pixels(on);
    });
    connect(&canvas_, &Canvas::tool_left, this, [this] { mark_->setChecked(false); });
    connect(mark_, &QPushButton::toggled, this, [this](bool on) {
        canvas_.set_tool(on ? &tool_ : nullptr);
        if (on && viewer_.of_all()) viewer_.set_view(View::frame);
    });
    connect(suggest_, &QPushButton::clicked, &studio_, &Studio::guess_spots);
    connect(&studio_, &Studio::spots_guessed, this, [this] {
        if (isVisible() && !studio_.spot_guesses().empty()) mark_->setChecked(true);
        canvas_.update();
    });
    connect(spot_size_, &NamedSlider::changed, this, [this](int value) {
        Brush brush = canvas_.brush();
        brush.size = value;
        canvas_.set_brush(brush);
    });
    const auto show_size = [this] { spot_size_->set_value(int(std::lround(canvas_.brush().size))); };
    connect(&canvas_, &Canvas::brush_changed, this, show_size);
    show_size();
}

void EvenStep::show_page() {
    const bool sensor = sensor_tab_->isChecked();
    light_->setVisible(!sensor);
    sensor_->setVisible(sensor);
    if (!sensor) mark_->setChecked(false);
}

void EvenStep::opened() {
    look_at_tones();
}

void EvenStep::closed() {
    mark_->setChecked(false);
}

void EvenStep::refresh_sensor() {
    const Pile& pile = studio_.pile();
    const auto count = std::count_if(pile.frames.begin(), pile.frames.end(),
                                     [](const Frame& f) { return usable(f) && f.role == Role::dark && !f.aside; });
    darks_->setText(count > 0 ? tr("Subtract darks (%1)").arg(count) : tr("Subtract darks"));
    darks_->setChecked(pile.darks != Darks::off);
    darks_->setEnabled(count > 0 || pile.darks != Darks::off);
    scaled_->setVisible(pile.darks != Darks::off);
    scaled_->setChecked(pile.darks == Darks::scaled);
    QStringList lines;
    if (count == 0) lines << tr("Frames taken with the lens covered, given the role Dark in the Frames step.");
    if (pile.darks != Darks::off) {
        for (const auto& [id, why] : useless_darks(pile)) lines << said(why);
        const auto without = std::count_if(pile.frames.begin(), pile.frames.end(), [&](const Frame& f) {
            return usable(f) && f.role == Role::scene && darks_of(pile, f).ids.empty();
        });
        if (count > 0 && without > 0) lines << tr("%n frame(s) without a dark that fits.", nullptr, int(without));
    }
    useless_->setText(lines.join(QLatin1Char('\n')));
    useless_->setVisible(!lines.isEmpty());
    hot_->setChecked(pile.hot != nullptr);
    hot_->setText(pile.hot ? tr("Mend hot pixels (%1)").arg(pile.hot->size()) : tr("Mend hot pixels"));
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
               : !frame->level             ? tr("Frame %1 has no level: too dark, or clipped.").arg(number)
               : frame->level->by_person   ? tr("Frame %1: level set by you.").arg(number)
                                           : tr("Frame %1: level measured.").arg(number);
    }
    facts_->setText(fact);
    if (frame && !level_->slider()->isSliderDown())
        level_->set_value(frame->level ? int(std::lround(std::log2(frame->level->gain[1]) / levels_a_step)) : 0);
    const Look look = shown_look();
    tone_->set_look(look);
    tone_->set_coloured(pile.channels == 3);
    refresh_sensor();
    reset_->setEnabled(look != Look{});
    copy_->setEnabled(!of_all() && frame && studio_.selected().size() > 1);
}

}  // namespace bp::app
