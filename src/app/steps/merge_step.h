// How the frames become the base.
#pragma once

#include "app/canvas/canvas.h"
#include "app/steps/merge_mode.h"
#include "app/steps/page_tabs.h"
#include "app/steps/step_line.h"

namespace bp::app {

class MergeStep : public StepBody {
    Q_OBJECT

  public:
    MergeStep(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison);
    QString title() const override { return tr("Merge"); }
    QString summary() const override;
    bool needs_look() const override;
    bool shows_taper() const override { return true; }
    void opened() override { tabs_->opened(); }
    void closed() override { tabs_->closed(); }
    bool rendering() const override { return mode_->rendering(); }

  private:
    void refresh() override {}

    Studio& studio_;
    PageTabs* tabs_;
    MergeMode* mode_;
};

}  // namespace bp::app
