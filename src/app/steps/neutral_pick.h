// A place of the picture is pointed at that was grey: what takes the cast of light away.
#pragma once

#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/canvas/pick_tool.h"
#include "app/work/studio.h"

namespace bp::app {

class NeutralPick : public QObject {
    Q_OBJECT

  public:
    // `render` gives an area of the picture before the look that is set.
    using Render = std::function<Result<Raster16>(FrameStore&, const Rect&, Job&)>;
    // `order`: made when a place is pointed at. `button`: takes the tool up and puts it down.
    NeutralPick(Studio& studio, Canvas& canvas, QPushButton* button, std::function<Render()> order, QObject* parent);

  signals:
    // Linear light of red, green and blue there.
    void picked(const std::array<double, 3>& light);

  private:
    void look(Point at);

    Studio& studio_;
    Canvas& canvas_;
    QPushButton* button_;
    std::function<Render()> order_;
    PickTool tool_;
    Lane lane_;
};

}  // namespace bp::app
