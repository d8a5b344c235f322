#include "app/panels/crop_controls.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QRegularExpression>
#include <QSettings>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "engine/cover.h"
#include "engine/turning.h"
#include "pile/edits.h"
#include "pile/limits.h"

namespace bp::app {
namespace {

constexpr int most_own = 8;

QString own_ratios_key() {
    return QStringLiteral("crop/own_ratios");
}

// "3:2" as 1.5; none for what is no ratio.
std::optional<double> read_ratio(const QString& words) {
    static const QRegularExpression form(
        QStringLiteral("^\\s*(\\d+(?:[.,]\\d+)?)\\s*[:/x]\\s*(\\d+(?:[.,]\\d+)?)\\s*$"));
    const QRegularExpressionMatch match = form.match(words);
    if (!match.hasMatch()) return std::nullopt;
    const auto number = [&](int group) {
        return match.captured(group).replace(QLatin1Char(','), QLatin1Char('.')).toDouble();
    };
    constexpr double longest = 50;
    const double a = number(1), b = number(2);
    if (a <= 0 || b <= 0 || a / b > longest || b / a > longest) return std::nullopt;
    return a / b;
}

// A crop of a ratio as large as another about its middle, or as large as goes inside the canvas: so that going through
// the ratios does not make it smaller and smaller.
Rect as_large(const Rect& now, double ratio, const Rect& canvas) {
    const double wanted = std::sqrt(double(now.width) * now.height * ratio);
    const double width = std::min({wanted, double(canvas.width), canvas.height * ratio});
    const int w = std::clamp(int(std::lround(width)), 1, canvas.width);
    const int h = std::clamp(int(std::lround(width / ratio)), 1, canvas.height);
    return {std::clamp(now.left + (now.width - w) / 2, canvas.left, canvas.right() - w),
            std::clamp(now.top + (now.height - h) / 2, canvas.top, canvas.bottom() - h), w, h};
}

}  // namespace

CropControls::CropControls(Studio& studio, Canvas& canvas, CropTool& tool, const QString& object, QWidget* parent)
    : QWidget(parent), studio_(studio), canvas_(canvas), tool_(tool), horizon_(canvas, [this](double degrees) {
          turn_to(studio_.pile().turn_deg + degrees, tr("Turn to the horizon"));
          leave_horizon();
      }) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::small);
    auto* row = new QHBoxLayout;
    fit_ = push(tr("Full cover"), object + QStringLiteral("full"),
                tr("The largest rectangle that every frame reaches, to begin a crop with"), this);
    all_ =
        push(tr("Whole canvas"), object + QStringLiteral("all"), tr("All of the canvas, to begin a crop with"), this);
    row->addWidget(fit_);
    row->addWidget(all_);
    column->addLayout(row);
    build_ratio(object);
    build_numbers(object);
    build_turn(object);
    const auto whole_area = [this](const Rect& area, const QString& what) {
        crop(ratio() ? of_ratio(area, *ratio()) : area, what);
    };
    connect(fit_, &QPushButton::clicked, this, [this, whole_area] {
        whole_area(inside_turned(Turn(studio_.pile()), full_cover(studio_.pile())), tr("Crop to full cover"));
    });
    connect(all_, &QPushButton::clicked, this,
            [this, whole_area] { whole_area(canvas_of(studio_.pile()), tr("Do not crop")); });
}

void CropControls::build_ratio(const QString& object) {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Ratio"), this);
    ratio_ = new QComboBox(this);
    ratio_->setObjectName(object + QStringLiteral("ratio"));
    ratio_->setAccessibleName(tr("Ratio of width to height"));
    ratio_->setToolTip(tr("Width to height that the crop keeps. Type one of your own, as 65:24, and press Enter"));
    ratio_->setEditable(true);
    ratio_->setInsertPolicy(QComboBox::NoInsert);
    ratio_->setFocusPolicy(Qt::StrongFocus);
    label->setBuddy(ratio_);
    turn_ = push(tr("Turn"), object + QStringLiteral("turn"), tr("Upright instead of across, and back"), this);
    row->addWidget(label);
    row->addWidget(ratio_, 1);
    row->addWidget(turn_);
    static_cast<QVBoxLayout*>(layout())->addLayout(row);
    chosen_ = tr("Any");
    fill_ratios();
    connect(ratio_, &QComboBox::activated, this, [this](int index) { choose_ratio(ratio_->itemText(index)); });
    connect(ratio_->lineEdit(), &QLineEdit::editingFinished, this, [this] {
        if (ratio_->currentText() != chosen_) choose_ratio(ratio_->currentText());
    });
    connect(turn_, &QPushButton::clicked, this, [this] {
        if (!ratio()) return;
        upright_ = !upright_;
        tool_.set_ratio(ratio());
        crop(as_large(output_area(studio_.pile()), *ratio(), canvas_of(studio_.pile())), tr("Turn the crop"));
    });
}

void CropControls::fill_ratios() {
    const QSignalBlocker quiet(ratio_);
    ratio_->clear();
    ratio_->addItem(tr("Any"));
    ratio_->addItem(tr("As the frames"));
    for (const char* plain : {"1:1", "5:4", "4:3", "3:2", "16:9", "2:1"}) ratio_->addItem(QLatin1String(plain));
    for (const QString& own : QSettings().value(own_ratios_key()).toStringList())
        if (read_ratio(own) && ratio_->findText(own) < 0) ratio_->addItem(own);
    ratio_->setCurrentText(chosen_);
}

std::optional<double> CropControls::ratio() const {
    const Size size = studio_.pile().size;
    std::optional<double> out = read_ratio(chosen_);
    if (chosen_ == tr("As the frames") && size.height > 0) out = double(size.width) / size.height;
    return out && upright_ ? std::optional(1 / *out) : out;
}

void CropControls::choose_ratio(const QString& words) {
    const bool known = words == tr("Any") || words == tr("As the frames");
    if (!known && !read_ratio(words)) {
        studio_.say(tr("%1 is no ratio: write two numbers with a colon between them, as 3:2.").arg(words));
        ratio_->setCurrentText(chosen_);
        return;
    }
    chosen_ = known ? words : words.simplified();
    upright_ = false;
    if (ratio_->findText(chosen_) < 0) {
        QStringList own = QSettings().value(own_ratios_key()).toStringList();
        own.prepend(chosen_);
        while (own.size() > most_own) own.removeLast();
        QSettings().setValue(own_ratios_key(), own);
    }
    fill_ratios();
    tool_.set_ratio(ratio());
    turn_->setEnabled(ratio().has_value());
    if (ratio())
        crop(as_large(output_area(studio_.pile()), *ratio(), canvas_of(studio_.pile())), tr("Crop to %1").arg(chosen_));
}

void CropControls::build_numbers(const QString& object) {
    auto* grid = new QGridLayout;
    const std::array<std::array<QString, 3>, 4> kinds{{
        {tr("Left"), QStringLiteral("left"), tr("Where the picture begins on the canvas")},
        {tr("Top"), QStringLiteral("top"), tr("Where the picture begins on the canvas")},
        {tr("Width"), QStringLiteral("width"), tr("Width of the picture")},
        {tr("Height"), QStringLiteral("height"), tr("Height of the picture")},
    }};
    for (std::size_t i = 0; i < kinds.size(); ++i) {
        auto* box = new QSpinBox(this);
        box->setObjectName(object + kinds[i][1]);
        box->setAccessibleName(kinds[i][0]);
        box->setToolTip(kinds[i][2]);
        box->setSuffix(tr(" px"));
        box->setKeyboardTracking(false);
        box->setButtonSymbols(QAbstractSpinBox::NoButtons);
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        auto* label = new QLabel(kinds[i][0], this);
        label->setBuddy(box);
        // Above its box: beside it there is no room for five digits.
        grid->addWidget(label, int(i) / 2 * 2, int(i) % 2);
        grid->addWidget(box, int(i) / 2 * 2 + 1, int(i) % 2);
        numbers_[i] = box;
        connect(box, &QSpinBox::valueChanged, this, [this, i] { type_in(i); });
    }
    for (const int half : {0, 1}) grid->setColumnStretch(half, 1);
    static_cast<QVBoxLayout*>(layout())->addLayout(grid);
}

void CropControls::build_turn(const QString& object) {
    auto* row = new QHBoxLayout;
    auto* label = new QLabel(tr("Turned"), this);
    degrees_ = new QDoubleSpinBox(this);
    degrees_->setObjectName(object + QStringLiteral("degrees"));
    degrees_->setAccessibleName(tr("Degrees by which the picture is turned"));
    degrees_->setToolTip(tr("Turns the whole picture clockwise, so that a horizon is level"));
    degrees_->setRange(-pile::most_turn_deg, pile::most_turn_deg);
    degrees_->setDecimals(2);
    degrees_->setSingleStep(0.1);
    degrees_->setSuffix(tr("°"));
    degrees_->setKeyboardTracking(false);
    label->setBuddy(degrees_);
    row->addWidget(label);
    row->addWidget(degrees_, 1);
    static_cast<QVBoxLayout*>(layout())->addLayout(row);
    auto* how = new QHBoxLayout;
    draw_ = push(tr("Draw a horizon"), object + QStringLiteral("horizon"),
                 tr("Draw a line on the picture along what is to be level, or upright"), this);
    draw_->setCheckable(true);
    auto* find = push(tr("Find it"), object + QStringLiteral("find_horizon"),
                      tr("Turns the picture so that its longest straight edge across is level"), this);
    how->addWidget(draw_, 1);
    how->addWidget(find);
    static_cast<QVBoxLayout*>(layout())->addLayout(how);
    connect(degrees_, &QDoubleSpinBox::valueChanged, this,
            [this](double degrees) { turn_to(degrees, tr("Turn the picture"), QStringLiteral("turn typed")); });
    connect(draw_, &QPushButton::toggled, this, [this](bool on) {
        if (on)
            canvas_.set_tool(&horizon_);
        else
            leave_horizon();
    });
    connect(find, &QPushButton::clicked, this, [this] { studio_.find_horizon(); });
}

void CropControls::leave_horizon() {
    const QSignalBlocker quiet(draw_);
    draw_->setChecked(false);
    if (isVisible()) canvas_.set_tool(&tool_);
}

void CropControls::turn_to(double degrees, const QString& what, const QString& merged) {
    studio_.document().edit(with_turn(studio_.pile(), degrees), what, merged);
}

void CropControls::type_in(std::size_t which) {
    Rect typed{numbers_[0]->value(), numbers_[1]->value(), numbers_[2]->value(), numbers_[3]->value()};
    const std::optional<double> held = ratio();
    if (held && which == 2) typed.height = std::max(1, int(std::lround(typed.width / *held)));
    if (held && which == 3) typed.width = std::max(1, int(std::lround(typed.height * *held)));
    crop(typed, tr("Crop"), QStringLiteral("crop typed"));
}

void CropControls::crop(const Rect& area, const QString& what, const QString& merged) {
    studio_.document().edit(with_crop(studio_.pile(), area), what, merged);
}

void CropControls::show_crop() {
    const Pile& pile = studio_.pile();
    const Rect area = output_area(pile);
    const Rect canvas = canvas_of(pile);
    fit_->setEnabled(!full_cover(pile).empty());
    turn_->setEnabled(ratio().has_value());
    tool_.set_ratio(ratio());
    const QSignalBlocker no_turn(degrees_);
    degrees_->setValue(pile.turn_deg);
    const std::array<int, 4> values{area.left, area.top, area.width, area.height};
    // As narrow as it can be dragged.
    const int narrowest = std::min({CropTool::least, canvas.width, canvas.height});
    const std::array<int, 4> least{canvas.left, canvas.top, narrowest, narrowest};
    const std::array<int, 4> most{canvas.right() - narrowest, canvas.bottom() - narrowest, canvas.width, canvas.height};
    for (std::size_t i = 0; i < numbers_.size(); ++i) {
        const QSignalBlocker quiet(numbers_[i]);
        numbers_[i]->setRange(least[i], most[i]);
        numbers_[i]->setValue(values[i]);
    }
}

}  // namespace bp::app
