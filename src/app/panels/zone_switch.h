// Which zone a step works on; seen only when the picture is divided.
#pragma once

#include <QPushButton>

#include "app/work/studio.h"

namespace bp::app {

class ZoneSwitch : public QWidget {
    Q_OBJECT

  public:
    // `name` begins the object names of its buttons.
    ZoneSwitch(Studio& studio, const QString& name, QWidget* parent);
    // Steps may have no use for it at times.
    void set_wanted(bool wanted);

  private:
    void refresh();

    Studio& studio_;
    QPushButton *sky_, *land_;
    bool wanted_ = true;
};

}  // namespace bp::app
