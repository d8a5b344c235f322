#include "app/steps/parts_place.h"

#include <QColorDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "engine/part_rows.h"
#include "pile/background.h"
#include "pile/edits.h"
#include "pile/limits.h"
#include "pile/part_edits.h"

namespace bp::app {
namespace {

constexpr double least_side = 16, most_side = 60000;  // pixels

// A canvas of a size in the middle of which the reference lies.
Rect around_reference(Size reference, Size canvas) {
    return {floor_div(reference.width - canvas.width, 2), floor_div(reference.height - canvas.height, 2), canvas.width,
            canvas.height};
}

}  // namespace

bool PlacedPart::works() const {
    return viewer_.view() == View::result && part() && !part()->mask.empty();
}

bool PlacedPart::take_up(Point canvas) {
    if (viewer_.view() != View::result) return false;
    const Part* there = part_at(studio_.pile(), canvas);
    // What is chosen stays so where it lies below another.
    const Part* chosen = part();
    if (chosen && there != chosen) {
        Pile alone = studio_.pile();
        std::erase_if(alone.parts, [&](const Part& p) { return p.id != chosen->id; });
        if (part_at(alone, canvas)) return true;
    }
    if (!there) return false;
    target_.set_active(there->id);
    return true;
}

Point PlacedPart::pivot() const {
    if (!part()) return {};
    const Rect box = part()->mask.bounds();
    const Point middle{box.left + (box.width - 1) / 2.0, box.top + (box.height - 1) / 2.0};
    return part()->place ? matrix_of(*part()->place, studio_.pile().size)(middle) : middle;
}

Point PlacedPart::snapped(Point by, double reach) const {
    const Rect canvas = canvas_of(studio_.pile());
    double left = 1e9, top = 1e9, right = -1e9, bottom = -1e9;
    for (const QPointF& p : outline()) {
        left = std::min(left, p.x());
        right = std::max(right, p.x());
        top = std::min(top, p.y());
        bottom = std::max(bottom, p.y());
    }
    // The nearest of the three, when one is near.
    const auto drawn = [reach](double way, double low, double high, double to_low, double to_high) {
        double best = reach, out = way;
        for (const double off : {to_low - low, (to_low + to_high) / 2 - (low + high) / 2, to_high - high})
            if (std::abs(off - way) <= best) {
                best = std::abs(off - way);
                out = off;
            }
        return out;
    };
    return {drawn(by.x, left, right, canvas.left - 0.5, canvas.right() - 0.5),
            drawn(by.y, top, bottom, canvas.top - 0.5, canvas.bottom() - 0.5)};
}

Pile PlacedPart::moved(const Matrix& change) const {
    return with_part_placed_on(studio_.pile(), target_.active(), change);
}

QString PlacedPart::words(Way way) const {
    return way == Way::turn    ? QObject::tr("Turn part")
           : way == Way::scale ? QObject::tr("Scale part")
                               : QObject::tr("Move part");
}

QPolygonF PlacedPart::outline() const {
    if (!part()) return {};
    const Rect box = part()->mask.bounds();
    const Matrix to = part()->place ? matrix_of(*part()->place, studio_.pile().size) : Matrix{};
    QPolygonF out;
    for (const Point& corner :
         {Point{box.left - 0.5, box.top - 0.5}, Point{box.right() - 0.5, box.top - 0.5},
          Point{box.right() - 0.5, box.bottom() - 0.5}, Point{box.left - 0.5, box.bottom() - 0.5}}) {
        const Point p = to(corner);
        out << QPointF(p.x, p.y);
    }
    return out;
}

PartsPlace::PartsPlace(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent)
    : Page(parent),
      studio_(studio),
      viewer_(viewer),
      canvas_(canvas),
      target_(target),
      subject_(studio, viewer, target),
      tool_(studio, viewer, canvas, subject_) {
    hint_ = quiet_label({}, this);
    column()->addWidget(hint_);
    of_part_ = new QWidget(this);
    auto* inside = new QVBoxLayout(of_part_);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->setSpacing(space::small);
    numbers_ = new PlaceNumbers(QStringLiteral("part_place"), tr("the part"), of_part_);
    inside->addWidget(numbers_);
    auto* row = new QHBoxLayout;
    mirrored_ = new QCheckBox(tr("Mirrored"), of_part_);
    mirrored_->setObjectName(QStringLiteral("part_mirrored"));
    mirrored_->setToolTip(tr("Lays the part down left for right"));
    back_ = push(tr("Put back"), QStringLiteral("part_put_back"), tr("Lays the part where its frame has it"), of_part_);
    row->addWidget(mirrored_);
    row->addWidget(back_);
    inside->addLayout(row);
    column()->addWidget(of_part_);
    build_sheet();
    connect(numbers_, &PlaceNumbers::typed, this,
            [this](const MovedBy& by) { place(by, mirrored_->isChecked(), tr("Place part")); });
    connect(mirrored_, &QCheckBox::clicked, this, [this](bool on) {
        const Part* part = find_part(studio_.pile(), target_.active());
        if (part) place(moved_by(studio_.pile(), *part), on, tr("Mirror part"));
    });
    connect(back_, &QPushButton::clicked, this, [this] {
        studio_.document().edit(with_part_place(studio_.pile(), target_.active(), std::nullopt), tr("Put part back"));
    });
    connect(&studio.document(), &Document::changed, this, &PartsPlace::out_of_date);
    connect(&viewer, &Viewer::view_changed, this, &PartsPlace::out_of_date);
    connect(&target_, &PartTarget::active_changed, this, [this] {
        canvas_.update();
        out_of_date();
    });
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) canvas_.set_tool(nullptr);
    });
}

void PartsPlace::build_sheet() {
    column()->addWidget(heading(tr("Canvas"), this));
    measure_ = new QComboBox(this);
    measure_->setObjectName(QStringLiteral("sheet_measure"));
    measure_->setAccessibleName(tr("What the canvas is measured in"));
    measure_->setToolTip(tr("What the size of the canvas is told in; on paper it goes by the dots per inch"));
    for (const MeasureEntry& entry : measures()) measure_->addItem(word(entry.measure), int(entry.measure));
    column()->addWidget(measure_);
    auto* grid = new QGridLayout;
    const auto box = [&](const QString& name, const QString& object, const QString& tip, int row, int across) {
        auto* out = new QDoubleSpinBox(this);
        out->setObjectName(object);
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
        connect(out, &QDoubleSpinBox::valueChanged, this, &PartsPlace::lay_sheet);
        return out;
    };
    width_ =
        box(tr("Width"), QStringLiteral("sheet_width"), tr("Width of the canvas; the frames lie in its middle"), 0, 0);
    height_ = box(tr("Height"), QStringLiteral("sheet_height"),
                  tr("Height of the canvas; the frames lie in its middle"), 0, 1);
    dpi_ = box(tr("Dots per inch"), QStringLiteral("sheet_dpi"), tr("How many pixels go on an inch of paper"), 2, 0);
    dpi_->setRange(pile::lowest_dpi, pile::highest_dpi);
    dpi_->setDecimals(0);
    column()->addLayout(grid);
    background_ = new NamedSlider(
        tr("Background"), tr("How bright the canvas is where nothing lies, from black to white"), 0, 100,
        [](int v) { return tr("%1%").arg(v); }, this);
    background_->slider()->setObjectName(QStringLiteral("sheet_background"));
    column()->addWidget(background_);
    colour_ =
        push(tr("Colour..."), QStringLiteral("sheet_colour"), tr("The colour of the canvas where nothing lies"), this);
    column()->addWidget(colour_);
    connect(colour_, &QPushButton::clicked, this, &PartsPlace::pick_colour);
    size_ = quiet_label({}, this);
    size_->setObjectName(QStringLiteral("sheet_size"));
    column()->addWidget(size_);
    as_frames_ = push(tr("As large as a frame"), QStringLiteral("sheet_as_frames"),
                      tr("The canvas is as large as a frame again"), this);
    column()->addWidget(as_frames_);
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

void PartsPlace::lay_sheet() {
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

void PartsPlace::pick_colour() {
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

void PartsPlace::place(const MovedBy& by, bool mirrored, const QString& what) {
    studio_.document().edit(with_part_moved_to(studio_.pile(), target_.active(), by, mirrored), what);
}

void PartsPlace::opened() {
    viewer_.set_view(View::result);
    canvas_.set_tool(&tool_);
    refresh();
}

void PartsPlace::closed() {
    canvas_.set_tool(nullptr);
}

void PartsPlace::refresh() {
    const Pile& pile = studio_.pile();
    const Part* part = find_part(pile, target_.active());
    hint_->setText(pile.parts.empty() ? tr("There are no parts yet: paint one, or take a place from a frame.")
                   : part ? tr("Drag the part, turn it by the ring, scale it by the knot. It is drawn to the edges and "
                               "the middle of the canvas.")
                          : tr("Click on a part in the picture, or choose one in the list."));
    of_part_->setVisible(part != nullptr);
    if (part) {
        numbers_->set(moved_by(pile, *part));
        mirrored_->setChecked(part->place && part->place->mirrored);
        back_->setEnabled(part->place.has_value());
    }
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
    size_->setText(canvas.measure == Measure::px
                       ? tr("%1 x %2 px").arg(area.width).arg(area.height)
                       : tr("%1 x %2 px at %3 dots per inch").arg(area.width).arg(area.height).arg(canvas.dpi));
    as_frames_->setEnabled(canvas.area.has_value());
}

}  // namespace bp::app
