// Places of the finished picture as they are painted and drawn: the one that is chosen.
#pragma once

#include "app/canvas/mask_target.h"
#include "app/canvas/viewer.h"
#include "pile/finish_edits.h"

namespace bp::app {

class PlaceTarget : public QObject, public MaskTarget {
    Q_OBJECT

  public:
    PlaceTarget(Studio& studio, Viewer& viewer);

    int active() const { return active_; }
    void set_active(int place);
    const FinishPlace* place() const { return find_place(studio_.pile(), active_); }
    // Hatches where the place is, even where the picture shows what it does.
    void set_shown(bool on) { shown_ = on; }

    std::optional<Mask> begin() override;
    Mask read() const override;
    bool try_out(const Mask& mask, const Rect& changed) override;
    void give_up() override;
    void write(const Mask& mask, const Brush& brush) override;
    const Mask* hatched() const override;

  signals:
    void active_changed();

  private:
    Studio& studio_;
    Viewer& viewer_;
    int active_ = 0;
    bool shown_ = false;
    // What is drawn by a shape, as a mask: made when it is asked for.
    mutable std::optional<DrawnShape> drawn_;
    mutable double drawn_soft_ = 0;
    mutable Mask drawn_mask_;
};

}  // namespace bp::app
