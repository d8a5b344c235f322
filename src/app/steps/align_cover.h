// Where not every frame reaches, and the crop.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <array>

#include "app/canvas/crop_tool.h"
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
    void type_in();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    CropTool tool_;
    QLabel* facts_;
    QCheckBox* full_;
    QPushButton *fit_, *all_;
    std::array<QSpinBox*, 4> numbers_{};  // left, top, width, height
};

}  // namespace bp::app
