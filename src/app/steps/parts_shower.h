// The meteors of all frames over one.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/canvas/meteor_tool.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"
#include "app/work/studio.h"

namespace bp::app {

class PartsShower : public Page {
    Q_OBJECT

  public:
    PartsShower(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent);

  protected:
    void opened() override;
    void closed() override;

  private:
    void refresh() override;
    // Meteors of the pile, or those that show.
    int count(bool shown) const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    MeteorTool tool_;
    QLabel* hint_;
    QPushButton* all_;
};

}  // namespace bp::app
