// Sliders of numbers of the pile: tried out while they are dragged, one step of the history when they are let go.
#pragma once

#include <functional>
#include <vector>

#include "app/canvas/viewer.h"
#include "app/looks/controls.h"

namespace bp::app {

struct ValueOf {
    QString object, name, tip;
    int low = 0, high = 100;
    double unit = 1;  // of the value, a step of the slider
    QString suffix;
    int decimals = 0;
    std::function<double(const Pile&)> read;
    std::function<Pile(Pile, double)> write;
    // Of which of several things the value is: steps of the history that follow each other are one only for the same.
    std::function<int()> whose = {};
};

// Beneath each other, in the order in which they were added.
class ValueSliders : public QWidget {
    Q_OBJECT

  public:
    ValueSliders(Studio& studio, Viewer& viewer, QWidget* parent);
    void add(const ValueOf& value);
    // As the pile has them; what is in the hand stays.
    void show_values();

  private:
    Studio& studio_;
    Viewer& viewer_;
    QVBoxLayout* column_;
    std::vector<std::pair<ValueOf, NamedSlider*>> sliders_;
};

}  // namespace bp::app
