#include "app/steps/export_step.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <array>

#include "app/looks/words.h"
#include "engine/cover.h"

namespace bp::app {
namespace {

struct Choice {
    const char* words;
    const char* ending;
    int bits;
};

constexpr std::array<Choice, 5> choices{{
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit TIFF"), ".tif", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit PNG"), ".png", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "JPEG"), ".jpg", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "8-bit TIFF"), ".tif", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "8-bit PNG"), ".png", 8},
}};

int choice_of(const ExportSettings& settings) {
    for (std::size_t i = 0; i < choices.size(); ++i)
        if (settings.ending == choices[i].ending && (settings.bits == choices[i].bits || settings.ending == ".jpg"))
            return int(i);
    return 0;
}

}  // namespace

ExportStep::ExportStep(Studio& studio, Viewer& viewer, Canvas& canvas)
    : studio_(studio), viewer_(viewer), canvas_(canvas) {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Format"), this);
    format_ = new QComboBox(this);
    format_->setObjectName(QStringLiteral("export_format"));
    format_->setFocusPolicy(Qt::TabFocus);
    format_->setAccessibleName(tr("Format of the exported picture"));
    for (const Choice& c : choices) format_->addItem(tr(c.words));
    label->setBuddy(format_);
    row->addWidget(label);
    row->addWidget(format_, 1);
    column()->addLayout(row);
    quality_ = new NamedSlider(
        tr("Quality"), tr("Higher keeps more and takes more space"), 1, 100, [](int v) { return QString::number(v); },
        this);
    quality_->slider()->setObjectName(QStringLiteral("export_quality"));
    column()->addWidget(quality_);
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    build_check();
    write_ = lamp_push(tr("Export…"), QStringLiteral("export_now"),
                       tr("Asks for a place and a name, and writes the picture there"), this);
    column()->addWidget(write_);
    last_ = quiet_label({}, this);
    last_->setObjectName(QStringLiteral("export_report"));
    last_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    column()->addWidget(last_);

    connect(format_, &QComboBox::activated, this, [this](int index) {
        Pile next = studio_.pile();
        next.exporting.ending = choices[std::size_t(index)].ending;
        next.exporting.bits = choices[std::size_t(index)].bits;
        studio_.document().edit(std::move(next), tr("Format: %1").arg(tr(choices[std::size_t(index)].words)));
    });
    connect(quality_, &NamedSlider::settled, this, [this](int value) {
        Pile next = studio_.pile();
        next.exporting.quality = value;
        studio_.document().edit(std::move(next), tr("Quality %1").arg(value), QStringLiteral("quality"));
    });
    connect(write_, &QPushButton::clicked, this, &ExportStep::export_wanted);
    connect(&studio.document(), &Document::changed, this, &ExportStep::out_of_date);
    connect(&studio.document(), &Document::opened, this, [this] { last_->clear(); });
    connect(&studio, &Studio::exported, this, [this](const QString& path, const Exported& done) {
        last_->setText(tr("%1\n%2 x %3 px, %4 KB\nwritten in %5 s")
                           .arg(QFileInfo(path).fileName())
                           .arg(done.area.width)
                           .arg(done.area.height)
                           .arg(QFileInfo(path).size() / 1024)
                           .arg(done.merge_s + done.finish_s, 0, 'f', 1));
    });
    refresh();
}

void ExportStep::build_check() {
    check_ = push(tr("Check the picture"), QStringLiteral("export_check"),
                  tr("Looks for what may have been overlooked: places that nothing reaches, subjects that cover each "
                     "other, borders of parts that cut through something"),
                  this);
    column()->addWidget(check_);
    checked_ = quiet_label({}, this);
    checked_->setObjectName(QStringLiteral("export_checked"));
    checked_->hide();
    column()->addWidget(checked_);
    flaws_ = new QListWidget(this);
    flaws_->setObjectName(QStringLiteral("export_flaws"));
    flaws_->setAccessibleName(tr("What may have been overlooked"));
    flaws_->setToolTip(tr("Choose one to see the place"));
    flaws_->hide();
    column()->addWidget(flaws_);
    connect(check_, &QPushButton::clicked, this,
            [this] { studio_.check([this](const std::vector<Flawed>& flaws) { show_flaws(flaws); }); });
    connect(flaws_, &QListWidget::currentRowChanged, this, [this](int number) {
        if (number < 0 || std::size_t(number) >= found_.size()) return;
        const Flawed& flaw = found_[std::size_t(number)];
        viewer_.set_view(View::result);
        canvas_.look_at({flaw.where.left + flaw.where.width / 2.0, flaw.where.top + flaw.where.height / 2.0});
        if (const Part* part = find_part(studio_.pile(), flaw.part)) studio_.select(part->frame);
    });
    // What was found was found of another picture.
    connect(&studio_.document(), &Document::changed, this, [this] {
        found_.clear();
        checked_->hide();
        flaws_->hide();
    });
}

void ExportStep::show_flaws(const std::vector<Flawed>& flaws) {
    const Pile& pile = studio_.pile();
    const auto name = [&](int id) {
        const Part* part = find_part(pile, id);
        return part ? name_of_part(pile, *part) : QString();
    };
    constexpr std::size_t most = 100;
    found_ = {flaws.begin(), flaws.begin() + std::ptrdiff_t(std::min(most, flaws.size()))};
    const QSignalBlocker quiet(flaws_);
    flaws_->clear();
    for (const Flawed& flaw : found_)
        flaws_->addItem(flaw.flaw == Flaw::hole      ? tr("Nothing reaches here")
                        : flaw.flaw == Flaw::overlap ? tr("%1 covers %2").arg(name(flaw.part), name(flaw.other))
                                                     : tr("%1 cuts through something").arg(name(flaw.part)));
    flaws_->setCurrentRow(-1);
    constexpr int row_height = 28, most_rows = 5;
    flaws_->setFixedHeight(row_height * std::clamp(flaws_->count(), 1, most_rows) + 2 * flaws_->frameWidth());
    flaws_->setVisible(!found_.empty());
    checked_->show();
    checked_->setText(found_.empty() ? tr("Nothing was found that may have been overlooked.")
                                     : tr("%n place(s) to look at", nullptr, int(flaws.size())));
}

QString ExportStep::summary() const {
    return tr(choices[std::size_t(choice_of(studio_.pile().exporting))].words);
}

void ExportStep::refresh() {
    const Pile& pile = studio_.pile();
    const QSignalBlocker quiet(format_);
    format_->setCurrentIndex(choice_of(pile.exporting));
    quality_->setVisible(pile.exporting.ending == ".jpg");
    if (!quality_->slider()->isSliderDown()) quality_->set_value(pile.exporting.quality);
    if (studio_.document().open()) {
        const Rect area = output_area(pile);
        const CaptureData capture = merged_capture(pile);
        QStringList lines{tr("%1 x %2 px").arg(area.width).arg(area.height),
                          tr("Profile %1").arg(QString::fromStdString(pile.profile.name()))};
        if (capture.exposure_s) lines << tr("Total exposure %1").arg(exposure_in_words(*capture.exposure_s));
        facts_->setText(lines.join(QLatin1Char('\n')));
    }
}

}  // namespace bp::app
