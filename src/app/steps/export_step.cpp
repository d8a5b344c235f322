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
#include "engine/export_names.h"
#include "engine/resizing.h"
#include "engine/way_out.h"
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

constexpr std::array<Choice, 10> choices{{
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit TIFF"), ".tif", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "16-bit PNG"), ".png", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "JPEG"), ".jpg", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "WebP"), ".webp", 8},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "JPEG XL, 16 bits"), ".jxl", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "OpenEXR, half floats"), ".exr", 16},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "OpenEXR, floats"), ".exr", 32},
    {QT_TRANSLATE_NOOP("bp::app::ExportStep", "OpenRaster, in layers"), ".ora", 16},
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
    build_versions();
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
    build_name();
    facts_ = quiet_label({}, this);
    facts_->setObjectName(QStringLiteral("export_facts"));
    column()->addWidget(facts_);
    build_writing();
    build_more();
    build_check();
    build_report();
    connect(format_, &QComboBox::activated, this, [this](int index) {
        const Choice& choice = choices[std::size_t(index)];
        change(
            [&](ExportSettings& to) {
                to.ending = choice.ending;
                to.bits = choice.bits;
            },
            tr("Format: %1").arg(tr(choice.words)));
    });
    connect(quality_, &NamedSlider::settled, this, [this](int value) {
        change([value](ExportSettings& to) { to.quality = value; }, tr("Quality %1").arg(value),
               QStringLiteral("quality"));
    });
    connect(&studio.document(), &Document::changed, this, &ExportStep::out_of_date);
    connect(&studio.document(), &Document::opened, this, [this] {
        chosen_ = 0;
        reports_.clear();
        last_->clear();
    });
    refresh();
}

void ExportStep::build_writing() {
    write_ = lamp_push(tr("Export…"), QStringLiteral("export_now"),
                       tr("Asks for a place and a name, and writes the picture there"), this);
    grow_ = push(tr("Growth…"), QStringLiteral("export_growth"),
                 tr("Writes the picture as it comes into being, as a clip or numbered pictures"), this);
    auto* row = new QHBoxLayout;
    row->addWidget(write_, 1);
    row->addWidget(grow_);
    column()->addLayout(row);
    connect(write_, &QPushButton::clicked, this, &ExportStep::export_wanted);
    connect(grow_, &QPushButton::clicked, this, &ExportStep::growth_wanted);
}

void ExportStep::build_report() {
    last_ = quiet_label({}, this);
    last_->setObjectName(QStringLiteral("export_report"));
    last_->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
    column()->addWidget(last_);
    connect(&studio_, &Studio::exported, this, [this](const QString& path, const Exported& done) {
        report(tr("%1\n%2 x %3 px, %4 KB\nwritten in %5 s")
                   .arg(QFileInfo(path).fileName())
                   .arg(done.size.width)
                   .arg(done.size.height)
                   .arg(QFileInfo(path).size() / 1024)
                   .arg(number_in_words(done.merge_s + done.finish_s, 1)));
    });
    connect(&studio_, &Studio::grown, this, [this](const QString& path, const GrownFile& done) {
        report(tr("%1\n%2 pictures of %3 x %4 px\nwritten in %5 s")
                   .arg(QFileInfo(path).fileName())
                   .arg(done.plan.count())
                   .arg(done.plan.size.width)
                   .arg(done.plan.size.height)
                   .arg(number_in_words(done.grow_s, 1)));
    });
}

void ExportStep::report(const QString& words) {
    constexpr int most = 6;
    reports_.prepend(words);
    while (reports_.size() > most) reports_.removeLast();
    last_->setText(reports_.join(QLatin1Char('\n')));
}

const ExportSettings& ExportStep::version(std::size_t number) const {
    const Pile& pile = studio_.pile();
    return number == 0 || number > pile.also.size() ? pile.exporting : pile.also[number - 1];
}

Pile ExportStep::as_chosen() const {
    Pile out = studio_.pile();
    out.exporting = chosen();
    return out;
}

void ExportStep::change(const std::function<void(ExportSettings&)>& how, const QString& what, const QString& merged) {
    Pile next = studio_.pile();
    how(chosen_ == 0 || chosen_ > next.also.size() ? next.exporting : next.also[chosen_ - 1]);
    studio_.document().edit(std::move(next), what,
                            merged.isEmpty() ? merged : QStringLiteral("%1 of version %2").arg(merged).arg(chosen_));
}

void ExportStep::build_versions() {
    versions_ = new QListWidget(this);
    versions_->setObjectName(QStringLiteral("export_versions"));
    versions_->setAccessibleName(tr("What is written together"));
    versions_->setToolTip(tr("All of these are written in one order. Choose one to change it"));
    column()->addWidget(versions_);
    connect(versions_, &QListWidget::currentRowChanged, this, [this](int number) {
        if (number < 0) return;
        chosen_ = std::size_t(number);
        out_of_date();
    });
}

void ExportStep::build_more() {
    auto* row = new QHBoxLayout;
    add_version_ =
        push(tr("One more"), QStringLiteral("export_add_version"),
             tr("Writes the picture in one more way in the same order, as a small JPEG beside a large TIFF"), this);
    take_out_ = push(tr("Take out"), QStringLiteral("export_remove_version"),
                     tr("Takes the chosen one out of what is written"), this);
    row->addWidget(add_version_);
    row->addWidget(take_out_);
    column()->addLayout(row);
    column()->addWidget(whereabouts_);
    connect(add_version_, &QPushButton::clicked, this, &ExportStep::add_version);
    connect(take_out_, &QPushButton::clicked, this, &ExportStep::take_version_out);
}

void ExportStep::add_version() {
    Pile next = studio_.pile();
    if (next.also.size() + 1 >= ExportSettings::most) {
        studio_.say(tr("No more than %1 are written together.").arg(ExportSettings::most));
        return;
    }
    // What is mostly wanted beside a large one.
    constexpr int small_px = 2048;
    ExportSettings more = chosen();
    if (more.ending != ".jpg") {
        more.ending = ".jpg";
        more.bits = 8;
        more.long_edge_px = small_px;
        more.profile = ExportProfile::srgb;
    }
    next.also.push_back(std::move(more));
    chosen_ = next.also.size();
    studio_.document().edit(std::move(next), tr("Write one more"));
}

void ExportStep::take_version_out() {
    Pile next = studio_.pile();
    if (next.also.empty()) return;
    if (chosen_ == 0) next.exporting = next.also.front();
    next.also.erase(next.also.begin() + std::ptrdiff_t(chosen_ == 0 ? 0 : chosen_ - 1));
    chosen_ = chosen_ == 0 ? 0 : chosen_ - 1;
    studio_.document().edit(std::move(next), tr("Write one less"));
}

void ExportStep::build_name() {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Name"), this);
    name_ = new QLineEdit(this);
    name_->setObjectName(QStringLiteral("export_name"));
    name_->setAccessibleName(tr("Name of the file"));
    name_->setPlaceholderText(tr("as the pile"));
    QStringList words;
    for (const std::string& word : name_words()) words << QString::fromStdString(word);
    name_->setToolTip(
        tr("What the file is called. Words in braces stand for what they say: %1").arg(words.join(QLatin1Char(' '))));
    label->setBuddy(name_);
    row->addWidget(label);
    row->addWidget(name_, 1);
    column()->addLayout(row);
    // Every letter counts at once: what is written next, or chosen next, comes without the field being left.
    connect(name_, &QLineEdit::textEdited, this, [this](const QString& typed) {
        change([name = typed.simplified().toStdString()](ExportSettings& to) { to.name = name; },
               tr("Name of the export"), QStringLiteral("export name"));
    });
    whereabouts_ = new QCheckBox(tr("Tell place and serial number"), this);
    whereabouts_->setObjectName(QStringLiteral("export_whereabouts"));
    whereabouts_->setToolTip(
        tr("Whether the file tells where the frames were taken and by which camera of its kind, when they do"));
    connect(whereabouts_, &QCheckBox::clicked, this, [this](bool on) {
        change([on](ExportSettings& to) { to.whereabouts = on; },
               on ? tr("Tell place and serial number") : tr("Leave out place and serial number"));
    });
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
        const auto wanted = ExportProfile(profile_->itemData(index).toInt());
        Profile from_file;
        if (wanted == ExportProfile::file) {
            const QStringList names =
                ask_for_files(window(), Places::profiles, tr("A colour profile"), tr("Profiles (*.icc *.icm)"));
            refresh();
            if (names.isEmpty()) return;
            Result<Profile> read = read_profile(names.first().toStdString());
            if (!read.ok()) {
                studio_.say(said(read.failure()), true);
                return;
            }
            from_file = std::move(read).value();
        }
        change(
            [&](ExportSettings& to) {
                to.profile = wanted;
                if (wanted == ExportProfile::file) to.from_file = from_file;
            },
            tr("Profile of the export"));
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
    paper_->setPrefix(tr("paper "));
    paper_->setSpecialValueText(tr("paper as it is"));
    paper_->setSuffix(tr(" cm"));
    dpi_ = new QDoubleSpinBox(this);
    dpi_->setObjectName(QStringLiteral("export_dpi"));
    dpi_->setAccessibleName(tr("Pixels an inch of paper"));
    dpi_->setToolTip(tr("Tells how large the picture is on paper; its pixels stay"));
    dpi_->setRange(pile::lowest_dpi, pile::highest_dpi);
    dpi_->setDecimals(0);
    dpi_->setSuffix(tr(" dpi"));
    grid->addWidget(new QLabel(tr("Longer side"), this), 0, 0);
    grid->addWidget(edge_, 0, 1);
    grid->addWidget(paper_, 1, 0);
    grid->addWidget(dpi_, 1, 1);
    for (QAbstractSpinBox* box : {static_cast<QAbstractSpinBox*>(edge_), static_cast<QAbstractSpinBox*>(paper_),
                                  static_cast<QAbstractSpinBox*>(dpi_)}) {
        box->setKeyboardTracking(false);
        box->setButtonSymbols(QAbstractSpinBox::NoButtons);
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    }
    column()->addLayout(grid);
    const auto set_edge = [this](int px) {
        change([px](ExportSettings& to) { to.long_edge_px = std::clamp(px, 0, pile::largest_side_px); },
               tr("Size of the export"), QStringLiteral("export size"));
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
        tr("Sharpening"), tr("Of what was made smaller: it looks softer than it was"), 0, 300,
        [](int v) { return tr("%1%").arg(v); }, this);
    sharpen_->slider()->setObjectName(QStringLiteral("export_sharpen"));
    column()->addWidget(sharpen_);
    connect(sharpen_, &NamedSlider::settled, this, [this](int value) {
        change([value](ExportSettings& to) { to.sharpen = value; }, tr("Sharpening of the export"),
               QStringLiteral("export sharpen"));
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

void ExportStep::show_versions() {
    const QSignalBlocker quiet(versions_);
    versions_->clear();
    for (std::size_t i = 0; i < version_count(); ++i) {
        const ExportSettings& one = version(i);
        QString words = tr(choices[std::size_t(choice_of(one))].words);
        if (one.long_edge_px > 0) words = tr("%1, %2 px").arg(words).arg(one.long_edge_px);
        versions_->addItem(words);
    }
    versions_->setCurrentRow(int(chosen_));
    constexpr int row_height = 26, most_rows = 4;
    versions_->setFixedHeight(row_height * std::min(versions_->count(), most_rows) + 2 * versions_->frameWidth());
    const bool several = version_count() > 1;
    versions_->setVisible(several);
    take_out_->setVisible(several);
    write_->setText(several ? tr("Export %n pictures…", nullptr, int(version_count())) : tr("Export…"));
}

void ExportStep::show_facts() {
    const Pile pile = as_chosen();
    const Size full = output_area(pile).size(), size = reduced_size(full, pile.exporting.long_edge_px);
    sharpen_->setVisible(size != full);
    const CaptureData capture = merged_capture(pile);
    const std::vector<std::string> names =
        export_names(studio_.pile(), QFileInfo(studio_.document().name()).completeBaseName().toStdString());
    QStringList lines{QString::fromStdString(names[std::min(chosen_, names.size() - 1)]),
                      tr("%1 x %2 px, %3 x %4 cm")
                          .arg(size.width)
                          .arg(size.height)
                          .arg(number_in_words(size.width / pile.canvas.dpi * cm_an_inch, 1))
                          .arg(number_in_words(size.height / pile.canvas.dpi * cm_an_inch, 1)),
                      tr("Profile %1").arg(QString::fromStdString(exported_profile(pile).name()))};
    if (capture.exposure_s) lines << tr("Total exposure %1").arg(exposure_in_words(*capture.exposure_s));
    facts_->setText(lines.join(QLatin1Char('\n')));
}

void ExportStep::refresh() {
    chosen_ = std::min(chosen_, version_count() - 1);
    const Pile& pile = studio_.pile();
    const ExportSettings& now = chosen();
    show_versions();
    const QSignalBlocker quiet(format_);
    format_->setCurrentIndex(choice_of(now));
    quality_->setVisible(has_quality(now.ending));
    if (!quality_->slider()->isSliderDown()) quality_->set_value(now.quality);
    const QSignalBlocker no_profile(profile_), no_edge(edge_), no_paper(paper_), no_dpi(dpi_);
    profile_->setCurrentIndex(profile_->findData(int(now.profile)));
    profile_->setEnabled(pile.channels == 3);
    edge_->setValue(now.long_edge_px);
    paper_->setValue(now.long_edge_px / pile.canvas.dpi * cm_an_inch);
    dpi_->setValue(pile.canvas.dpi);
    // Not while it is what is being typed: the cursor would jump.
    const QString name = QString::fromStdString(now.name);
    if (name_->text().simplified() != name) name_->setText(name);
    whereabouts_->setChecked(now.whereabouts);
    if (!sharpen_->slider()->isSliderDown()) sharpen_->set_value(int(std::lround(now.sharpen)));
    if (studio_.document().open()) show_facts();
}

}  // namespace bp::app
