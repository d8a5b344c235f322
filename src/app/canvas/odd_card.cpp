#include "app/canvas/odd_card.h"

#include <QEvent>
#include <QHBoxLayout>
#include <algorithm>
#include <array>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/work/studio.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr int widest = 560;

struct Told {
    OddState state;
    const char* words;
    const char* button;
    const char* tip;
};

constexpr std::array table{
    Told{OddState::unreadable,
         QT_TRANSLATE_NOOP("bp::app::OddCard", "None of these frames can be read. The rail says of each why."),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Open others"),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Opens frames or a pile")},
    Told{OddState::only_darks, QT_TRANSLATE_NOOP("bp::app::OddCard", "All frames are darks, and none shows the scene."),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "They show the scene"),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Gives all frames the role Scene, so that they are merged")},
    Told{OddState::all_aside, QT_TRANSLATE_NOOP("bp::app::OddCard", "All frames are set aside: none is left to merge."),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Take all back"),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Merges all frames of the scene again")},
    Told{OddState::unaligned,
         QT_TRANSLATE_NOOP("bp::app::OddCard", "No other frame came to lie on the reference, so that it stands alone."),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Leave them as shot"),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Merges the frames where they were taken, not aligned")},
    Told{OddState::no_cover,
         QT_TRANSLATE_NOOP("bp::app::OddCard",
                           "The frames have no area in common to crop to. All that any reaches is shown."),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Do not crop"),
         QT_TRANSLATE_NOOP("bp::app::OddCard", "Shows and exports all that any frame reaches")}};

}  // namespace

OddCard::OddCard(Studio& studio, Viewer& viewer, QWidget* canvas)
    : QFrame(canvas), studio_(studio), viewer_(viewer), words_(new QLabel(this)), mend_(push({}, {}, {}, this)) {
    setObjectName(QStringLiteral("odd_card"));
    words_->setObjectName(QStringLiteral("odd_words"));
    words_->setWordWrap(true);
    mend_->setObjectName(QStringLiteral("odd_mend"));
    mend_->setText(tr(table.front().button));  // Aids look at what is hidden, too.
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(space::medium, space::small, space::medium, space::small);
    row->setSpacing(space::medium);
    row->addWidget(words_, 1);
    row->addWidget(mend_);
    canvas->installEventFilter(this);
    connect(mend_, &QPushButton::clicked, this, &OddCard::mend);
    connect(&studio.document(), &Document::changed, this, &OddCard::refresh);
    connect(&viewer, &Viewer::view_changed, this, &OddCard::refresh);
    refresh();
}

void OddCard::refresh() {
    state_ = studio_.document().open() ? odd_state(studio_.pile()) : OddState::none;
    const auto* told = std::find_if(table.begin(), table.end(), [this](const Told& t) { return t.state == state_; });
    if (told == table.end() || viewer_.view() == View::frame) {
        hide();
        return;
    }
    words_->setText(tr(told->words));
    mend_->setText(tr(told->button));
    mend_->setToolTip(tr(told->tip));
    mend_->setAccessibleName(mend_->text());
    mend_->setAccessibleDescription(words_->text());
    lay_out();
    show();
    raise();
}

void OddCard::mend() {
    Pile next = studio_.pile();
    std::vector<int> all;
    for (const Frame& frame : next.frames) all.push_back(frame.id);
    switch (state_) {
        case OddState::none:
            return;
        case OddState::unreadable:
            emit frames_wanted();
            return;
        case OddState::only_darks:
            studio_.document().edit(with_role(std::move(next), all, Role::scene), tr("All frames show the scene"));
            return;
        case OddState::all_aside:
            studio_.document().edit(with_aside(std::move(next), all, false), tr("Take all back"));
            return;
        case OddState::unaligned:
            studio_.document().edit(with_alignments(next, Model::none, next.reference, {}), tr("Align: none"));
            return;
        case OddState::no_cover:
            next.cover = Cover::any;
            studio_.document().edit(std::move(next), tr("Do not crop"));
            return;
    }
}

bool OddCard::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Resize) lay_out();
    return QFrame::eventFilter(watched, event);
}

void OddCard::lay_out() {
    const QWidget* canvas = parentWidget();
    const int width = std::min(widest, canvas->width() - 2 * space::large);
    const int height = std::max(layout()->heightForWidth(width), layout()->minimumSize().height());
    setGeometry((canvas->width() - width) / 2, canvas->height() - height - 3 * space::large, width, height);
}

}  // namespace bp::app
