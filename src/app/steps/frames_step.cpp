#include "app/steps/frames_step.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>

#include "app/controls.h"
#include "app/theme.h"
#include "app/words.h"
#include "pile/edits.h"

namespace bp::app {

FramesStep::FramesStep(Studio& studio) : studio_(studio) {
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    auto* row = new QHBoxLayout;
    aside_ = push(tr("Set aside"), QStringLiteral("set_aside"),
                  tr("Leaves the selected frames out of the picture without forgetting them (A)"), this);
    row->addWidget(aside_);
    auto* more = push(tr("Add frames…"), QStringLiteral("add_frames"), tr("Adds files to this pile"), this);
    row->addWidget(more);
    column()->addLayout(row);
    auto* role_row = new QHBoxLayout;
    auto* label = new QLabel(tr("Role"), this);
    role_ = new QComboBox(this);
    role_->setObjectName(QStringLiteral("role"));
    role_->setAccessibleName(tr("Role of the selected frames"));
    role_->setToolTip(tr("Scene frames are merged. A foreground is for parts. A dark was taken with the lens cap on."));
    for (const Role role : {Role::scene, Role::foreground, Role::dark}) role_->addItem(word(role), int(role));
    label->setBuddy(role_);
    role_row->addWidget(label);
    role_row->addWidget(role_, 1);
    column()->addLayout(role_row);
    problems_ = new QLabel(this);
    problems_->setProperty("trouble", true);
    problems_->setWordWrap(true);
    column()->addWidget(problems_);
    find_ = push(tr("Look in folder…"), QStringLiteral("look_in"),
                 tr("Finds missing or changed frames in another folder"), this);
    column()->addWidget(find_);

    connect(aside_, &QPushButton::clicked, this, [this] { studio_.toggle_aside(); });
    connect(more, &QPushButton::clicked, this, [this] {
        studio_.add(QFileDialog::getOpenFileNames(window(), tr("Add frames"), {},
                                                  tr("Pictures (*.jpg *.jpeg *.png *.tif *.tiff)")));
    });
    connect(role_, &QComboBox::activated, this, [this](int index) {
        const Role role = Role(role_->itemData(index).toInt());
        studio_.document().edit(with_role(studio_.pile(), studio_.selected(), role),
                                tr("Role: %1").arg(word(role).toLower()));
    });
    connect(find_, &QPushButton::clicked, this, [this] {
        const QString folder = QFileDialog::getExistingDirectory(window(), tr("Folder with the missing frames"));
        if (!folder.isEmpty()) studio_.look_in(folder);
    });
    connect(&studio.document(), &Document::changed, this, &FramesStep::refresh);
    connect(&studio, &Studio::selection_changed, this, &FramesStep::refresh);
    refresh();
}

QString FramesStep::summary() const {
    return frames_in_words(studio_.pile());
}

bool FramesStep::needs_look() const {
    const auto& frames = studio_.pile().frames;
    return std::any_of(frames.begin(), frames.end(), [](const Frame& f) { return !usable(f); });
}

void FramesStep::refresh() {
    const Pile& pile = studio_.pile();
    QStringList lines{tr("%1 x %2 px").arg(pile.size.width).arg(pile.size.height)};
    double exposure = 0;
    for (const Frame& frame : pile.frames)
        if (merged(pile, frame)) exposure += frame.file->capture.exposure_s.value_or(0);
    if (exposure >= 1) lines << tr("%1 of light in the picture").arg(duration_in_words(exposure));
    facts_->setText(lines.join(QLatin1Char('\n')));
    const Frame* current = find_frame(pile, studio_.current());
    const auto count = int(studio_.selected().size());
    aside_->setText(current && current->aside ? tr("Take back") : tr("Set aside"));
    aside_->setEnabled(count > 0);
    role_->setEnabled(count > 0);
    if (current) {
        const QSignalBlocker quiet(role_);
        role_->setCurrentIndex(role_->findData(int(current->role)));
    }
    QStringList troubles;
    for (const Frame& frame : pile.frames)
        if (!usable(frame)) troubles << QString::fromStdString(frame.problem);
    constexpr int most_lines = 4;
    if (troubles.size() > most_lines) {
        const auto rest = troubles.size() - most_lines;
        troubles = troubles.mid(0, most_lines);
        troubles << tr("and %1 more").arg(rest);
    }
    problems_->setText(troubles.join(QLatin1Char('\n')));
    problems_->setVisible(!troubles.isEmpty());
    find_->setVisible(!troubles.isEmpty());
    emit summary_changed();
}

}  // namespace bp::app
