// What is pointed at among parts: a row of the list or a slat of the rail outlines its part on the picture, a place of
// the picture marks the slat of the frame whose part shows there. A click on the tag below a slat shows or hides the
// parts of its frame.
#pragma once

#include <QListWidget>

#include "app/canvas/canvas.h"
#include "app/rail/time_rail.h"

namespace bp::app {

class PartsPointing : public QObject {
    Q_OBJECT

  public:
    // `list` has the ids of parts as Qt::UserRole. Works while the list is to be seen.
    PartsPointing(Studio& studio, Viewer& viewer, Canvas& canvas, TimeRail& rail, QListWidget& list, QObject* parent);

  protected:
    bool eventFilter(QObject*, QEvent* event) override;

  private:
    void outline(int part);
    void outline_of_frame(int frame);
    void point_at(QPointF canvas);
    void show_or_hide(int frame);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    TimeRail& rail_;
    QListWidget& list_;
    int part_ = 0;  // that is outlined
};

}  // namespace bp::app
