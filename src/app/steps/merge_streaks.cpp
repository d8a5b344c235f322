#include "app/steps/merge_streaks.h"

#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/limits.h"
#include "pile/streak_edits.h"

namespace bp::app {
namespace {

Qt::PenStyle style_of(StreakKind kind) {
    switch (kind) {
        case StreakKind::aircraft:
            return Qt::DashLine;
        case StreakKind::satellite:
            return Qt::SolidLine;
        case StreakKind::meteor:
            return Qt::DotLine;
    }
    return Qt::SolidLine;
}

}  // namespace

MergeStreaks::MergeStreaks(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(studio, viewer, canvas) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, space::small);
    column->setSpacing(space::small);
    auto* top = new QHBoxLayout;
    QPushButton* find = push(tr("Find streaks"), QStringLiteral("streaks_find"),
                             tr("Looks for aircraft, satellites and meteors in every frame. What you drew, pulled or "
                                "left out stays"),
                             this);
    draw_ = push(tr("Draw one"), QStringLiteral("streaks_draw"),
                 tr("Leaves out a streak that was missed: click on its one end, then on the other"), this);
    draw_->setCheckable(true);
    top->addWidget(find);
    top->addWidget(draw_);
    column->addLayout(top);
    connect(find, &QPushButton::clicked, &studio_, &Studio::find_streaks);
    connect(draw_, &QPushButton::clicked, this, [this](bool on) {
        if (on) emit drawing_begun();
        tool_.set_drawing(on);
        if (on) viewer_.set_view(View::frame);
    });
    list_ = new FoundList({QStringLiteral("streaks"), tr("Streaks"),
                           tr("Those with a tick are left out of their frames. Choose one to see it."),
                           tr("Leave out all"), tr("Leaves every streak out of the frame that has it")},
                          this);
    column->addWidget(list_);
    connect(list_, &FoundList::chosen, this, [this](int key) {
        const std::vector<StreakAt> all = all_streaks(studio_.pile());
        if (key < int(all.size())) go_to(all[std::size_t(key)]);
    });
    connect(list_, &FoundList::decided, this, [this](const std::vector<int>& keys, bool leave_out) {
        const std::vector<StreakAt> all = all_streaks(studio_.pile());
        std::vector<StreakAt> meant;
        for (const int key : keys)
            if (key < int(all.size())) meant.push_back(all[std::size_t(key)]);
        decide(meant, leave_out);
    });
    chosen_ = chosen_row();
    column->addWidget(chosen_);
    by_kind_ = quiet_label(tr("Leave out by kind"), this);
    column->addWidget(by_kind_);
    auto* row = new QHBoxLayout;
    row->setSpacing(2);
    for (const StreakKindEntry& entry : streak_kinds()) {
        const QString name = QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()));
        QPushButton* button = push(word(entry.kind), QStringLiteral("streaks_%1").arg(name),
                                   tr("Leaves all of this kind out, or takes them in again"), this);
        button->setCheckable(true);
        row->addWidget(button);
        kinds_[std::size_t(entry.kind)] = button;
        connect(button, &QPushButton::clicked, this,
                [this, kind = entry.kind](bool on) { decide(streaks_of(studio_.pile(), kind), on); });
    }
    column->addLayout(row);
    connect(&tool_, &StreakTool::chosen_on_picture, this, [this] {
        refresh();
        mark();
    });
    connect(&tool_, &StreakTool::drawing_ended, this, [this] { draw_->setChecked(false); });
    connect(&viewer_, &Viewer::view_changed, this, &MergeStreaks::mark);
    connect(&studio_, &Studio::selection_changed, this, &MergeStreaks::mark);
    connect(&studio_.document(), &Document::changed, this, &MergeStreaks::mark);
}

// What can be said of the one that is chosen.
QWidget* MergeStreaks::chosen_row() {
    auto* out = new QWidget(this);
    auto* row = new QHBoxLayout(out);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(space::small);
    kind_ = new QComboBox(out);
    kind_->setObjectName(QStringLiteral("streak_kind"));
    kind_->setAccessibleName(tr("What the streak is"));
    kind_->setToolTip(tr("What it is, in all frames that have a streak of the same thing"));
    for (const StreakKindEntry& entry : streak_kinds()) kind_->addItem(word(entry.kind), int(entry.kind));
    width_ = new QDoubleSpinBox(out);
    width_->setObjectName(QStringLiteral("streak_width"));
    width_->setAccessibleName(tr("Width of the streak"));
    width_->setToolTip(tr("How wide the streak is: its glow goes with it"));
    width_->setRange(1, pile::widest_streak_px);
    width_->setDecimals(1);
    width_->setButtonSymbols(QAbstractSpinBox::NoButtons);
    for (QWidget* narrow : {static_cast<QWidget*>(kind_), static_cast<QWidget*>(width_)})
        narrow->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    width_->setSuffix(tr(" px"));
    width_->setKeyboardTracking(false);
    QPushButton* remove = push(tr("Forget"), QStringLiteral("streak_remove"),
                               tr("It is no streak: takes it in again and off the list"), out);
    row->addWidget(kind_, 3);
    row->addWidget(width_, 2);
    row->addWidget(remove);
    connect(kind_, &QComboBox::activated, this, [this](int) {
        if (const auto at = tool_.chosen())
            studio_.document().edit(with_streak_kind(studio_.pile(), *at, StreakKind(kind_->currentData().toInt())),
                                    tr("Kind of streak"));
    });
    connect(width_, &QDoubleSpinBox::valueChanged, this, [this](double width) {
        const auto at = tool_.chosen();
        if (!at) return;
        Line line = find_streak(studio_.pile(), *at)->line;
        line.width_px = width;
        studio_.document().edit(with_streak_line(studio_.pile(), *at, line), tr("Width of a streak"));
    });
    connect(remove, &QPushButton::clicked, this, [this] {
        const auto at = tool_.chosen();
        if (!at) return;
        tool_.choose(std::nullopt);
        studio_.document().edit(without_streak(studio_.pile(), *at), tr("Forget a streak"));
    });
    return out;
}

void MergeStreaks::go_to(const StreakAt& at) {
    studio_.select(at.frame);
    viewer_.set_view(View::frame);
    tool_.choose(at);
    refresh_chosen();
    mark();
}

void MergeStreaks::put_down() {
    tool_.set_drawing(false);
    draw_->setChecked(false);
}

void MergeStreaks::decide(const std::vector<StreakAt>& streaks, bool leave_out) {
    studio_.document().edit(with_streaks_left_out(studio_.pile(), streaks, leave_out),
                            leave_out ? tr("Leave out %n streak(s)", nullptr, int(streaks.size()))
                                      : tr("Take in %n streak(s)", nullptr, int(streaks.size())));
    refresh();
}

void MergeStreaks::refresh() {
    const Pile& pile = studio_.pile();
    const std::vector<StreakAt> streaks = all_streaks(pile);
    const std::optional<StreakAt> chosen = tool_.chosen();
    std::vector<FoundThing> things;
    std::array<int, 3> all{}, out{};
    for (std::size_t i = 0; i < streaks.size(); ++i) {
        const FrameStreak& s = *find_streak(pile, streaks[i]);
        ++all[std::size_t(s.kind)];
        out[std::size_t(s.kind)] += s.left_out ? 1 : 0;
        const int number = number_of(pile, streaks[i].frame);
        things.push_back({int(i),
                          s.by_hand ? tr("%1: %2, by hand").arg(number).arg(within_sentence(word(s.kind)))
                                    : tr("%1: %2, %3% sure")
                                          .arg(number)
                                          .arg(within_sentence(word(s.kind)))
                                          .arg(std::lround(100 * s.line.confidence)),
                          s.left_out ? tr("Left out of this frame. Take the tick away to take it in again.")
                                     : tr("Tick it to leave it out of this frame."),
                          s.left_out, streaks[i] == chosen});
    }
    list_->set_things(things, things.empty() ? QString() : tr("Streaks"));
    for (std::size_t k = 0; k < kinds_.size(); ++k) {
        kinds_[k]->setVisible(all[k] > 0);
        kinds_[k]->setChecked(all[k] > 0 && out[k] == all[k]);
    }
    by_kind_->setVisible(!streaks.empty());
    refresh_chosen();
}

void MergeStreaks::refresh_chosen() {
    const std::optional<StreakAt> at = tool_.chosen();
    chosen_->setVisible(at.has_value());
    if (!at) return;
    const FrameStreak& streak = *find_streak(studio_.pile(), *at);
    const QSignalBlocker quiet(width_);
    kind_->setCurrentIndex(kind_->findData(int(streak.kind)));
    width_->setValue(streak.line.width_px);
}

void MergeStreaks::show_marks(bool on) {
    marks_ = on;
    mark();
}

void MergeStreaks::mark() {
    std::vector<MarkedLine> lines;
    const Pile& pile = studio_.pile();
    const bool seen = viewer_.view() == View::frame || viewer_.view() == View::result;
    for (const StreakAt& at : all_streaks(pile)) {
        const Frame& frame = *find_frame(pile, at.frame);
        const FrameStreak& s = *find_streak(pile, at);
        if (!marks_ || !seen || (viewer_.view() == View::frame && at.frame != studio_.current())) continue;
        // On the result those that give to it.
        if (viewer_.view() == View::result && (!merged(pile, frame) || s.left_out)) continue;
        const Placement place = placement(pile, frame, studio_.zone());
        const Point a = place.to_canvas(s.line.from), b = place.to_canvas(s.line.to);
        const bool strong = viewer_.view() == View::result ? at.frame == studio_.current() : at == tool_.chosen();
        lines.push_back({{a.x, a.y}, {b.x, b.y}, band_of(s.line).width, style_of(s.kind), strong});
    }
    canvas_.set_marked(std::move(lines));
}

}  // namespace bp::app
