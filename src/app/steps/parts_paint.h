// Parts that are painted, and lit frames that are switched on as a whole.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/panels/found_list.h"
#include "app/rail/time_rail.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

class PartsPaint : public Page {
    Q_OBJECT

  public:
    PartsPaint(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail, PartTarget& target, QWidget* parent);
    void opened() override;
    void closed() override;

  private:
    void refresh() override;
    void build_taking();
    void point_at(QPointF canvas);
    void take(int frame, bool take);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    TimeRail& rail_;
    PartTarget& target_;
    QLabel* hint_;
    QPushButton *hold_, *take_;
    FoundList* lit_;
    // What was taken last: one more click there takes more.
    struct Taken {
        int frame = 0;
        bool take = true;
        QPointF at;
        int more = 0;
    };
    std::optional<Taken> last_;
};

}  // namespace bp::app
