// Gather the run and look through it.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/step_line.h"
#include "app/studio.h"

namespace bp::app {

class FramesStep : public StepBody {
    Q_OBJECT

  public:
    explicit FramesStep(Studio& studio);
    QString title() const override { return tr("Frames"); }
    QString summary() const override;
    bool needs_look() const override;

  private:
    void refresh();

    Studio& studio_;
    QLabel* facts_;
    QLabel* problems_;
    QPushButton* aside_;
    QPushButton* find_;
    QComboBox* role_;
};

}  // namespace bp::app
