#include "app/steps/frames_step.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QMenu>
#include <QSignalBlocker>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/questions.h"
#include "app/rail/rail_traces.h"
#include "app/work/commands.h"
#include "pile/edits.h"
#include "pile/outcomes.h"

namespace bp::app {
namespace {

QString folded(const std::string& text) {
    return QString::fromStdString(text).toCaseFolded();
}

}  // namespace

FramesStep::FramesStep(Studio& studio, Viewer& viewer, Surveyor& surveyor, Arriving& arriving)
    : studio_(studio), viewer_(viewer), surveyor_(surveyor), arriving_(arriving) {
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    build_gathering();
    build_odd();
    build_frame();
    build_run();
    connect(&studio.document(), &Document::changed, this, &FramesStep::out_of_date);
    connect(&studio, &Studio::selection_changed, this, &FramesStep::out_of_date);
    connect(&surveyor, &Surveyor::changed, this, &FramesStep::refresh_odd);
    refresh();
    refresh_odd();
}

void FramesStep::build_gathering() {
    auto* more = push(tr("Add…"), QStringLiteral("add_frames"), tr("Adds frames to this pile"), this);
    auto* menu = new QMenu(more);
    const auto folder = [this](bool inner) {
        const QString name = ask_for_folder(window(), Places::frames, tr("Add a folder"));
        if (!name.isEmpty()) studio_.add({name}, inner);
    };
    menu->addAction(tr("Files…"), this, [this] {
        studio_.add(ask_for_files(window(), Places::frames, tr("Add frames"), pictures_filter()));
    });
    menu->addAction(tr("A folder…"), this, [folder] { folder(false); });
    menu->addAction(tr("A folder and those in it…"), this, [folder] { folder(true); });
    menu->addAction(tr("Frames of a clip…"), this, &FramesStep::clip_wanted);
    menu->addSeparator();
    menu->addAction(tr("Watch a folder…"), this, [this] {
        const QString name = ask_for_folder(window(), Places::frames, tr("Watch a folder"));
        if (!name.isEmpty()) arriving_.watch(name, studio_.pile().outcome);
    });
    menu->addAction(tr("Practice camera…"), this, &FramesStep::camera_wanted);
    more->setMenu(menu);
    column()->addWidget(more);
    build_guess();
    coming_ = new QWidget(this);
    auto* coming_row = new QHBoxLayout(coming_);
    coming_row->setContentsMargins(0, 0, 0, 0);
    coming_words_ = quiet_label({}, coming_);
    coming_words_->setObjectName(QStringLiteral("coming"));
    auto* stop = push(tr("Stop"), QStringLiteral("stop_coming"),
                      tr("No more frames join the pile; those that have come stay"), coming_);
    coming_row->addWidget(coming_words_, 1);
    coming_row->addWidget(stop);
    column()->addWidget(coming_);
    connect(stop, &QPushButton::clicked, &arriving_, &Arriving::stop);
    const auto show = [this] {
        coming_words_->setText(arriving_.words());
        coming_->setVisible(!arriving_.words().isEmpty());
    };
    connect(&arriving_, &Arriving::changed, this, show);
    show();
    problems_ = new QLabel(this);
    problems_->setObjectName(QStringLiteral("problems"));
    problems_->setProperty("trouble", true);
    problems_->setWordWrap(true);
    column()->addWidget(problems_);
    find_ = push(tr("Look in folder…"), QStringLiteral("look_in"),
                 tr("Finds missing or changed frames in another folder"), this);
    column()->addWidget(find_);
    take_ = push(tr("Take changed frames as they are"), QStringLiteral("take_changed"),
                 tr("Uses the files as they are now; masks that were painted for the others stay"), this);
    column()->addWidget(take_);
    connect(take_, &QPushButton::clicked, &studio_, &Studio::take_changed);
    connect(find_, &QPushButton::clicked, this, [this] {
        const QString name = ask_for_folder(window(), Places::frames, tr("Folder with the missing frames"));
        if (!name.isEmpty()) studio_.look_in(name);
    });
}

// What the pile was taken for. One click says that it is so, or what else it is.
void FramesStep::build_guess() {
    guessed_ = new QWidget(this);
    guessed_->setObjectName(QStringLiteral("outcome_guess"));
    auto* rows = new QVBoxLayout(guessed_);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(space::hair);
    guessed_words_ = quiet_label({}, guessed_);
    guessed_words_->setObjectName(QStringLiteral("outcome_guess_words"));
    rows->addWidget(guessed_words_);
    auto* grid = new QGridLayout;
    grid->setSpacing(space::hair);
    for (const OutcomeEntry& entry : outcomes()) {
        const auto n = int(entry.outcome);
        auto* button =
            push(word(entry.outcome), QStringLiteral("outcome_is_%1").arg(n), what_it_does(entry.outcome), guessed_);
        button->setCheckable(true);
        button->setProperty("tab", true);
        grid->addWidget(button, n / 3, n % 3);
        is_[std::size_t(n)] = button;
        connect(button, &QPushButton::clicked, this,
                [this, outcome = entry.outcome] { studio_.choose_outcome(outcome); });
    }
    rows->addLayout(grid);
    column()->addWidget(guessed_);
    const auto show = [this] {
        const auto& guess = studio_.outcome_guess();
        guessed_->setVisible(guess.has_value());
        if (!guess) return;
        const QString exposure = exposure_in_words(guess->exposure_s);
        guessed_words_->setText(guess->step_s > 0
                                    ? tr("Taken for %1, a guess by %n frame(s) of %2, one every %3. It is:", nullptr,
                                         int(studio_.pile().frames.size()))
                                          .arg(word(guess->outcome), exposure, exposure_in_words(guess->step_s))
                                    : tr("Taken for %1, a guess. It is:").arg(word(guess->outcome)));
        for (std::size_t i = 0; i < is_.size(); ++i) is_[i]->setChecked(int(i) == int(guess->outcome));
    };
    connect(&studio_, &Studio::outcome_guessed, this, show);
    show();
}

void FramesStep::build_odd() {
    odd_ = new FoundList({QStringLiteral("odd_frames"), tr("Odd frames"),
                          tr("Frames that differ from those around them, and why. A tick sets one aside. Choose one to "
                             "see it."),
                          tr("Set all aside"), tr("Leaves all odd frames out of the picture without forgetting them")},
                         this);
    column()->addWidget(odd_);
    connect(odd_, &FoundList::chosen, this, [this](int id) {
        studio_.select(id);
        if (viewer_.of_all()) viewer_.set_view(View::frame);
    });
    connect(odd_, &FoundList::decided, this, [this](const std::vector<int>& ids, bool aside) {
        const auto count = int(ids.size());
        studio_.document().edit(
            with_aside(studio_.pile(), ids, aside),
            aside ? tr("Set aside %n odd frame(s)", nullptr, count) : tr("Take back %n odd frame(s)", nullptr, count));
    });
}

void FramesStep::build_frame() {
    column()->addWidget(heading(tr("Selected"), this));
    auto* row = new QHBoxLayout;
    aside_ = push(tr("Set aside"), QStringLiteral("set_aside"), tip_of("aside"), this);
    remove_ = push(tr("Remove"), QStringLiteral("remove_frames"), tip_of("remove"), this);
    row->addWidget(aside_);
    row->addWidget(remove_);
    column()->addLayout(row);
    auto* role_row = new QHBoxLayout;
    auto* label = new QLabel(tr("Role"), this);
    role_ = new QComboBox(this);
    role_->setObjectName(QStringLiteral("role"));
    role_->setFocusPolicy(Qt::TabFocus);
    role_->setAccessibleName(tr("Role of the selected frames"));
    role_->setToolTip(tr("Scene frames are merged. A foreground is for parts. A dark was taken with the lens cap on."));
    for (const Role role : {Role::scene, Role::foreground, Role::dark}) role_->addItem(word(role), int(role));
    label->setBuddy(role_);
    role_row->addWidget(label);
    role_row->addWidget(role_, 1);
    column()->addLayout(role_row);
    guess_ = new QWidget(this);
    auto* guess_row = new QHBoxLayout(guess_);
    guess_row->setContentsMargins(0, 0, 0, 0);
    guess_words_ = quiet_label(tr("This is a guess."), guess_);
    auto* right = push(tr("It is"), QStringLiteral("guess_right"), tr("Keeps the guessed role"), guess_);
    auto* wrong = push(tr("No, scene"), QStringLiteral("guess_wrong"), tr("Makes it a scene frame again"), guess_);
    guess_row->addWidget(guess_words_, 1);
    guess_row->addWidget(right);
    guess_row->addWidget(wrong);
    column()->addWidget(guess_);
    auto* place_row = new QHBoxLayout;
    reference_ = push(tr("Reference"), QStringLiteral("as_reference"),
                      tr("The other frames are measured and aligned against this one"), this);
    base_ = push(tr("Base"), QStringLiteral("as_base"), tr("The mode One frame shows this one"), this);
    for (QPushButton* b : {reference_, base_}) {
        b->setCheckable(true);
        place_row->addWidget(b);
    }
    column()->addLayout(place_row);
    note_ = new QLineEdit(this);
    note_->setObjectName(QStringLiteral("note"));
    note_->setAccessibleName(tr("Note on this frame"));
    note_->setPlaceholderText(tr("Note on this frame"));
    note_->setToolTip(tr("Stays with the frame in the pile; the rail shows a turned corner"));
    column()->addWidget(note_);

    const auto say_role = [this](Role role) {
        studio_.document().edit(with_role(studio_.pile(), studio_.selected(), role),
                                tr("Role: %1").arg(within_sentence(word(role))));
    };
    connect(aside_, &QPushButton::clicked, this, [this] { studio_.toggle_aside(); });
    connect(remove_, &QPushButton::clicked, this, [this] { studio_.remove_selected(); });
    connect(role_, &QComboBox::activated, this,
            [this, say_role](int index) { say_role(Role(role_->itemData(index).toInt())); });
    connect(right, &QPushButton::clicked, this, [this, say_role] {
        if (const Frame* frame = find_frame(studio_.pile(), studio_.current())) say_role(frame->role);
    });
    connect(wrong, &QPushButton::clicked, this, [say_role] { say_role(Role::scene); });
    connect(reference_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_reference(studio_.pile(), studio_.current()), tr("Reference"));
        refresh();
    });
    connect(base_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_base(studio_.pile(), studio_.current()), tr("Base"));
        refresh();
    });
    // Every letter counts at once, so that none is lost; a word is one step.
    connect(note_, &QLineEdit::textEdited, this, &FramesStep::take_note);
}

void FramesStep::build_run() {
    column()->addWidget(heading(tr("The run"), this));
    search_ = new QLineEdit(this);
    search_->setObjectName(QStringLiteral("find_frames"));
    search_->setAccessibleName(tr("Find in names and notes"));
    search_->setPlaceholderText(tr("Find in names and notes"));
    search_->setToolTip(tr("Selects the frames whose name or note holds these words (Enter)"));
    column()->addWidget(search_);
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Keep one in"), this);
    every_ = new QSpinBox(this);
    every_->setObjectName(QStringLiteral("every"));
    every_->setRange(2, 100);
    every_->setAccessibleName(tr("Keep one frame in so many"));
    label->setBuddy(every_);
    thin_ = push(tr("Thin"), QStringLiteral("thin"),
                 tr("Sets aside all but every nth of the selected frames, or of all when one is selected"), this);
    row->addWidget(label);
    row->addWidget(every_);
    row->addWidget(thin_, 1);
    column()->addLayout(row);
    connect(search_, &QLineEdit::returnPressed, this, &FramesStep::find_text);
    connect(thin_, &QPushButton::clicked, this, &FramesStep::thin);
}

QString FramesStep::summary() const {
    const auto odd = surveyor_.odd_ids().size();
    const QString frames = frames_in_words(studio_.pile());
    return odd == 0 ? frames : tr("%1; %2 odd").arg(frames).arg(odd);
}

bool FramesStep::needs_look() const {
    const auto& frames = studio_.pile().frames;
    const std::vector<int> odd = surveyor_.odd_ids();
    return std::any_of(frames.begin(), frames.end(), [&](const Frame& f) {
        return !usable(f) || (!f.aside && std::find(odd.begin(), odd.end(), f.id) != odd.end());
    });
}

void FramesStep::find_text() {
    const QString wanted = search_->text().trimmed().toCaseFolded();
    if (wanted.isEmpty()) return;
    std::vector<int> found;
    for (const Frame& frame : studio_.pile().frames)
        if (folded(frame.note).contains(wanted) || name_of_frame(frame).toCaseFolded().contains(wanted))
            found.push_back(frame.id);
    if (found.empty())
        studio_.say(tr("No name or note holds “%1”.").arg(search_->text()));
    else
        studio_.select_these(std::move(found));
}

void FramesStep::take_note() {
    const int id = studio_.current();
    studio_.document().edit(with_note(studio_.pile(), id, note_->text().toStdString()), tr("Note"),
                            QStringLiteral("note %1").arg(id));
}

void FramesStep::refresh_note(const Frame* current) {
    const QString text = current ? QString::fromStdString(current->note) : QString();
    // Not while it is what is being typed: the cursor would jump.
    if (note_->text() != text) note_->setText(text);
    note_->setEnabled(current != nullptr);
}

void FramesStep::thin() {
    const std::vector<int>& selected = studio_.selected();
    std::vector<int> out;
    int n = 0;
    for (const Frame& frame : studio_.pile().frames) {
        const bool chosen =
            selected.size() <= 1 || std::find(selected.begin(), selected.end(), frame.id) != selected.end();
        if (!chosen || frame.role != Role::scene || !usable(frame) || frame.aside) continue;
        if (n++ % every_->value() != 0) out.push_back(frame.id);
    }
    if (!out.empty())
        studio_.document().edit(with_aside(studio_.pile(), out, true), tr("Keep one in %1").arg(every_->value()));
}

void FramesStep::refresh_role(const Frame* current) {
    role_->setEnabled(current != nullptr);
    guess_->setVisible(current && current->role_from == RoleFrom::guess);
    if (!current) return;
    const QSignalBlocker quiet(role_);
    role_->setCurrentIndex(role_->findData(int(current->role)));
    reference_->setChecked(current->id == studio_.pile().reference);
    base_->setChecked(current->id == studio_.pile().base);
    reference_->setEnabled(shows_something(*current));
    base_->setEnabled(shows_something(*current));
}

void FramesStep::refresh() {
    const Pile& pile = studio_.pile();
    QStringList lines{tr("%1 x %2 px").arg(pile.size.width).arg(pile.size.height)};
    double exposure = 0;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame)) exposure += frame.file->capture.exposure_s.value_or(0);
    if (exposure >= 1) lines << tr("%1 of light in the picture").arg(duration_in_words(exposure));
    facts_->setText(lines.join(QStringLiteral(", ")));
    const Frame* current = find_frame(pile, studio_.current());
    const auto count = int(studio_.selected().size());
    aside_->setText(current && current->aside ? tr("Take back") : tr("Set aside"));
    aside_->setEnabled(count > 0);
    remove_->setEnabled(count > 0 && int(pile.frames.size()) > count);
    refresh_role(current);
    refresh_note(current);
    QStringList troubles;
    for (const Frame& frame : pile.frames)
        if (!usable(frame)) troubles << said(frame.problem);
    constexpr int most_lines = 4;
    if (troubles.size() > most_lines) {
        const auto rest = troubles.size() - most_lines;
        troubles = troubles.mid(0, most_lines);
        troubles << tr("and %1 more").arg(rest);
    }
    problems_->setText(troubles.join(QLatin1Char('\n')));
    problems_->setVisible(!troubles.isEmpty());
    find_->setVisible(!troubles.isEmpty());
    take_->setVisible(std::any_of(pile.frames.begin(), pile.frames.end(), [](const Frame& f) { return f.changed; }));
    refresh_odd();
}

void FramesStep::refresh_odd() {
    const Pile& pile = studio_.pile();
    std::vector<FoundThing> things;
    for (const int id : surveyor_.odd_ids()) {
        const Frame& frame = *find_frame(pile, id);
        const QString words = reasons_in_words(surveyor_.of(id)->marks);
        things.push_back({id, QStringLiteral("%1  %2").arg(number_of(pile, id)).arg(words),
                          tr("%1: %2").arg(name_of_frame(frame), words), frame.aside, id == studio_.current()});
    }
    odd_->set_things(things, things.empty() && !surveyor_.complete() ? tr("Looking at the frames…")
                             : things.empty()                        ? tr("No odd frames")
                             : things.size() == 1                    ? tr("1 odd frame")
                                                                     : tr("%1 odd frames").arg(things.size()));
    emit summary_changed();
}

}  // namespace bp::app
