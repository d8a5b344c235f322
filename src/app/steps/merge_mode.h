// The mode in which the frames become the base.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/panels/miniatures.h"
#include "app/steps/merge_noise.h"
#include "app/steps/page.h"
#include "app/work/studio.h"

namespace bp::app {

class MergeMode : public Page {
    Q_OBJECT

  public:
    MergeMode(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent);
    void opened() override { render_miniatures(); }
    bool rendering() const override { return lane_.busy(); }

  private:
    void refresh() override;
    void render_miniatures();

    Studio& studio_;
    Viewer& viewer_;
    Lane lane_;
    MiniatureGrid* grid_;
    MadeOf made_of_;
    QLabel* facts_;
    NamedSlider* strength_;
    QCheckBox* pixels_;
    QCheckBox* soft_white_;
    QCheckBox* linear_;
    QPushButton* base_;
    MergeNoise* noise_;
};

}  // namespace bp::app
