// Write the picture.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>

#include "app/canvas/canvas.h"
#include "app/looks/controls.h"
#include "app/steps/step_line.h"
#include "app/work/studio.h"

namespace bp::app {

class ExportStep : public StepBody {
    Q_OBJECT

  public:
    ExportStep(Studio& studio, Viewer& viewer, Canvas& canvas);
    QString title() const override { return tr("Export"); }
    QString summary() const override;

  signals:
    void export_wanted();

  private:
    void refresh() override;
    void build_profile();
    void build_size();
    void build_check();
    void show_flaws(const std::vector<Flawed>& flaws);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    QPushButton* check_;
    QLabel* checked_;
    QListWidget* flaws_;
    std::vector<Flawed> found_;
    QComboBox* format_;
    NamedSlider* quality_;
    QComboBox* profile_;
    QSpinBox* edge_;
    QDoubleSpinBox *paper_, *dpi_;
    NamedSlider* sharpen_;
    QLabel* facts_;
    QLabel* last_;
    QPushButton* write_;
};

}  // namespace bp::app
