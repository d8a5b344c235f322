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

}  // namespace

ViewBar::ViewBar(Viewer& viewer, Comparison& comparison, QWidget* parent)
    : QWidget(parent), viewer_(viewer), comparison_(comparison) {
    setFixedHeight(bar_height);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(space::medium, 0, space::medium, 0);
    row->setSpacing(space::small);
    build_difference();
    row->addStretch();
    build_pair();
    connect(&viewer, &Viewer::view_changed, this, &ViewBar::refresh);
    connect(&comparison, &Comparison::changed, this, &ViewBar::refresh);
    refresh();
}

void ViewBar::build_difference() {
    difference_ = new QWidget(this);
    auto* row = new QHBoxLayout(difference_);
    row->setContentsMargins(0, 0, 0, 0);
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
    second_ = choice(QStringLiteral("second"), tr("On the right"), tr("What stands on the right of the divider"), this);
    second_->addItem(tr("Result"), int(Second::result));
    second_->addItem(tr("Reference"), int(Second::reference));
    second_->addItem(tr("Frame before"), int(Second::before));
    second_->addItem(tr("Held frame"), int(Second::held));
    second_->addItem(tr("Held settings"), int(Second::merge));
    second_->addItem(tr("Before finishing"), int(Second::unfinished));
    hold_ = push(tr("Hold this frame"), QStringLiteral("hold"), tip_of("hold"), this);
    layout()->addWidget(second_);
    layout()->addWidget(hold_);
    swap_ = push(tr("Swap"), QStringLiteral("swap_settings"),
                 tr("The picture takes the held settings of the merge, and its own are held on the right"), this);
    layout()->addWidget(swap_);
    connect(swap_, &QPushButton::clicked, &comparison_, &Comparison::swap_merge);
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
    const QSignalBlocker second_quiet(second_);
    second_->setCurrentIndex(second_->findData(int(comparison_.second())));
    second_->setVisible(comparison_.on());
    const bool merge = comparison_.second() == Second::merge;
    hold_->setVisible(comparison_.on());
    hold_->setText(merge ? tr("Hold these settings") : tr("Hold this frame"));
    hold_->setToolTip(merge ? tr("Keeps the settings of the merge on the right, to hold others against them")
                            : tip_of("hold"));
    swap_->setVisible(comparison_.on() && merge);
    // Without anything to choose the picture has its room.
    setVisible(comparison_.on() || viewer_.view() == View::difference);
}

}  // namespace bp::app
