// Tone and colour of the chosen part.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/panels/tone_panel.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

class PartsLook : public Page {
    Q_OBJECT

  public:
    PartsLook(Studio& studio, Viewer& viewer, PartTarget& target, QWidget* parent);
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Viewer& viewer_;
    PartTarget& target_;
    QLabel* hint_;
    TonePanel* tone_;
    QPushButton* reset_;
};

}  // namespace bp::app
