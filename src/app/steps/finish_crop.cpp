#include "app/steps/finish_crop.h"

#include "app/looks/controls.h"
#include "app/looks/words.h"
#include "engine/cover.h"

namespace bp::app {

FinishCrop::FinishCrop(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent)
    : Page(parent), studio_(studio), viewer_(viewer), canvas_(canvas), tool_(studio, viewer, canvas) {
    column()->addWidget(quiet_label(tr("Pull the edges on the picture, or move all of it."), this));
    controls_ = new CropControls(studio, canvas, tool_, QStringLiteral("finish_crop_"), this);
    column()->addWidget(controls_);
    column()->addWidget(heading(tr("Canvas"), this));
    sheet_ = new CanvasControls(studio, viewer, QStringLiteral("finish_sheet_"), this);
    column()->addWidget(sheet_);
    print_ = quiet_label({}, this);
    print_->setObjectName(QStringLiteral("finish_crop_print"));
    column()->addWidget(print_);
    connect(&canvas, &Canvas::tool_left, this, [this] {
        if (isVisible()) controls_->leave_horizon();
    });
    connect(&studio.document(), &Document::changed, this, &FinishCrop::out_of_date);
}

void FinishCrop::opened() {
    refresh();
    viewer_.set_view(View::cover);
    canvas_.set_tool(&tool_);
}

void FinishCrop::closed() {
    canvas_.set_tool(nullptr);
    if (viewer_.view() == View::cover) viewer_.set_view(View::result);
}

void FinishCrop::refresh() {
    if (!studio_.document().open()) return;
    controls_->show_crop();
    sheet_->show_canvas();
    const Rect area = output_area(studio_.pile());
    const double dpi = studio_.pile().canvas.dpi;
    constexpr double cm_an_inch = 2.54;
    print_->setText(tr("%1 x %2 cm at %3 dpi")
                        .arg(number_in_words(area.width / dpi * cm_an_inch, 1))
                        .arg(number_in_words(area.height / dpi * cm_an_inch, 1))
                        .arg(number_in_words(dpi, 0)));
}

}  // namespace bp::app
