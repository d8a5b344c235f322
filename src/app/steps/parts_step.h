// Which frame shows where.
#pragma once

#include <QButtonGroup>
#include <QCheckBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/looks/controls.h"
#include "app/steps/part_target.h"
#include "app/steps/step_line.h"
#include "app/work/studio.h"

namespace bp::app {

class PartsStep : public StepBody {
    Q_OBJECT

  public:
    PartsStep(Studio& studio, Viewer& viewer, Canvas& canvas);
    QString title() const override { return tr("Parts"); }
    QString summary() const override;
    void opened() override { canvas_.set_painting(&target_); }
    void closed() override { canvas_.set_painting(nullptr); }

  private:
    void refresh() override;
    void refresh_list();
    int chosen() const;
    void build_brush();
    void build_list();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PartTarget target_;
    QLabel* hint_;
    QListWidget* list_;
    NamedSlider* part_strength_;
    QPushButton *up_, *down_, *remove_;
};

}  // namespace bp::app
