#include "app/steps/align_cover.h"

#include "app/looks/controls.h"
#include "app/looks/words.h"
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
    controls_ = new CropControls(studio, canvas, tool_, QStringLiteral("crop_"), this);
    column()->addWidget(controls_);
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) controls_->leave_horizon();
    });
    connect(full_, &QCheckBox::clicked, this, [this](bool on) {
        Pile next = with_crop(studio_.pile(), std::nullopt);
        next.cover = on ? Cover::full : Cover::any;
        studio_.document().edit(std::move(next), on ? tr("Crop to full cover") : tr("Do not crop"));
    });
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
    facts_->setText(
        (shared.empty() ? tr("No area is reached by every frame.")
                        : tr("Every frame reaches %1 x %2 px.").arg(shared.width).arg(shared.height)) +
        QLatin1Char('\n') +
        tr("The picture keeps %1% of the canvas. Drag its edges in the Cover view.").arg(number_in_words(kept, 1)));
    full_->setChecked(!pile.crop && pile.cover == Cover::full);
    controls_->show_crop();
}

}  // namespace bp::app
