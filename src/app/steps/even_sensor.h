// What the sensor adds to every frame: darks, hot pixels, dust.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/canvas/spot_tool.h"
#include "app/looks/controls.h"
#include "app/panels/found_list.h"
#include "app/steps/page.h"

namespace bp::app {

class EvenSensor : public Page {
    Q_OBJECT

  public:
    EvenSensor(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void closed() override { mark_->setChecked(false); }

  private:
    // A spot in the list: one that is mended, or one that is only suspected.
    struct Spot {
        Point at;
        double radius_px;
        bool mended;
    };
    std::vector<Spot> spots() const;
    void refresh() override;
    void refresh_spots();
    void show_spot(int key);
    void decide(const std::vector<int>& keys, bool mend);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    SpotTool tool_;
    QCheckBox *darks_, *scaled_, *hot_;
    QLabel* useless_;
    QPushButton *mark_, *suggest_;
    NamedSlider* spot_size_;
    FoundList* spots_;
};

}  // namespace bp::app
