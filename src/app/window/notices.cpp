#include "app/window/notices.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QStyle>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int beat_ms = 100;
constexpr qint64 patience_ms = 300;  // before work is shown
constexpr qint64 reading_ms = 6000;  // for a sentence
constexpr std::size_t most_sentences = 4;
constexpr int widest = 620;
const auto sentence_name = QStringLiteral("sentence");
constexpr int of_work = 560;  // where there are no sentences: it covers less of the picture

}  // namespace

// Words and a button that takes them away. It goes by itself after a while, but not under the pointer.
class Notices::Sentence : public QWidget {
  public:
    Sentence(const QString& text, bool trouble, QWidget* parent) : QWidget(parent), words_(new QLabel) {
        // Known for what it is before anything of it is told.
        words_->setObjectName(sentence_name);
        words_->setTextFormat(Qt::PlainText);
        words_->setText(text);
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(0, 0, 0, 0);
        words_->setWordWrap(true);
        words_->setProperty("trouble", trouble);
        words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
        words_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
        read_ = push(QStringLiteral("\u2715"), QStringLiteral("sentence_read"), Notices::tr("Takes this sentence away"),
                     this);
        read_->setAccessibleName(Notices::tr("Take this sentence away"));
        read_->setProperty("flat", true);
        row->addWidget(words_, 1);
        row->addWidget(read_, 0, Qt::AlignTop);
        since_.start();
    }
    QPushButton* button() const { return read_; }
    QString text() const { return words_->text(); }
    QLabel* words() const { return words_; }
    void say_again() { since_.start(); }
    bool over() const { return since_.elapsed() > reading_ms && !underMouse(); }

  private:
    QLabel* words_;
    QPushButton* read_;
    QElapsedTimer since_;
};

// What a lane does, how far it is, how long it will take, and a button to stop it.
class Notices::Work : public QWidget {
  public:
    Work(Lane& lane, QWidget* parent) : QWidget(parent), lane_(lane) {
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(0, 0, 0, 0);
        row->setSpacing(space::medium);
        words_ = new QLabel(this);
        words_->setObjectName(QStringLiteral("job_words"));
        words_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
        bar_ = new QProgressBar(this);
        bar_->setObjectName(QStringLiteral("job_progress"));
        bar_->setRange(0, full);
        bar_->setTextVisible(false);
        bar_->setFixedSize(160, 4);
        bar_->setAccessibleName(Notices::tr("Progress"));
        stop_ = push(Notices::tr("Stop"), QStringLiteral("stop"),
                     Notices::tr("Stops this work; what was there before stays"), this);
        row->addWidget(words_, 1);
        row->addWidget(bar_);
        row->addWidget(stop_);
        hide();
        connect(stop_, &QPushButton::clicked, this, [this] { lane_.stop(); });
    }
    // True when it came or went.
    bool refresh() {
        if (!lane_.busy()) {
            since_.invalidate();
            const bool was_seen = isVisibleTo(parentWidget());
            hide();
            return was_seen;
        }
        if (!since_.isValid()) since_.start();
        if (since_.elapsed() < patience_ms) return false;
        const Progress p = lane_.progress();
        QString text = said(p.what);
        if (text.isEmpty()) text = lane_.name();
        if (p.seconds_left > 1) text += Notices::tr("   about %1 left").arg(duration_in_words(p.seconds_left));
        if (lane_.waiting() > 0) text += Notices::tr("   %n more", nullptr, lane_.waiting());
        words_->setText(words_->fontMetrics().elidedText(text, Qt::ElideMiddle, std::max(80, words_->width())));
        words_->setToolTip(text);
        bar_->setValue(int(p.fraction * full));
        const bool comes = !isVisibleTo(parentWidget());
        show();
        return comes;
    }
    bool busy() const { return lane_.busy(); }

  private:
    static constexpr int full = 1000;
    Lane& lane_;
    QLabel* words_;
    QProgressBar* bar_;
    QPushButton* stop_;
    QElapsedTimer since_;
};

Notices::Notices(QWidget* ground) : QFrame(ground), column_(new QVBoxLayout(this)) {
    setObjectName(QStringLiteral("notices"));
    setAccessibleName(tr("What the program says"));
    column_->setContentsMargins(space::medium, space::small, space::small, space::small);
    column_->setSpacing(space::hair);
    hide();
    ground->installEventFilter(this);
    connect(&clock_, &QTimer::timeout, this, &Notices::tick);
}

void Notices::keep_below(int top) {
    top_ = top;
    lay_out();
}

void Notices::watch(Lane& lane) {
    auto* work = new Work(lane, this);
    work_.push_back(work);
    column_->addWidget(work);
    connect(&lane, &Lane::busy_changed, this, [this] {
        if (!clock_.isActive()) clock_.start(beat_ms);
    });
}

void Notices::say(const QString& text, bool trouble) {
    const auto same =
        std::find_if(sentences_.begin(), sentences_.end(), [&](Sentence* s) { return s->text() == text; });
    if (same != sentences_.end()) {
        (*same)->say_again();
        return;
    }
    if (sentences_.size() == most_sentences) {
        sentences_.front()->deleteLater();
        sentences_.front()->hide();
        sentences_.pop_front();
    }
    auto* sentence = new Sentence(text, trouble, this);
    sentences_.push_back(sentence);
    column_->insertWidget(int(sentences_.size()) - 1, sentence);
    connect(sentence->button(), &QPushButton::clicked, this, [this, sentence] {
        std::erase(sentences_, sentence);
        sentence->hide();
        sentence->deleteLater();
        lay_out();
    });
    sentence->show();
    clock_.start(beat_ms);
    lay_out();
}

bool Notices::is_sentence(const QLabel& words) {
    return words.objectName() == sentence_name;
}

QStringList Notices::sentences() const {
    QStringList out;
    for (const Sentence* sentence : sentences_) out << sentence->text();
    return out;
}

void Notices::tick() {
    bool moved = false;
    for (Work* work : work_) moved = work->refresh() || moved;
    while (!sentences_.empty() && sentences_.front()->over()) {
        sentences_.front()->hide();
        sentences_.front()->deleteLater();
        sentences_.pop_front();
        moved = true;
    }
    if (moved) {
        lay_out();
        // Words are cut to the room that there is now.
        for (Work* work : work_) work->refresh();
    }
    const bool working = std::any_of(work_.begin(), work_.end(), [](const Work* w) { return w->busy(); });
    if (!working && sentences_.empty()) clock_.stop();
}

void Notices::lay_out() {
    const bool anything = !sentences_.empty() || std::any_of(work_.begin(), work_.end(),
                                                             [this](const Work* w) { return w->isVisibleTo(this); });
    setVisible(anything);
    if (!anything) return;
    const int width = std::min(sentences_.empty() ? of_work : widest, parentWidget()->width() - 2 * space::large);
    column_->activate();
    resize(width, std::max(sizeHint().height(), column_->heightForWidth(width)));
    move((parentWidget()->width() - width) / 2, top_ + space::small);
    raise();
}

bool Notices::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::Resize) lay_out();
    return QFrame::eventFilter(watched, event);
}

}  // namespace bp::app
