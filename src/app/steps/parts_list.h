// All parts of a pile, the uppermost first, and what can be said of the chosen one.
#pragma once

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QScrollBar>

#include "app/looks/controls.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

class PartsList : public Page {
    Q_OBJECT

  public:
    PartsList(Studio& studio, Viewer& viewer, PartTarget& target, QWidget* parent);
    QListWidget& rows() { return *list_; }

  private:
    void refresh() override;
    void build_chosen();
    QIcon picture_of(const Part& part, double hidden) const;
    int chosen() const;

    Studio& studio_;
    Viewer& viewer_;
    PartTarget& target_;
    QListWidget* list_;
    QWidget* of_chosen_;
    QComboBox* join_;
    NamedSlider* strength_;
    QComboBox* edge_;
    NamedSlider* band_;
    QLabel* hidden_;
    QPushButton *up_, *down_, *remove_;
};

}  // namespace bp::app
