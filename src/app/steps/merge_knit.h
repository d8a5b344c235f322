// Closing the breaks in trails.
#pragma once

#include <QCheckBox>
#include <QLabel>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"
#include "app/work/studio.h"

namespace bp::app {

// Controls of a page: the page says when they are to be brought up to date.
class MergeKnit : public QWidget {
    Q_OBJECT

  public:
    MergeKnit(Studio& studio, Viewer& viewer, QWidget* parent);
    void refresh();

  private:
    Studio& studio_;
    Viewer& viewer_;
    QCheckBox* on_;
    NamedSlider* longest_;
    QCheckBox* show_;
    QLabel* facts_;
};

}  // namespace bp::app
