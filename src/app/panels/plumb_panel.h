// On the right, when asked for: a point of the picture through all frames of the pile, and what can be done about the
// frame that is to blame.
#pragma once

#include <QCheckBox>
#include <QFrame>
#include <QLabel>
#include <QPointF>
#include <QPushButton>
#include <optional>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/panels/plumb_chart.h"
#include "app/panels/plumb_patches.h"
#include "app/work/jobs.h"
#include "app/work/studio.h"

namespace bp::app {

class PlumbPanel : public QFrame {
    Q_OBJECT

  public:
    PlumbPanel(Studio& studio, Viewer& viewer, QWidget* parent);

    // A point of the canvas, in pixels of level 0. Nothing while the panel is closed.
    void look_at(QPointF place);
    std::optional<QPointF> place() const { return place_; }
    const std::optional<Plumb>& plumb() const { return plumb_; }
    // How often a point was looked at and found so far.
    long found() const { return found_; }

  signals:
    // Another point, or none, or the panel was opened or closed.
    void place_changed();

  protected:
    void showEvent(QShowEvent*) override;
    void hideEvent(QHideEvent*) override;

  private:
    void look();
    void show_found();
    void choose(int frame);
    void refresh_chosen();
    void leave_place_out();
    int level() const;

    Studio& studio_;
    Viewer& viewer_;
    Lane lane_;
    std::optional<QPointF> place_;
    std::optional<Plumb> plumb_;
    long found_ = 0;
    int level_ = 0;   // of the plumb
    int chosen_ = 0;  // the frame that the buttons are for
    QLabel* where_;
    PlumbChart* chart_;
    QLabel* shows_;
    QLabel* of_chosen_;
    QPushButton* go_;
    QPushButton* aside_;
    QPushButton* leave_out_;
    NamedSlider* size_;
    QCheckBox* with_patches_;
    PlumbPatches* patches_;
};

}  // namespace bp::app
