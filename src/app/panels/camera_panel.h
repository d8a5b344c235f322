// The practice camera: which scene, how exposed, how many.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>

#include "app/work/arriving.h"

namespace bp::app {

class CameraPanel : public QFrame {
    Q_OBJECT

  public:
    CameraPanel(Arriving& arriving, QWidget* parent);
    CameraSettings settings() const;
    void open_over(const QWidget& window);

  signals:
    void start_wanted(const bp::app::CameraSettings& settings);

  private:
    void take_scene();
    void refresh();

    Arriving& arriving_;
    QComboBox* scene_;
    QDoubleSpinBox* exposure_;
    QDoubleSpinBox* pause_;
    QSpinBox* frames_;
    QComboBox* pace_;
    QLabel* time_;
    QPushButton* start_;
};

}  // namespace bp::app
