#include "app/steps/align_cover.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QSignalBlocker>
#include <algorithm>

#include "app/looks/controls.h"
#include "engine/cover.h"
#include "pile/edits.h"

namespace bp::app {

AlignCover::AlignCover(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(studio, viewer, canvas) {
    facts_ = quiet_label({}, this);
    column()->addWidget(facts_);
    full_ = new QCheckBox(tr("Crop to full cover"), this);
    full_->setObjectName(QStringLiteral("full_cover"));
    full_->setToolTip(tr("Cuts off the edges that not every frame reaches, and follows when frames move"));
    column()->addWidget(full_);
    auto* row = new QHBoxLayout;
    fit_ = push(tr("Full cover"), QStringLiteral("crop_full"),
                tr("The largest rectangle that every frame reaches, to begin a crop with"), this);
    all_ = push(tr("Whole canvas"), QStringLiteral("crop_all"), tr("All of the canvas, to begin a crop with"), this);
    row->addWidget(fit_);
    row->addWidget(all_);
    column()->addLayout(row);
    auto* grid = new QGridLayout;
    const std::array<std::array<QString, 3>, 4> kinds{{
        {tr("Left"), QStringLiteral("crop_left"), tr("Where the picture begins on the canvas")},
        {tr("Top"), QStringLiteral("crop_top"), tr("Where the picture begins on the canvas")},
        {tr("Width"), QStringLiteral("crop_width"), tr("Width of the picture")},
        {tr("Height"), QStringLiteral("crop_height"), tr("Height of the picture")},
    }};
    for (std::size_t i = 0; i < kinds.size(); ++i) {
        auto* box = new QSpinBox(this);
        box->setObjectName(kinds[i][1]);
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
        connect(box, &QSpinBox::valueChanged, this, &AlignCover::type_in);
    }
    for (const int half : {0, 1}) grid->setColumnStretch(half, 1);
    column()->addLayout(grid);
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) canvas_.set_tool(nullptr);
    });
    const auto crop = [this](std::optional<Rect> area, const QString& what) {
        studio_.document().edit(with_crop(studio_.pile(), area), what);
    };
    connect(full_, &QCheckBox::clicked, this, [this](bool on) {
        Pile next = with_crop(studio_.pile(), std::nullopt);
        next.cover = on ? Cover::full : Cover::any;
        studio_.document().edit(std::move(next), on ? tr("Crop to full cover") : tr("Do not crop"));
    });
    connect(fit_, &QPushButton::clicked, this,
            [this, crop] { crop(full_cover(studio_.pile()), tr("Crop to full cover")); });
    connect(all_, &QPushButton::clicked, this, [this, crop] { crop(canvas_of(studio_.pile()), tr("Do not crop")); });
}

void AlignCover::type_in() {
    studio_.document().edit(with_crop(studio_.pile(), Rect{numbers_[0]->value(), numbers_[1]->value(),
                                                           numbers_[2]->value(), numbers_[3]->value()}),
                            tr("Crop"), QStringLiteral("crop typed"));
}

void AlignCover::opened() {
    refresh();
    viewer_.set_view(View::cover);
    canvas_.set_tool(&tool_);
}

void AlignCover::closed() {
    canvas_.set_tool(nullptr);
    if (viewer_.view() == View::cover) viewer_.set_view(View::result);
}

void AlignCover::refresh() {
    const Pile& pile = studio_.pile();
    if (!studio_.document().open() || !isVisible()) return;
    const Rect shared = full_cover(pile);
    const Rect area = output_area(pile);
    const Rect canvas = canvas_of(pile);
    const double kept = 100.0 * area.width * area.height / (double(canvas.width) * canvas.height);
    facts_->setText((shared.empty() ? tr("No area is reached by every frame.")
                                    : tr("Every frame reaches %1 x %2 px.").arg(shared.width).arg(shared.height)) +
                    QLatin1Char('\n') +
                    tr("The picture keeps %1% of the canvas. Drag its edges in the Cover view.").arg(kept, 0, 'f', 1));
    full_->setChecked(!pile.crop && pile.cover == Cover::full);
    fit_->setEnabled(!shared.empty());
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
