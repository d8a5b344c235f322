// How the picture is shown as it comes into being.
#pragma once

#include <QComboBox>
#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>

#include "app/looks/controls.h"
#include "pile/pile.h"

namespace bp::app {

class GrowthDialog : public QDialog {
    Q_OBJECT

  public:
    GrowthDialog(const Pile& pile, QWidget* parent);
    GrowthSettings settings() const;

  private:
    void refresh();

    Pile pile_;
    QComboBox* kind_;
    QDoubleSpinBox *rate_, *seconds_, *hold_;
    QComboBox* lines_;
    NamedSlider* quality_;
    QLabel* facts_;
    QPushButton* write_;
};

}  // namespace bp::app
