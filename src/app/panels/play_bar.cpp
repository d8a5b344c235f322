#include "app/panels/play_bar.h"

#include <QHBoxLayout>
#include <QSignalBlocker>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/work/commands.h"

namespace bp::app {

PlayBar::PlayBar(Studio& studio, Viewer& viewer, QWidget* parent) : QWidget(parent), studio_(studio), viewer_(viewer) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(space::hair);
    play_ = push(tr("Play"), QStringLiteral("play"), tip_of("play"), this);
    play_->setCheckable(true);
    play_->setProperty("low", true);
    rate_ = choice(QStringLiteral("rate"), tr("Frames a second"), tr("How many frames a second, at most"), this);
    rate_->setProperty("low", true);
    for (const int rate : {1, 2, 4, 8, 12, 24}) rate_->addItem(tr("%1 a second").arg(rate), rate);
    rate_->setCurrentIndex(rate_->findData(8));
    row->addWidget(play_);
    row->addWidget(rate_);
    connect(play_, &QPushButton::toggled, this, &PlayBar::set_playing);
    connect(rate_, &QComboBox::currentIndexChanged, this,
            [this] { beat_.setInterval(1000 / rate_->currentData().toInt()); });
    beat_.setInterval(1000 / rate_->currentData().toInt());
    beat_.setTimerType(Qt::PreciseTimer);
    connect(&beat_, &QTimer::timeout, this, &PlayBar::step);
    connect(&studio.document(), &Document::opened, this, [this] { set_playing(false); });
}

void PlayBar::set_playing(bool on) {
    on = on && studio_.pile().frames.size() > 1;
    if (on && viewer_.of_all()) viewer_.set_view(View::frame);
    if (on)
        beat_.start();
    else
        beat_.stop();
    const QSignalBlocker quiet(play_);
    play_->setChecked(on);
    play_->setText(on ? tr("Stop") : tr("Play"));
}

// Frames that are used, round and round. A frame that is not there yet is waited for, so that none is passed over.
void PlayBar::step() {
    if (!viewer_.seen()) return;
    const Pile& pile = studio_.pile();
    const auto count = int(pile.frames.size());
    int number = number_of(pile, studio_.current());
    for (int i = 0; i < count; ++i) {
        number = number % count + 1;
        const Frame& frame = pile.frames[std::size_t(number) - 1];
        if (usable(frame) && !frame.aside && frame.role == Role::scene) {
            studio_.select(frame.id);
            return;
        }
    }
    set_playing(false);
}

}  // namespace bp::app
