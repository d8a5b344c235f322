#include "app/panels/growth_dialog.h"

#include <QFormLayout>
#include <QHBoxLayout>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/growth.h"
#include "pile/limits.h"

namespace bp::app {
namespace {

QDoubleSpinBox* number(const QString& name, const QString& words, const QString& tip, double low, double high,
                       double value, const QString& unit, QWidget* parent) {
    auto* box = new QDoubleSpinBox(parent);
    box->setObjectName(name);
    box->setAccessibleName(words);
    box->setToolTip(tip);
    box->setDecimals(1);
    box->setRange(low, high);
    box->setValue(value);
    box->setSuffix(unit);
    return box;
}

}  // namespace

GrowthDialog::GrowthDialog(const Pile& pile, QWidget* parent) : QDialog(parent), pile_(pile) {
    setObjectName(QStringLiteral("growth_dialog"));
    setWindowTitle(tr("Growth of the picture"));
    constexpr int wide = 400;
    setFixedWidth(wide);
    const GrowthSettings& now = pile.growth;
    auto* column = new QVBoxLayout(this);
    column->setSpacing(space::medium);
    auto* words = quiet_label(tr("The picture as it comes into being: frame after frame, then part after part, "
                                 "finished as the whole one is."),
                              this);
    column->addWidget(words);
    kind_ = new QComboBox(this);
    kind_->setObjectName(QStringLiteral("growth_kind"));
    kind_->setAccessibleName(tr("Kind of file"));
    kind_->addItem(tr("Clip, MP4"), QStringLiteral(".mp4"));
    kind_->addItem(tr("Clip, WebM"), QStringLiteral(".webm"));
    kind_->addItem(tr("Numbered PNG pictures in a folder"), QString());
    kind_->setCurrentIndex(kind_->findData(QString::fromStdString(now.ending)));
    rate_ = number(QStringLiteral("growth_rate"), tr("Pictures a second"), tr("How many pictures are seen a second"),
                   pile::lowest_rate, pile::highest_rate, now.rate, tr(" a second"), this);
    seconds_ = number(QStringLiteral("growth_seconds"), tr("Seconds until it is whole"),
                      tr("How long the picture takes to grow. As it comes: every frame is one picture"), 0,
                      pile::longest_growth_s, now.seconds, tr(" s"), this);
    seconds_->setSpecialValueText(tr("as it comes"));
    hold_ = number(QStringLiteral("growth_hold"), tr("Seconds that the whole picture stays"),
                   tr("How long the whole picture is seen at the end"), 0, pile::longest_hold_s, now.hold_s, tr(" s"),
                   this);
    lines_ = new QComboBox(this);
    lines_->setObjectName(QStringLiteral("growth_lines"));
    lines_->setAccessibleName(tr("Height of the pictures"));
    lines_->setToolTip(tr("How high the pictures are at most; as wide as 16 : 9 at most. Nothing is enlarged"));
    for (const int lines : {720, 1080, 1440, 2160}) lines_->addItem(tr("%1 lines").arg(lines), lines);
    if (lines_->findData(now.lines) < 0) lines_->addItem(tr("%1 lines").arg(now.lines), now.lines);
    lines_->setCurrentIndex(lines_->findData(now.lines));
    auto* form = new QFormLayout;
    form->addRow(tr("Write"), kind_);
    form->addRow(tr("Height"), lines_);
    form->addRow(tr("Grows in"), seconds_);
    form->addRow(tr("At"), rate_);
    form->addRow(tr("Stays for"), hold_);
    column->addLayout(form);
    quality_ = new NamedSlider(
        tr("Quality"), tr("Higher keeps more and takes more space"), 1, 100, [](int v) { return QString::number(v); },
        this);
    quality_->slider()->setObjectName(QStringLiteral("growth_quality"));
    quality_->set_value(now.quality);
    column->addWidget(quality_);
    facts_ = quiet_label({}, this);
    facts_->setObjectName(QStringLiteral("growth_facts"));
    column->addWidget(facts_);
    auto* row = new QHBoxLayout;
    auto* leave = push(tr("Leave it"), QStringLiteral("growth_leave"), tr("Writes nothing"), this);
    write_ = lamp_push(tr("Choose a place…"), QStringLiteral("growth_write"),
                       tr("Asks for a place and a name, and writes the growth there"), this);
    write_->setDefault(true);
    row->addStretch();
    row->addWidget(leave);
    row->addWidget(write_);
    column->addLayout(row);
    for (QDoubleSpinBox* box : {rate_, seconds_, hold_})
        connect(box, &QDoubleSpinBox::valueChanged, this, &GrowthDialog::refresh);
    for (QComboBox* box : {kind_, lines_}) connect(box, &QComboBox::currentIndexChanged, this, &GrowthDialog::refresh);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(write_, &QPushButton::clicked, this, &QDialog::accept);
    refresh();
}

GrowthSettings GrowthDialog::settings() const {
    return {kind_->currentData().toString().toStdString(),
            rate_->value(),
            seconds_->value(),
            hold_->value(),
            lines_->currentData().toInt(),
            quality_->value()};
}

void GrowthDialog::refresh() {
    Pile next = pile_;
    next.growth = settings();
    const GrowthPlan plan = growth_plan(next);
    facts_->setText(tr("%1 pictures of %2 x %3 px, %4 s")
                        .arg(plan.count())
                        .arg(plan.size.width)
                        .arg(plan.size.height)
                        .arg(number_in_words(plan.seconds, 1)));
    quality_->setVisible(!next.growth.ending.empty());
    write_->setEnabled(!plan.pictures.empty());
}

}  // namespace bp::app
