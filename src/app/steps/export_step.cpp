#include "app/steps/export_step.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QSignalBlocker>
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

ExportStep::ExportStep(Studio& studio) : studio_(studio) {
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
