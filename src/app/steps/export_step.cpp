#include "app/steps/export_step.h"

#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <array>
#include <cmath>

#include "app/looks/words.h"
#include "app/panels/questions.h"
#include "engine/cover.h"
#include "engine/resizing.h"
#include "io/profile_file.h"
#include "pile/edits.h"
#include "pile/limits.h"

namespace bp::app {
namespace {

struct Choice {
    const char* words;
    const char* ending;
    int bits;
};

constexpr std::array<Choice, 9> choices{{
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit TIFF"), ".tif", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit PNG"), ".png", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "JPEG"), ".jpg", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "WebP"), ".webp", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "JPEG XL, 16 bits"), ".jxl", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "OpenEXR, half floats"), ".exr", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "OpenEXR, floats"), ".exr", 32},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "8-bit TIFF"), ".tif", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "8-bit PNG"), ".png", 8},
}};

bool has_quality(const std::string& ending) {
    return ending == ".jpg" || ending == ".webp" || ending == ".jxl";
}

constexpr double cm_an_inch = 2.54;

int choice_of(const ExportSettings& settings) {
    for (std::size_t i = 0; i < choices.size(); ++i)
        if (settings.ending == choices[i].ending &&
            (settings.bits == choices[i].bits || settings.ending == ".jpg" || settings.ending == ".webp"))
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
        tr("Quality"), tr("Higher keeps more and takes more space. In WebP and JPEG XL 100 loses nothing"), 1, 100,
        [](int v) { return QString::number(v); }, this);
    quality_->slider()->setObjectName(QStringLiteral("export_quality"));
    column()->addWidget(quality_);
    build_profile();
    build_size();
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
                           .arg(done.size.width)
                           .arg(done.size.height)
                           .arg(QFileInfo(path).size() / 1024)
                           .arg(done.merge_s + done.finish_s, 0, 'f', 1));
    });
    refresh();
}

void ExportStep::build_profile() {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Profile"), this);
    profile_ = new QComboBox(this);
    profile_->setObjectName(QStringLiteral("export_profile"));
    profile_->setFocusPolicy(Qt::TabFocus);
    profile_->setAccessibleName(tr("Colour profile of the exported picture"));
    profile_->setToolTip(tr("The colours stay; what they are told in changes. sRGB is read everywhere"));
    profile_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    for (const auto& [words, value] :
         {std::pair{tr("That of the frames"), ExportProfile::own}, std::pair{tr("sRGB"), ExportProfile::srgb},
          std::pair{tr("Display P3"), ExportProfile::display_p3}, std::pair{tr("Rec. 2020"), ExportProfile::rec2020},
          std::pair{tr("From a file…"), ExportProfile::file}})
        profile_->addItem(words, int(value));
    label->setBuddy(profile_);
    row->addWidget(label);
    row->addWidget(profile_, 1);
    column()->addLayout(row);
    connect(profile_, &QComboBox::activated, this, [this](int index) {
        Pile next = studio_.pile();
        next.exporting.profile = ExportProfile(profile_->itemData(index).toInt());
        if (next.exporting.profile == ExportProfile::file) {
            const QStringList names =
                ask_for_files(window(), Places::profiles, tr("A colour profile"), tr("Profiles (*.icc *.icm)"));
            refresh();
            if (names.isEmpty()) return;
            Result<Profile> read = read_profile(names.first().toStdString());
            if (!read.ok()) {
                studio_.say(said(read.failure()), true);
                return;
            }
            next.exporting.from_file = std::move(read).value();
        }
        studio_.document().edit(std::move(next), tr("Profile of the export"));
    });
}

void ExportStep::build_size() {
    auto* grid = new QGridLayout;
    edge_ = new QSpinBox(this);
    edge_->setObjectName(QStringLiteral("export_edge"));
    edge_->setAccessibleName(tr("Longer side in pixels"));
    edge_->setToolTip(tr("Makes the picture smaller, in linear light. It is never enlarged; 0 leaves it as it is"));
    edge_->setRange(0, pile::largest_side_px);
    edge_->setSpecialValueText(tr("as it is"));
    edge_->setSuffix(tr(" px"));
    paper_ = new QDoubleSpinBox(this);
    paper_->setObjectName(QStringLiteral("export_paper"));
    paper_->setAccessibleName(tr("Longer side on paper"));
    paper_->setToolTip(tr("The same on paper, by so many pixels an inch"));
    paper_->setRange(0, 1000);
    paper_->setDecimals(1);
    paper_->setSpecialValueText(tr("as it is"));
    paper_->setSuffix(tr(" cm"));
    dpi_ = new QDoubleSpinBox(this);
    dpi_->setObjectName(QStringLiteral("export_dpi"));
    dpi_->setAccessibleName(tr("Pixels an inch of paper"));
    dpi_->setToolTip(tr("Tells how large the picture is on paper; its pixels stay"));
    dpi_->setRange(pile::lowest_dpi, pile::highest_dpi);
    dpi_->setDecimals(0);
    dpi_->setSuffix(tr(" dpi"));
    grid->addWidget(new QLabel(tr("Longer side"), this), 0, 0, 1, 2);
    grid->addWidget(edge_, 1, 0, 1, 2);
    grid->addWidget(paper_, 2, 0);
    grid->addWidget(dpi_, 2, 1);
    for (QAbstractSpinBox* box : {static_cast<QAbstractSpinBox*>(edge_), static_cast<QAbstractSpinBox*>(paper_),
                                  static_cast<QAbstractSpinBox*>(dpi_)}) {
        box->setKeyboardTracking(false);
        box->setButtonSymbols(QAbstractSpinBox::NoButtons);
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    }
    column()->addLayout(grid);
    const auto set_edge = [this](int px) {
        Pile next = studio_.pile();
        next.exporting.long_edge_px = std::clamp(px, 0, pile::largest_side_px);
        studio_.document().edit(std::move(next), tr("Size of the export"), QStringLiteral("export size"));
    };
    connect(edge_, &QSpinBox::valueChanged, this, set_edge);
    connect(paper_, &QDoubleSpinBox::valueChanged, this,
            [this, set_edge](double cm) { set_edge(int(std::lround(cm / cm_an_inch * studio_.pile().canvas.dpi))); });
    connect(dpi_, &QDoubleSpinBox::valueChanged, this, [this](double dpi) {
        CanvasSettings canvas = studio_.pile().canvas;
        canvas.dpi = dpi;
        studio_.document().edit(with_canvas(studio_.pile(), canvas), tr("Pixels an inch"),
                                QStringLiteral("export dpi"));
    });
    sharpen_ = new NamedSlider(
        tr("Sharpening"), tr("Of what was made smaller: it looks softer than it was"), 0, 200,
        [](int v) { return tr("%1%").arg(v); }, this);
    sharpen_->slider()->setObjectName(QStringLiteral("export_sharpen"));
    column()->addWidget(sharpen_);
    connect(sharpen_, &NamedSlider::settled, this, [this](int value) {
        Pile next = studio_.pile();
        next.exporting.sharpen = value;
        studio_.document().edit(std::move(next), tr("Sharpening of the export"), QStringLiteral("export sharpen"));
    });
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
    quality_->setVisible(has_quality(pile.exporting.ending));
    if (!quality_->slider()->isSliderDown()) quality_->set_value(pile.exporting.quality);
    const QSignalBlocker no_profile(profile_), no_edge(edge_), no_paper(paper_), no_dpi(dpi_);
    profile_->setCurrentIndex(profile_->findData(int(pile.exporting.profile)));
    profile_->setEnabled(pile.channels == 3);
    edge_->setValue(pile.exporting.long_edge_px);
    paper_->setValue(pile.exporting.long_edge_px / pile.canvas.dpi * cm_an_inch);
    dpi_->setValue(pile.canvas.dpi);
    if (!sharpen_->slider()->isSliderDown()) sharpen_->set_value(int(std::lround(pile.exporting.sharpen)));
    if (studio_.document().open()) {
        const Size size = reduced_size(output_area(pile).size(), pile.exporting.long_edge_px);
        sharpen_->setVisible(size != output_area(pile).size());
        const CaptureData capture = merged_capture(pile);
        QStringList lines{tr("%1 x %2 px, %3 x %4 cm")
                              .arg(size.width)
                              .arg(size.height)
                              .arg(size.width / pile.canvas.dpi * cm_an_inch, 0, 'f', 1)
                              .arg(size.height / pile.canvas.dpi * cm_an_inch, 0, 'f', 1),
                          tr("Profile %1").arg(QString::fromStdString(exported_profile(pile).name()))};
        if (capture.exposure_s) lines << tr("Total exposure %1").arg(exposure_in_words(*capture.exposure_s));
        facts_->setText(lines.join(QLatin1Char('\n')));
    }
}

}  // namespace bp::app
