#include "app/panels/canvas_controls.h"

#include <QColorDialog>
#include <QGridLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "pile/background.h"
#include "pile/edits.h"
#include "pile/limits.h"
#include "pile/measures.h"

namespace bp::app {
namespace {

constexpr double least_side = 16, most_side = 60000;  // pixels

// A canvas of a size in the middle of which the reference lies.
Rect around_reference(Size reference, Size canvas) {
    return {floor_div(reference.width - canvas.width, 2), floor_div(reference.height - canvas.height, 2), canvas.width,
            canvas.height};
}

}  // namespace

CanvasControls::CanvasControls(Studio& studio, Viewer& viewer, const QString& object, QWidget* parent)
    : QWidget(parent), studio_(studio), viewer_(viewer) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(space::small);
    measure_ = new QComboBox(this);
    measure_->setObjectName(object + QStringLiteral("measure"));
    measure_->setAccessibleName(tr("What the canvas is measured in"));
    measure_->setToolTip(tr("What the size of the canvas is told in; on paper it goes by the dots per inch"));
    for (const MeasureEntry& entry : measures()) measure_->addItem(word(entry.measure), int(entry.measure));
    column->addWidget(measure_);
    auto* grid = new QGridLayout;
    const auto box = [&](const QString& name, const QString& called, const QString& tip, int row, int across) {
        auto* out = new QDoubleSpinBox(this);
        out->setObjectName(called);
        out->setAccessibleName(name);
        out->setToolTip(tip);
        out->setKeyboardTracking(false);
        out->setButtonSymbols(QAbstractSpinBox::NoButtons);
        out->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        auto* label = new QLabel(name, this);
        label->setBuddy(out);
        grid->addWidget(label, row, across);
        grid->addWidget(out, row + 1, across);
        grid->setColumnStretch(across, 1);
        connect(out, &QDoubleSpinBox::valueChanged, this, &CanvasControls::lay_sheet);
        return out;
    };
    width_ = box(tr("Width"), object + QStringLiteral("width"), tr("Width of the canvas; the frames lie in its middle"),
                 0, 0);
    height_ = box(tr("Height"), object + QStringLiteral("height"),
                  tr("Height of the canvas; the frames lie in its middle"), 0, 1);
    dpi_ = box(tr("Dots per inch"), object + QStringLiteral("dpi"), tr("How many pixels go on an inch of paper"), 2, 0);
    dpi_->setRange(pile::lowest_dpi, pile::highest_dpi);
    dpi_->setDecimals(0);
    column->addLayout(grid);
    background_ = new NamedSlider(
        tr("Background"), tr("How bright the canvas is where nothing lies, from black to white"), 0, 100,
        [](int v) { return tr("%1%").arg(v); }, this);
    background_->slider()->setObjectName(object + QStringLiteral("background"));
    column->addWidget(background_);
    colour_ = push(tr("Colour..."), object + QStringLiteral("colour"),
                   tr("The colour of the canvas where nothing lies"), this);
    column->addWidget(colour_);
    connect(colour_, &QPushButton::clicked, this, &CanvasControls::pick_colour);
    size_ = quiet_label({}, this);
    size_->setObjectName(object + QStringLiteral("size"));
    column->addWidget(size_);
    as_frames_ = push(tr("As large as a frame"), object + QStringLiteral("as_frames"),
                      tr("The canvas is as large as a frame again"), this);
    column->addWidget(as_frames_);
    connect(measure_, &QComboBox::activated, this, [this](int) {
        CanvasSettings canvas = studio_.pile().canvas;
        canvas.measure = Measure(measure_->currentData().toInt());
        studio_.document().edit(with_canvas(studio_.pile(), canvas), tr("Measure of the canvas"));
    });
    connect(as_frames_, &QPushButton::clicked, this, [this] {
        CanvasSettings canvas = studio_.pile().canvas;
        canvas.area.reset();
        Pile next = with_canvas(with_crop(studio_.pile(), std::nullopt), canvas);
        next.cover = Cover::full;
        studio_.document().edit(std::move(next), tr("Canvas as large as a frame"));
    });
    const auto lit = [this](int value) {
        CanvasSettings canvas = studio_.pile().canvas;
        canvas.background.fill(value / 100.0);
        return with_canvas(studio_.pile(), canvas);
    };
    connect(background_, &NamedSlider::changed, this, [this, lit](int value) { viewer_.try_out(lit(value)); });
    connect(background_, &NamedSlider::settled, this, [this, lit](int value) {
        studio_.document().edit(lit(value), tr("Background of the canvas"), QStringLiteral("canvas background"));
        viewer_.leave_trial();
    });
    connect(background_, &NamedSlider::left, &viewer_, &Viewer::leave_trial);
}

void CanvasControls::lay_sheet() {
    const Pile& pile = studio_.pile();
    CanvasSettings canvas = pile.canvas;
    const Rect now = canvas_of(pile);
    // A number that was not touched is as exact as the canvas has it.
    const auto px = [&](const QDoubleSpinBox& box, int as_it_is) {
        const double shown = from_px(as_it_is, canvas.measure, canvas.dpi);
        if (std::abs(box.value() - shown) <= 0.51 * std::pow(10.0, -box.decimals()) && dpi_->value() == canvas.dpi)
            return as_it_is;
        return int(std::lround(std::clamp(in_px(box.value(), canvas.measure, dpi_->value()), least_side, most_side)));
    };
    const Size size{px(*width_, now.width), px(*height_, now.height)};
    canvas.dpi = dpi_->value();
    if (size != now.size()) canvas.area = around_reference(pile.size, size);
    Pile next = with_canvas(with_crop(pile, std::nullopt), canvas);
    // Cropped to what the frames cover there would be no sheet.
    if (canvas.area) next.cover = Cover::any;
    studio_.document().edit(std::move(next), tr("Size of the canvas"));
}

void CanvasControls::pick_colour() {
    const std::array<double, 3> now = background_in_srgb(studio_.pile());
    QColorDialog dialog(QColor::fromRgbF(float(now[0]), float(now[1]), float(now[2])), this);
    dialog.setWindowTitle(tr("Background of the canvas"));
    // Ours looks like the program, and is the same everywhere.
    dialog.setOption(QColorDialog::DontUseNativeDialog);
    connect(&dialog, &QColorDialog::currentColorChanged, this, [this](const QColor& colour) {
        viewer_.try_out(with_background_of_srgb(studio_.pile(), {colour.redF(), colour.greenF(), colour.blueF()}));
    });
    const bool taken = dialog.exec() == QDialog::Accepted;
    viewer_.leave_trial();
    const QColor colour = dialog.currentColor();
    if (taken)
        studio_.document().edit(
            with_background_of_srgb(studio_.pile(), {colour.redF(), colour.greenF(), colour.blueF()}),
            tr("Background of the canvas"));
}

void CanvasControls::show_canvas() {
    const Pile& pile = studio_.pile();
    const CanvasSettings& canvas = pile.canvas;
    const Rect area = canvas_of(pile);
    measure_->setCurrentIndex(measure_->findData(int(canvas.measure)));
    const int digits = canvas.measure == Measure::px ? 0 : canvas.measure == Measure::mm ? 1 : 2;
    const std::pair<QDoubleSpinBox*, int> sides[] = {{width_, area.width}, {height_, area.height}};
    for (const auto& [box, side] : sides) {
        const QSignalBlocker quiet(box);
        box->setDecimals(digits);
        box->setRange(from_px(least_side, canvas.measure, canvas.dpi), from_px(most_side, canvas.measure, canvas.dpi));
        box->setValue(from_px(side, canvas.measure, canvas.dpi));
    }
    const QSignalBlocker quiet(dpi_);
    dpi_->setValue(canvas.dpi);
    dpi_->setEnabled(canvas.measure != Measure::px);
    background_->set_value(int(std::lround(100 * canvas.background[0])));
    colour_->setVisible(pile.channels == 3);
    size_->setText(canvas.measure == Measure::px ? tr("%1 x %2 px").arg(area.width).arg(area.height)
                                                 : tr("%1 x %2 px at %3 dots per inch")
                                                       .arg(area.width)
                                                       .arg(area.height)
                                                       .arg(figures_in_words(canvas.dpi, 6)));
    as_frames_->setEnabled(canvas.area.has_value());
}

}  // namespace bp::app
