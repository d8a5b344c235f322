// Over the canvas while there is something to choose: what is held against what.
#pragma once

#include <QComboBox>
#include <QPushButton>
#include <QWidget>

#include "app/canvas/comparison.h"
#include "app/canvas/viewer.h"

namespace bp::app {

class ViewBar : public QWidget {
    Q_OBJECT

  public:
    ViewBar(Viewer& viewer, Comparison& comparison, QWidget* parent);

  private:
    void build_difference();
    void build_pair();
    void refresh();

    Viewer& viewer_;
    Comparison& comparison_;
    QWidget* difference_;
    QComboBox* against_;
    QComboBox* gain_;
    QComboBox* second_;
    QPushButton* hold_;
    QPushButton* swap_;
};

}  // namespace bp::app
