// How the frames become the base.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/panels/miniatures.h"
#include "app/steps/step_line.h"

namespace bp::app {

class MergeStep : public StepBody {
    Q_OBJECT

  public:
    MergeStep(Studio& studio, Viewer& viewer);
    QString title() const override { return tr("Merge"); }
    QString summary() const override;
    bool needs_look() const override;
    void opened() override { render_miniatures(); }
    bool rendering() const override { return lane_.busy(); }

  private:
    void refresh() override;
    void render_miniatures();

    Studio& studio_;
    Viewer& viewer_;
    Lane lane_;
    MiniatureGrid* grid_;
    QLabel* facts_;
    NamedSlider* strength_;
    QCheckBox* linear_;
    QPushButton* base_;
};

}  // namespace bp::app
