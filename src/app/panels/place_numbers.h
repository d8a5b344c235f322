// Where something lies, in numbers that can be typed.
#pragma once

#include <QDoubleSpinBox>
#include <QWidget>
#include <array>

#include "align/moved.h"

namespace bp::app {

class PlaceNumbers : public QWidget {
    Q_OBJECT

  public:
    // The boxes are called `object`_right, _down, _turn and _scale; `what` is what they place, in words.
    PlaceNumbers(const QString& object, const QString& what, QWidget* parent);
    // Shown without a signal. `moves_alone`: it can neither be turned nor scaled.
    void set(const MovedBy& now, bool moves_alone = false);

  signals:
    // A number that was not touched is as exact as it was set.
    void typed(const bp::MovedBy& then);

  private:
    void type_in();

    std::array<QDoubleSpinBox*, 4> numbers_{};  // right, down, turn, scale
    MovedBy now_;
};

}  // namespace bp::app
