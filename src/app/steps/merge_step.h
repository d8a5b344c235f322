// How the frames become the base.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/controls.h"
#include "app/miniatures.h"
#include "app/step_line.h"
#include "app/viewer.h"

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
    void refresh();
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
