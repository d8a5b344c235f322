// Lay the frames over each other.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/miniatures.h"
#include "app/step_line.h"
#include "app/studio.h"

namespace bp::app {

class AlignStep : public StepBody {
    Q_OBJECT

  public:
    explicit AlignStep(Studio& studio);
    QString title() const override { return tr("Align"); }
    QString summary() const override;
    bool needs_look() const override;
    void opened() override;
    bool rendering() const override { return lane_.busy(); }

  private:
    void refresh();
    void render_miniatures();

    Studio& studio_;
    Lane lane_;
    MiniatureGrid* grid_;
    QLabel* facts_;
    QPushButton* reference_;
    QCheckBox* crop_;
};

}  // namespace bp::app
