// Areas of frames that take no part in the merge.
#pragma once

#include <QPushButton>

#include "app/canvas/shape_tool.h"
#include "app/panels/brush_panel.h"
#include "app/panels/found_list.h"
#include "app/steps/left_out_target.h"
#include "app/steps/merge_streaks.h"
#include "app/steps/page.h"

namespace bp::app {

class MergeLeaveOut : public Page {
    Q_OBJECT

  public:
    MergeLeaveOut(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;

  private:
    void refresh() override;
    void take_up(ShapeKind kind, bool on);
    void put_down();
    void put_down_shapes();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    LeftOutTarget target_;
    ShapeTool tool_;
    QLabel* hint_;
    QPushButton *ellipse_, *band_;
    FoundList* frames_;
    MergeStreaks* streaks_;
    QLabel* nobody_;
};

}  // namespace bp::app
