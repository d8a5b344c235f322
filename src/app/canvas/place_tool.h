// Moving, turning and scaling the frame that is looked at, on the picture itself.
#pragma once

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

// A ring about a pivot: dragging the ring turns, its knot scales, the pivot itself can be moved and snaps to the pole
// of the sky; dragging anywhere else moves the frame.
class PlaceTool final : public CanvasTool {
  public:
    PlaceTool(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {}

    // Where turning and scaling hold the picture still, in canvas pixels: as the person put it, else the pole of the
    // sky, else the middle.
    Point pivot() const;
    void forget_pivot() { pivot_.reset(); }

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    bool taken_up() const override { return false; }
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint(QPainter& painter) const override;

  private:
    enum class Hold { pivot, turn, scale, move };
    // None when there is nothing to move here.
    std::optional<Hold> hold_at(QPointF at) const;
    bool works() const;
    QPointF pivot_on_screen() const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    std::optional<Point> pivot_;
    std::optional<Hold> hold_;
    QPointF from_;
    Matrix change_;
};

}  // namespace bp::app
