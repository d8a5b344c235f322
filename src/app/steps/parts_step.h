// Which frame shows where.
#pragma once

#include "app/canvas/canvas.h"
#include "app/rail/time_rail.h"
#include "app/steps/page_tabs.h"
#include "app/steps/part_target.h"
#include "app/steps/step_line.h"
#include "app/work/studio.h"

namespace bp::app {

class PartsStep : public StepBody {
    Q_OBJECT

  public:
    PartsStep(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail);
    QString title() const override { return tr("Parts"); }
    QString summary() const override;
    void opened() override { tabs_->opened(); }
    void closed() override { tabs_->closed(); }

  private:
    void refresh() override {}

    Studio& studio_;
    PartTarget target_;
    PageTabs* tabs_;
};

}  // namespace bp::app
