#include "app/panels/clip_dialog.h"

#include <QFileInfo>
#include <QFormLayout>
#include <QHBoxLayout>
#include <algorithm>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"

namespace bp::app {
namespace {

constexpr int dialog_width = 360;
constexpr int many = 1000;

QDoubleSpinBox* number(const QString& name, const QString& words, double low, double high, double value,
                       const QString& unit, QWidget* parent) {
    auto* box = new QDoubleSpinBox(parent);
    box->setObjectName(name);
    box->setAccessibleName(words);
    box->setDecimals(2);
    box->setRange(low, high);
    box->setValue(value);
    box->setSuffix(unit);
    return box;
}

}  // namespace

ClipDialog::ClipDialog(const QString& clip, const ClipFacts& facts, QWidget* parent)
    : QDialog(parent), clip_(clip), facts_(facts) {
    setObjectName(QStringLiteral("clip_dialog"));
    setWindowTitle(tr("Frames of %1").arg(QFileInfo(clip).fileName()));
    setFixedWidth(dialog_width);
    const double length = double(facts.frames) / facts.rate;
    auto* column = new QVBoxLayout(this);
    column->setSpacing(space::medium);
    column->addWidget(quiet_label(tr("%1 x %2 px, %3 s, %4 frames a second")
                                      .arg(facts.size.width)
                                      .arg(facts.size.height)
                                      .arg(number_in_words(length, 1))
                                      .arg(figures_in_words(facts.rate, 4)),
                                  this));
    from_ = number(QStringLiteral("clip_from"), tr("From"), 0, length, 0, tr(" s"), this);
    to_ = number(QStringLiteral("clip_to"), tr("To"), 0, length, length, tr(" s"), this);
    rate_ = number(QStringLiteral("clip_rate"), tr("Frames a second"), 0.01, facts.rate, std::min(facts.rate, 2.0),
                   tr(" a second"), this);
    auto* form = new QFormLayout;
    form->addRow(tr("From"), from_);
    form->addRow(tr("To"), to_);
    form->addRow(tr("Take"), rate_);
    column->addLayout(form);
    count_ = quiet_label({}, this);
    count_->setObjectName(QStringLiteral("clip_count"));
    column->addWidget(count_);
    auto* row = new QHBoxLayout;
    auto* leave = push(tr("Leave it"), QStringLiteral("clip_leave"), tr("Adds nothing"), this);
    take_ = lamp_push(tr("Take frames"), QStringLiteral("clip_take"), tr("Adds these frames to the pile"), this);
    take_->setDefault(true);
    row->addStretch();
    row->addWidget(leave);
    row->addWidget(take_);
    column->addLayout(row);
    for (QDoubleSpinBox* box : {from_, to_, rate_})
        connect(box, &QDoubleSpinBox::valueChanged, this, &ClipDialog::refresh);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, &QDialog::accept);
    refresh();
}

std::vector<long> ClipDialog::numbers() const {
    return pick_frames(facts_, from_->value(), to_->value(), rate_->value());
}

QStringList ClipDialog::names() const {
    QStringList out;
    for (const long n : numbers()) out << QString::fromStdString(name_of_clip_frame({clip_.toStdString(), n}).string());
    return out;
}

void ClipDialog::refresh() {
    const auto count = int(numbers().size());
    count_->setText(count > many ? tr("%1 frames: that is a lot. Take fewer a second?").arg(count)
                                 : tr("%1 frames").arg(count));
    take_->setEnabled(count > 0);
}

}  // namespace bp::app
