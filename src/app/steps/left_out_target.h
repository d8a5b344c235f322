// What of frames is left out, as it is painted on the one that is seen: it goes for all that are selected.
#pragma once

#include <vector>

#include "app/canvas/mask_target.h"
#include "app/canvas/viewer.h"

namespace bp::app {

class LeftOutTarget : public QObject, public MaskTarget {
    Q_OBJECT

  public:
    LeftOutTarget(Studio& studio, Viewer& viewer);

    std::optional<Mask> begin() override;
    Mask read() const override { return shown_; }
    void write(const Mask& painted, const Brush& brush) override;
    const Mask* hatched() const override;
    // The frames that a stroke would go for.
    std::vector<int> frames() const;

  private:
    // Of the frame that is seen, in pixels of the canvas.
    void catch_up();

    Studio& studio_;
    Viewer& viewer_;
    Mask shown_;
};

}  // namespace bp::app
