// Frames shown one after the other: a button and how quickly.
#pragma once

#include <QComboBox>
#include <QPushButton>
#include <QTimer>
#include <QWidget>

#include "app/canvas/viewer.h"

namespace bp::app {

class PlayBar : public QWidget {
    Q_OBJECT

  public:
    PlayBar(Studio& studio, Viewer& viewer, QWidget* parent);

    bool playing() const { return beat_.isActive(); }
    void set_playing(bool on);

  private:
    void step();

    Studio& studio_;
    Viewer& viewer_;
    QTimer beat_;
    QPushButton* play_;
    QComboBox* rate_;
};

}  // namespace bp::app
