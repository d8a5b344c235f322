// Where not every frame reaches, and the crop.
#pragma once

#include <QCheckBox>
#include <QLabel>

#include "app/panels/crop_controls.h"
#include "app/steps/page.h"

namespace bp::app {

class AlignCover : public Page {
    Q_OBJECT

  public:
    AlignCover(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    CropTool tool_;
    QLabel* facts_;
    QCheckBox* full_;
    CropControls* controls_;
};

}  // namespace bp::app
