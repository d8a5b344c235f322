#include "app/job_bar.h"

#include <QHBoxLayout>
#include <QStyle>

#include "app/theme.h"
#include "app/words.h"

namespace bp::app {
namespace {

constexpr int beat_ms = 100;
constexpr int beats_before_shown = 3;
constexpr int message_ms = 9000;

void set_trouble(QLabel* label, bool trouble) {
    label->setProperty("trouble", trouble);
    label->style()->unpolish(label);
    label->style()->polish(label);
}

}  // namespace

JobBar::JobBar(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("job_bar"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(space::medium, 2, space::medium, 2);
    row->setSpacing(space::medium);
    words_ = new QLabel(this);
    words_->setObjectName(QStringLiteral("job_words"));
    words_->setAccessibleName(tr("What is going on"));
    bar_ = new QProgressBar(this);
    bar_->setRange(0, 1000);
    bar_->setTextVisible(false);
    bar_->setFixedSize(220, 4);
    bar_->setAccessibleName(tr("Progress"));
    stop_ = new QPushButton(tr("Stop"), this);
    stop_->setObjectName(QStringLiteral("stop"));
    stop_->setToolTip(tr("Stops this work; what was there before stays"));
    row->addWidget(words_, 1);
    row->addWidget(bar_);
    row->addWidget(stop_);
    setFixedHeight(34);
    bar_->hide();
    stop_->hide();
    hide();
    connect(stop_, &QPushButton::clicked, this, [this] {
        if (!shown_) return;
        shown_->stop();
        say(tr("Stopped."), false);
    });
    connect(&clock_, &QTimer::timeout, this, &JobBar::refresh);
    message_time_.setSingleShot(true);
    connect(&message_time_, &QTimer::timeout, this, &JobBar::refresh);
}

void JobBar::watch(Lane& lane) {
    lanes_.push_back(&lane);
    connect(&lane, &Lane::busy_changed, this, [this] {
        if (!clock_.isActive()) {
            patience_ = 0;
            clock_.start(beat_ms);
        }
    });
}

void JobBar::say(const QString& text, bool trouble) {
    words_->setText(text);
    words_->setToolTip(text);
    set_trouble(words_, trouble);
    message_time_.start(message_ms);
    show();
}

void JobBar::refresh() {
    shown_ = nullptr;
    for (Lane* lane : lanes_)
        if (lane->busy() && !shown_) shown_ = lane;
    if (!shown_) {
        clock_.stop();
        bar_->hide();
        stop_->hide();
        if (!message_time_.isActive()) hide();
        return;
    }
    if (++patience_ < beats_before_shown) return;
    const Progress p = shown_->progress();
    QString text = QString::fromStdString(p.what);
    if (p.seconds_left > 1) text += tr("   about %1 left").arg(duration_in_words(p.seconds_left));
    words_->setText(text);
    set_trouble(words_, false);
    bar_->setValue(int(p.fraction * 1000));
    bar_->show();
    stop_->show();
    show();
}

}  // namespace bp::app
