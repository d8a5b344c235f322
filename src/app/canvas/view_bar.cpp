#include "app/canvas/view_bar.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/work/commands.h"

namespace bp::app {
namespace {

constexpr int bar_height = 38;

QComboBox* choice(const QString& name, const QString& words, const QString& tip, QWidget* parent) {
    auto* box = new QComboBox(parent);
    box->setObjectName(name);
    box->setAccessibleName(words);
    box->setToolTip(tip);
    box->setFocusPolicy(Qt::TabFocus);
    return box;
}

}  // namespace

ViewBar::ViewBar(Studio& studio, Viewer& viewer, Comparison& comparison, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer), comparison_(comparison) {
    setFixedHeight(bar_height);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(space::medium, 0, space::medium, 0);
    row->setSpacing(space::small);
    build_play();
    build_difference();
    row->addStretch();
    build_pair();
    plumb_ = push(tr("Plumb"), QStringLiteral("plumb"), tip_of("plumb"), this);
    plumb_->setCheckable(true);
    row->addWidget(plumb_);
    capture_ = push(tr("Capture data"), QStringLiteral("capture_data"), tip_of("capture"), this);
    capture_->setCheckable(true);
    row->addWidget(capture_);
    connect(&viewer, &Viewer::view_changed, this, &ViewBar::refresh);
    connect(&comparison, &Comparison::changed, this, &ViewBar::refresh);
    connect(&studio.document(), &Document::opened, this, [this] { set_playing(false); });
    refresh();
}

void ViewBar::build_play() {
    play_ = push(tr("Play"), QStringLiteral("play"), tip_of("play"), this);
    play_->setCheckable(true);
    rate_ = choice(QStringLiteral("rate"), tr("Frames a second"), tr("How many frames a second, at most"), this);
    for (const int rate : {1, 2, 4, 8, 12, 24}) rate_->addItem(tr("%1 a second").arg(rate), rate);
    rate_->setCurrentIndex(rate_->findData(8));
    layout()->addWidget(play_);
    layout()->addWidget(rate_);
    connect(play_, &QPushButton::toggled, this, &ViewBar::set_playing);
    connect(rate_, &QComboBox::currentIndexChanged, this,
            [this] { beat_.setInterval(1000 / rate_->currentData().toInt()); });
    beat_.setInterval(1000 / rate_->currentData().toInt());
    beat_.setTimerType(Qt::PreciseTimer);
    connect(&beat_, &QTimer::timeout, this, &ViewBar::step);
}

void ViewBar::build_difference() {
    difference_ = new QWidget(this);
    auto* row = new QHBoxLayout(difference_);
    row->setContentsMargins(space::medium, 0, 0, 0);
    row->setSpacing(space::small);
    against_ = choice(QStringLiteral("against"), tr("Difference against"), tr("What the frame is held against"), this);
    against_->addItem(tr("Against the reference"), int(Against::reference));
    against_->addItem(tr("Against the frame before"), int(Against::before));
    gain_ = choice(QStringLiteral("gain"), tr("Gain of the difference"), tr("How much the difference is strengthened"),
                   this);
    for (const int gain : {1, 2, 4, 8, 16}) gain_->addItem(tr("%1 times").arg(gain), gain);
    gain_->setCurrentIndex(gain_->findData(viewer_.gain()));
    row->addWidget(against_);
    row->addWidget(gain_);
    layout()->addWidget(difference_);
    const auto set = [this] {
        viewer_.set_difference(Against(against_->currentData().toInt()), gain_->currentData().toInt());
    };
    connect(against_, &QComboBox::currentIndexChanged, this, set);
    connect(gain_, &QComboBox::currentIndexChanged, this, set);
}

void ViewBar::build_pair() {
    pair_ = push(tr("Side by side"), QStringLiteral("side_by_side"), tip_of("pair"), this);
    pair_->setCheckable(true);
    second_ = choice(QStringLiteral("second"), tr("On the right"), tr("What stands on the right of the divider"), this);
    second_->addItem(tr("Result"), int(Second::result));
    second_->addItem(tr("Reference"), int(Second::reference));
    second_->addItem(tr("Frame before"), int(Second::before));
    second_->addItem(tr("Held frame"), int(Second::held));
    second_->addItem(tr("Held settings"), int(Second::merge));
    second_->addItem(tr("Before finishing"), int(Second::unfinished));
    hold_ = push(tr("Hold this frame"), QStringLiteral("hold"), tip_of("hold"), this);
    layout()->addWidget(pair_);
    layout()->addWidget(second_);
    layout()->addWidget(hold_);
    swap_ = push(tr("Swap"), QStringLiteral("swap_settings"),
                 tr("The picture takes the held settings of the merge, and its own are held on the right"), this);
    layout()->addWidget(swap_);
    connect(swap_, &QPushButton::clicked, &comparison_, &Comparison::swap_merge);
    connect(pair_, &QPushButton::toggled, &comparison_, &Comparison::set_on);
    connect(second_, &QComboBox::activated, this, [this](int index) {
        const auto second = Second(second_->itemData(index).toInt());
        if (second == Second::held && comparison_.held() == 0)
            comparison_.hold_frame();
        else if (second == Second::merge && !comparison_.holds_merge())
            comparison_.hold_merge();
        else
            comparison_.set_second(second);
    });
    connect(hold_, &QPushButton::clicked, &comparison_, &Comparison::hold);
}

void ViewBar::refresh() {
    difference_->setVisible(viewer_.view() == View::difference);
    const QSignalBlocker pair_quiet(pair_);
    const QSignalBlocker second_quiet(second_);
    pair_->setChecked(comparison_.on());
    second_->setCurrentIndex(second_->findData(int(comparison_.second())));
    second_->setVisible(comparison_.on());
    const bool merge = comparison_.second() == Second::merge;
    hold_->setVisible(comparison_.on());
    hold_->setText(merge ? tr("Hold these settings") : tr("Hold this frame"));
    hold_->setToolTip(merge ? tr("Keeps the settings of the merge on the right, to hold others against them")
                            : tip_of("hold"));
    swap_->setVisible(comparison_.on() && merge);
    make_room();
    updateGeometry();
}

// What is shown takes, but for some.
int ViewBar::width_of(const std::vector<const QWidget*>& without) const {
    const QMargins margins = layout()->contentsMargins();
    int out = margins.left() + margins.right();
    for (int i = 0; i < layout()->count(); ++i) {
        const QWidget* widget = layout()->itemAt(i)->widget();
        if (!widget || std::find(without.begin(), without.end(), widget) != without.end()) continue;
        if (widget->isHidden() && widget != play_ && widget != rate_) continue;
        out += widget->sizeHint().width() + layout()->spacing();
    }
    return out;
}

QSize ViewBar::minimumSizeHint() const {
    return {width_of({play_, rate_}), bar_height};
}

void ViewBar::make_room() {
    rate_->setVisible(width_of({}) <= width());
    play_->setVisible(width_of({rate_}) <= width());
}

void ViewBar::resizeEvent(QResizeEvent*) {
    make_room();
}

void ViewBar::set_playing(bool on) {
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
void ViewBar::step() {
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
