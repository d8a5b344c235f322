// What is done to the picture as a whole when it is merged and laid over.
#pragma once

#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/steps/page_tabs.h"
#include "app/steps/step_line.h"

namespace bp::app {

class FinishStep : public StepBody {
    Q_OBJECT

  public:
    FinishStep(Studio& studio, Viewer& viewer, Canvas& canvas);
    QString title() const override { return tr("Finish"); }
    QString summary() const override;
    void opened() override { tabs_->opened(); }
    void closed() override;

  signals:
    void save_wanted();
    void take_wanted();

  private:
    void refresh() override;
    void build_files();

    Studio& studio_;
    Viewer& viewer_;
    PageTabs* tabs_;
    QPushButton *before_, *save_, *none_;
};

}  // namespace bp::app
