// Sky and land: painted, suggested, snapped to edges.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/panels/brush_panel.h"
#include "app/steps/page.h"

namespace bp::app {

class AlignZones : public Page {
    Q_OBJECT

  public:
    AlignZones(Studio& studio, Canvas& canvas, QWidget* parent);
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Canvas& canvas_;
    PileMask sky_;
    QLabel* hint_;
    BrushPanel* brush_;
    QPushButton *suggest_, *snap_, *remove_;
    NamedSlider *reach_, *feather_;
};

}  // namespace bp::app
