// How much of the machine the program may take, in a small panel that opens under its button.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QTimer>

#include "app/looks/controls.h"
#include "app/work/studio.h"

namespace bp::app {

class AllowancePanel : public QFrame {
    Q_OBJECT

  public:
    AllowancePanel(Studio& studio, QWidget* parent);
    void open_below(const QWidget& button);

  private:
    void refresh();

    Studio& studio_;
    NamedSlider* memory_;
    NamedSlider* scratch_;
    QLabel* used_;
    QTimer beat_;
};

}  // namespace bp::app
