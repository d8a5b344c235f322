// How much of the machine the program may take.
#pragma once

#include <QLabel>
#include <QTimer>
#include <QWidget>

#include "app/looks/controls.h"
#include "app/work/studio.h"

namespace bp::app {

class AllowancePanel : public QWidget {
    Q_OBJECT

  public:
    AllowancePanel(Studio& studio, QWidget* parent);

  private:
    void refresh();

    Studio& studio_;
    NamedSlider* memory_;
    NamedSlider* scratch_;
    QLabel* used_;
    QTimer beat_;
};

}  // namespace bp::app
