// Parts as they are painted: that of the frame that is seen, or the one that is chosen in the result.
#pragma once

#include "app/canvas/mask_target.h"
#include "app/canvas/viewer.h"

namespace bp::app {

class PartTarget : public QObject, public MaskTarget {
    Q_OBJECT

  public:
    PartTarget(Studio& studio, Viewer& viewer);

    int active() const { return active_; }
    void set_active(int part);

    std::optional<Mask> begin() override;
    Mask read() const override;
    bool try_out(const Mask& mask, const Rect& changed) override;
    void give_up() override;
    void write(const Mask& mask, const Brush& brush) override;
    const Mask* hatched() const override;

  signals:
    void active_changed();

  private:
    int part_to_paint() const;
    // Where the part of the stroke lies that was placed; none where its mask is painted as it is.
    std::optional<Placement> placed() const;
    // Its mask with what the stroke changed on the canvas.
    Mask painted(const Mask& on_canvas) const;

    Studio& studio_;
    Viewer& viewer_;
    int active_ = 0;
    int part_ = 0;   // of the stroke; 0 for a part that it makes
    int frame_ = 0;  // that it is made from
};

}  // namespace bp::app
