// The brush with which masks are painted: what it does, its size, softness and strength.
#pragma once

#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/looks/controls.h"

namespace bp::app {

class BrushPanel : public QWidget {
    Q_OBJECT

  public:
    struct Words {
        QString keep, keep_tip;
        QString give_back, give_back_tip;
    };
    // Masks that are only a yes or a no need no softness and strength.
    enum class Kind { soft, plain };
    // `name` begins the object names of its controls.
    BrushPanel(Canvas& canvas, const QString& name, const Words& words, Kind kind, MaskTarget& on, QWidget* parent);

  private:
    void refresh();

    Canvas& canvas_;
    MaskTarget& on_;
    QPushButton *keep_, *give_back_;
    NamedSlider *size_, *softness_, *strength_;
};

}  // namespace bp::app
