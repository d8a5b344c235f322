// Write the picture.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/looks/controls.h"
#include "app/steps/step_line.h"
#include "app/work/studio.h"

namespace bp::app {

class ExportStep : public StepBody {
    Q_OBJECT

  public:
    explicit ExportStep(Studio& studio);
    QString title() const override { return tr("Export"); }
    QString summary() const override;

  signals:
    void export_wanted();

  private:
    void refresh() override;

    Studio& studio_;
    QComboBox* format_;
    NamedSlider* quality_;
    QLabel* facts_;
    QLabel* last_;
    QPushButton* write_;
};

}  // namespace bp::app
