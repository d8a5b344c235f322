// Parts that are painted, and lit frames that are switched on as a whole.
#pragma once

#include <QLabel>

#include "app/canvas/canvas.h"
#include "app/panels/found_list.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

class PartsPaint : public Page {
    Q_OBJECT

  public:
    PartsPaint(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent);
    void opened() override { canvas_.set_painting(&target_); }
    void closed() override { canvas_.set_painting(nullptr); }

  private:
    void refresh() override;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PartTarget& target_;
    QLabel* hint_;
    FoundList* lit_;
};

}  // namespace bp::app
