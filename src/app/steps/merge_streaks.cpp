#include "app/steps/merge_streaks.h"

#include <QHBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/moving_lights.h"

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
    : QWidget(parent), studio_(studio), viewer_(viewer), canvas_(canvas) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, space::small);
    column->setSpacing(space::small);
    QPushButton* find = push(tr("Find streaks"), QStringLiteral("streaks_find"),
                             tr("Looks for aircraft, satellites and meteors in every frame"), this);
    column->addWidget(find);
    connect(find, &QPushButton::clicked, &studio_, &Studio::find_streaks);
    list_ = new FoundList({QStringLiteral("streaks"), tr("Streaks"),
                           tr("Those with a tick are left out of their frames. Choose one to see it."),
                           tr("Leave out all"), tr("Leaves every streak out of the frame that has it")},
                          this);
    column->addWidget(list_);
    connect(list_, &FoundList::chosen, this, [this](int key) {
        if (key >= int(studio_.streaks().size())) return;
        studio_.select(studio_.streaks()[std::size_t(key)].frame);
        viewer_.set_view(View::frame);
    });
    connect(list_, &FoundList::decided, this, &MergeStreaks::decide);
    auto* row = new QHBoxLayout;
    row->setSpacing(2);
    for (const StreakKindEntry& entry : streak_kinds()) {
        const QString name = QString::fromUtf8(entry.name.data(), qsizetype(entry.name.size()));
        QPushButton* button = push(word(entry.kind), QStringLiteral("streaks_%1").arg(name),
                                   tr("Leaves all of this kind out, or takes them in again"), this);
        button->setCheckable(true);
        row->addWidget(button);
        kinds_[std::size_t(entry.kind)] = button;
        connect(button, &QPushButton::clicked, this, [this, kind = entry.kind](bool on) {
            std::vector<int> keys;
            for (std::size_t i = 0; i < studio_.streaks().size(); ++i)
                if (studio_.streaks()[i].kind == kind) keys.push_back(int(i));
            decide(keys, on);
        });
    }
    column->addLayout(row);
    connect(&viewer_, &Viewer::view_changed, this, &MergeStreaks::mark);
    connect(&studio_, &Studio::selection_changed, this, &MergeStreaks::mark);
    connect(&studio_, &Studio::streaks_found, this, &MergeStreaks::mark);
    connect(&studio_.document(), &Document::changed, this, &MergeStreaks::mark);
}

void MergeStreaks::decide(const std::vector<int>& keys, bool leave_out) {
    std::vector<Streak> streaks;
    for (const int key : keys)
        if (key < int(studio_.streaks().size())) streaks.push_back(studio_.streaks()[std::size_t(key)]);
    studio_.document().edit(with_streaks_left_out(studio_.pile(), streaks, leave_out),
                            leave_out ? tr("Leave out %n streak(s)", nullptr, int(streaks.size()))
                                      : tr("Take in %n streak(s)", nullptr, int(streaks.size())));
    refresh();
}

void MergeStreaks::refresh() {
    const Pile& pile = studio_.pile();
    const std::vector<Streak>& streaks = studio_.streaks();
    std::vector<FoundThing> things;
    std::array<int, 3> all{}, out{};
    for (std::size_t i = 0; i < streaks.size(); ++i) {
        const Streak& s = streaks[i];
        const bool left_out = is_left_out(pile, s);
        ++all[std::size_t(s.kind)];
        out[std::size_t(s.kind)] += left_out ? 1 : 0;
        things.push_back({int(i),
                          tr("%1: %2, %3% sure")
                              .arg(number_of(pile, s.frame))
                              .arg(word(s.kind).toLower())
                              .arg(std::lround(100 * s.line.confidence)),
                          left_out ? tr("Left out of this frame. Take the tick away to take it in again.")
                                   : tr("Tick it to leave it out of this frame."),
                          left_out, false});
    }
    list_->set_things(things, things.empty() ? QString() : tr("Streaks"));
    for (std::size_t k = 0; k < kinds_.size(); ++k) {
        kinds_[k]->setVisible(all[k] > 0);
        kinds_[k]->setChecked(all[k] > 0 && out[k] == all[k]);
    }
}

void MergeStreaks::show_marks(bool on) {
    marks_ = on;
    mark();
}

void MergeStreaks::mark() {
    std::vector<MarkedLine> lines;
    const Pile& pile = studio_.pile();
    const bool seen = viewer_.view() == View::frame || viewer_.view() == View::result;
    for (const Streak& s : studio_.streaks()) {
        const Frame* frame = find_frame(pile, s.frame);
        if (!marks_ || !seen || !frame || (viewer_.view() == View::frame && s.frame != studio_.current())) continue;
        // On the result those that give to it.
        if (viewer_.view() == View::result && (!merged(pile, *frame) || is_left_out(pile, s))) continue;
        const Placement place = placement(pile, *frame, studio_.zone());
        const Point a = place.to_canvas(s.line.from), b = place.to_canvas(s.line.to);
        lines.push_back({{a.x, a.y}, {b.x, b.y}, band_of(s).width, style_of(s.kind), s.frame == studio_.current()});
    }
    canvas_.set_marked(std::move(lines));
}

}  // namespace bp::app
