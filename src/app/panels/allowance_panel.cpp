#include "app/panels/allowance_panel.h"

#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int beat_ms = 500;
constexpr int steps = 100;

// Sliders run over amounts of very different sizes, so their steps grow with the amount.
double amount_at(int step, double least, double most) {
    return least * std::pow(most / least, double(step) / steps);
}
int step_of(double amount, double least, double most) {
    if (amount <= least || most <= least) return 0;
    return std::clamp(int(std::lround(steps * std::log(amount / least) / std::log(most / least))), 0, steps);
}

}  // namespace

AllowancePanel::AllowancePanel(Studio& studio, QWidget* parent) : QWidget(parent), studio_(studio) {
    setObjectName(QStringLiteral("room_panel"));
    setAccessibleName(tr("Room"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::medium);
    const AllowanceLimits limits = Stores::limits();
    memory_ = new NamedSlider(
        tr("Memory"), tr("How much memory looking, merging and exporting may take. More keeps more frames at hand."), 0,
        steps,
        [limits](int step) {
            return bytes_in_words(amount_at(step, double(limits.least_memory), double(limits.most_memory)));
        },
        this);
    memory_->slider()->setObjectName(QStringLiteral("room_memory"));
    scratch_ = new NamedSlider(
        tr("Working files"),
        tr("How much disk frames at full size may take, so that going back to a place is instant. They vanish when the "
           "program ends."),
        0, steps,
        [limits](int step) {
            return bytes_in_words(amount_at(step, double(limits.least_scratch), double(limits.most_scratch)));
        },
        this);
    scratch_->slider()->setObjectName(QStringLiteral("room_scratch"));
    used_ = quiet_label({}, this);
    used_->setObjectName(QStringLiteral("room_used"));
    column->addWidget(memory_);
    column->addWidget(scratch_);
    column->addWidget(used_);
    connect(memory_, &NamedSlider::settled, this, [this, limits](int step) {
        Allowance allowance = studio_.stores().allowance();
        allowance.memory_bytes = std::size_t(amount_at(step, double(limits.least_memory), double(limits.most_memory)));
        studio_.stores().set_allowance(allowance);
        refresh();
    });
    connect(scratch_, &NamedSlider::settled, this, [this, limits](int step) {
        Allowance allowance = studio_.stores().allowance();
        allowance.scratch_bytes =
            std::uint64_t(amount_at(step, double(limits.least_scratch), double(limits.most_scratch)));
        studio_.stores().set_allowance(allowance);
        refresh();
    });
    connect(&beat_, &QTimer::timeout, this, &AllowancePanel::refresh);
    const Allowance& allowance = studio_.stores().allowance();
    memory_->set_value(
        step_of(double(allowance.memory_bytes), double(limits.least_memory), double(limits.most_memory)));
    scratch_->set_value(
        step_of(double(allowance.scratch_bytes), double(limits.least_scratch), double(limits.most_scratch)));
    refresh();
    beat_.start(beat_ms);
}

void AllowancePanel::refresh() {
    used_->setText(tr("Kept now:\n%1 of frames in memory\n%2 of working files\n%3 to open piles again sooner")
                       .arg(bytes_in_words(double(studio_.stores().frames()->bytes())))
                       .arg(bytes_in_words(double(studio_.stores().scratch()->used())))
                       .arg(bytes_in_words(double(studio_.stores().derived().used()))));
}

}  // namespace bp::app
