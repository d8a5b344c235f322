#include "app/steps/parts_sequence.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int widest_percent = 300;
constexpr int rarest = 20;

}  // namespace

PartsSequence::PartsSequence(Studio& studio, Viewer& viewer, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer) {
    QPushButton* find = push(tr("Find what moves"), QStringLiteral("subjects_find"),
                             tr("Looks for what moves against the cleared scene, with its shadow and mirror, and shows "
                                "it in as many places as lie apart. What you changed stays"),
                             this);
    column()->addWidget(find);
    connect(find, &QPushButton::clicked, this, [this] {
        viewer_.set_view(View::result);  // where it will be seen
        studio_.find_subjects();
    });
    hint_ = quiet_label(tr("For a subject that crosses the scene: it is shown in as many places as lie apart."), this);
    hint_->setObjectName(QStringLiteral("sequence_hint"));
    column()->addWidget(hint_);
    subjects_ = new FoundList(
        {QStringLiteral("subjects"), tr("Subjects"), tr("Take the tick away to leave a subject out of the picture."),
         tr("Show all"), tr("Every subject shows")},
        this);
    column()->addWidget(subjects_);
    connect(subjects_, &FoundList::decided, this, [this](const std::vector<int>& subjects, bool on) {
        Pile next = studio_.pile();
        for (const int subject : subjects) next = with_subject_on(std::move(next), subject, on);
        studio_.document().edit(std::move(next), on ? tr("Show a subject") : tr("Leave a subject out"));
    });
    build_layout();
    connect(&studio.document(), &Document::changed, this, [this] {
        sequence_.reset();
        out_of_date();
    });
}

void PartsSequence::build_layout() {
    layout_ = new QWidget(this);
    auto* column_of = new QVBoxLayout(layout_);
    column_of->setContentsMargins(0, 0, 0, 0);
    column_of->setSpacing(space::small);
    spacing_ = new NamedSlider(
        tr("Apart"), tr("How far apart the places of a subject lie, in lengths of it: further apart shows fewer"), 0,
        widest_percent, [](int v) { return tr("%1 lengths").arg(number_in_words(v / 100.0, 2)); }, layout_);
    spacing_->slider()->setObjectName(QStringLiteral("sequence_spacing"));
    column_of->addWidget(spacing_);
    auto* row = new QHBoxLayout;
    row->setSpacing(space::small);
    early_ =
        push(tr("Early on top"), QStringLiteral("sequence_early"), tr("Earlier places lie over later ones"), layout_);
    late_ = push(tr("Late on top"), QStringLiteral("sequence_late"), tr("Later places lie over earlier ones"), layout_);
    for (QPushButton* button : {early_, late_}) {
        button->setCheckable(true);
        row->addWidget(button);
        connect(button, &QPushButton::clicked, this, [this, button] {
            studio_.document().edit(with_on_top(studio_.pile(), button == early_ ? OnTop::early : OnTop::late),
                                    button->text());
            refresh();
        });
    }
    column_of->addLayout(row);
    auto* counted = new QHBoxLayout;
    every_ = new QSpinBox(layout_);
    every_->setObjectName(QStringLiteral("sequence_every"));
    every_->setAccessibleName(tr("Show every so many frames"));
    every_->setToolTip(tr("So many frames lie from one place that shows to the next"));
    every_->setRange(1, rarest);
    every_->setPrefix(tr("every "));
    QPushButton* thin =
        push(tr("Show these"), QStringLiteral("sequence_thin"),
             tr("Shows the places of every so many frames, whether they cover each other or not"), layout_);
    counted->addWidget(every_, 1);
    counted->addWidget(thin, 1);
    column_of->addLayout(counted);
    overlaps_ = quiet_label({}, layout_);
    overlaps_->setObjectName(QStringLiteral("sequence_overlaps"));
    column_of->addWidget(overlaps_);
    solve_ = push(tr("Leave the covered out"), QStringLiteral("sequence_solve"),
                  tr("Leaves out what is covered by what lies above it"), layout_);
    column_of->addWidget(solve_);
    cut_ = push(tr("Cut between them"), QStringLiteral("sequence_cut"),
                tr("Lets two places that cover each other part in the middle of where they meet"), layout_);
    column_of->addWidget(cut_);
    column()->addWidget(layout_);
    connect(spacing_, &NamedSlider::changed, this,
            [this](int value) { viewer_.try_out(sequence().spaced(studio_.pile(), value / 100.0)); });
    connect(spacing_, &NamedSlider::settled, this, [this](int value) {
        studio_.document().edit(sequence().spaced(studio_.pile(), value / 100.0), tr("Apart"),
                                QStringLiteral("sequence spacing"));
        viewer_.leave_trial();
    });
    connect(spacing_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
    connect(thin, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_every(studio_.pile(), every_->value()),
                                tr("Every %n frame(s)", nullptr, every_->value()));
    });
    connect(solve_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(sequence().solved(studio_.pile()), tr("Leave the covered out")); });
    connect(cut_, &QPushButton::clicked, this,
            [this] { studio_.document().edit(sequence().cut(studio_.pile()), tr("Cut between them")); });
}

const Sequence& PartsSequence::sequence() {
    if (!sequence_) sequence_.emplace(studio_.pile());
    return *sequence_;
}

void PartsSequence::refresh() {
    const Pile& pile = studio_.pile();
    const std::vector<SubjectOf> found = subjects_of(pile);
    std::vector<FoundThing> things;
    things.reserve(found.size());
    for (const SubjectOf& s : found)
        things.push_back({s.subject, tr("Subject %1: %2 of %3 places").arg(s.subject).arg(s.shown).arg(s.parts),
                          tr("Take the tick away to leave it out of the picture."), s.shown > 0, false});
    subjects_->set_things(things, things.empty() ? QString() : tr("Subjects"));
    layout_->setVisible(!found.empty());
    hint_->setVisible(found.empty());
    if (found.empty()) return;
    spacing_->set_value(int(std::lround(100 * pile.sequence.spacing)));
    early_->setChecked(pile.sequence.on_top == OnTop::early);
    late_->setChecked(pile.sequence.on_top == OnTop::late);
    const auto covered = sequence().overlaps(pile);
    overlaps_->setVisible(!covered.empty());
    solve_->setVisible(!covered.empty());
    cut_->setVisible(!covered.empty());
    if (covered.empty()) return;
    const auto number = [&](int part) { return number_of(pile, find_part(pile, part)->frame); };
    overlaps_->setText(
        tr("%n place(s) cover others, the first that of frame %1 by that of frame %2.", nullptr, int(covered.size()))
            .arg(number(covered.front().first))
            .arg(number(covered.front().second)));
}

}  // namespace bp::app
