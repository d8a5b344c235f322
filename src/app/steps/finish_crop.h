// The crop of the finished picture: the same that the Cover of Align shows.
#pragma once

#include <QLabel>

#include "app/panels/canvas_controls.h"
#include "app/panels/crop_controls.h"
#include "app/steps/page.h"

namespace bp::app {

class FinishCrop : public Page {
    Q_OBJECT

  public:
    FinishCrop(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    CropTool tool_;
    CropControls* controls_;
    CanvasControls* sheet_;
    QLabel* print_;
};

}  // namespace bp::app
