// One frame moved by hand over the reference: by keys, by typed numbers, by handles on the picture.
#pragma once

#include <QLabel>
#include <QPushButton>
#include <vector>

#include "app/canvas/place_tool.h"
#include "app/panels/place_numbers.h"
#include "app/steps/page.h"

namespace bp::app {

// The frame that is looked at.
class PlacedFrame final : public PlaceSubject {
  public:
    PlacedFrame(Studio& studio, const Viewer& viewer) : studio_(studio), viewer_(viewer) {}
    bool works() const override;
    // The pole of the sky, else the middle.
    Point pivot() const override;
    std::optional<Point> pivot_snap() const override;
    Pile moved(const Matrix& change) const override;
    QString words(Way way) const override;

  private:
    Studio& studio_;
    const Viewer& viewer_;
};

class AlignHand : public Page {
    Q_OBJECT

  public:
    AlignHand(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    void build_pad();
    // Moves the frame that is looked at, in steps of what is chosen, and turns it about the pivot.
    void nudge(double right, double down, double turns);
    void type_in(const MovedBy& then);
    void set_flicker(bool on);
    // The frame that can be moved, or null.
    const Frame* movable() const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    Comparison& comparison_;
    PlacedFrame subject_;
    PlaceTool tool_;
    QLabel* hint_;
    QWidget* all_;
    std::vector<QPushButton*> paces_;
    PlaceNumbers* numbers_;
    QPushButton *refine_, *flicker_;
};

}  // namespace bp::app
