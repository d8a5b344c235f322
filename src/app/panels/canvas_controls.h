// What the picture lies on: a sheet in pixels, millimetres or inches, and what shows where nothing lies.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"

namespace bp::app {

class CanvasControls : public QWidget {
    Q_OBJECT

  public:
    // Its controls are called `object` and what they are.
    CanvasControls(Studio& studio, Viewer& viewer, const QString& object, QWidget* parent);
    void show_canvas();

  private:
    void pick_colour();
    // The canvas as it is typed.
    void lay_sheet();

    Studio& studio_;
    Viewer& viewer_;
    QComboBox* measure_;
    QDoubleSpinBox *width_, *height_, *dpi_;
    NamedSlider* background_;
    QPushButton* colour_;
    QLabel* size_;
    QPushButton* as_frames_;
};

}  // namespace bp::app
