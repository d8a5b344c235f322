// Where parts lie: moved on the picture or by numbers, on a canvas of the size of a print.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/place_tool.h"
#include "app/looks/controls.h"
#include "app/panels/canvas_controls.h"
#include "app/panels/place_numbers.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

// The part that is chosen, in the result. A press on another part chooses it.
class PlacedPart final : public PlaceSubject {
  public:
    PlacedPart(Studio& studio, const Viewer& viewer, PartTarget& target)
        : studio_(studio), viewer_(viewer), target_(target) {}
    bool works() const override;
    bool take_up(Point canvas) override;
    // The middle of the part.
    Point pivot() const override;
    bool pivot_moves() const override { return false; }
    // Its edges and its middle to those of the canvas.
    Point snapped(Point by, double reach) const override;
    Pile moved(const Matrix& change) const override;
    QString words(Way way) const override;
    QPolygonF outline() const override;

  private:
    const Part* part() const { return find_part(studio_.pile(), target_.active()); }

    Studio& studio_;
    const Viewer& viewer_;
    PartTarget& target_;
};

class PartsPlace : public Page {
    Q_OBJECT

  public:
    PartsPlace(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    void place(const MovedBy& by, bool mirrored, const QString& what);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PartTarget& target_;
    PlacedPart subject_;
    PlaceTool tool_;
    QLabel* hint_;
    QWidget* of_part_;
    PlaceNumbers* numbers_;
    QCheckBox* mirrored_;
    QPushButton* back_;
    CanvasControls* sheet_;
};

}  // namespace bp::app
