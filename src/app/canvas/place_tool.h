// Moving, turning and scaling something that lies on the canvas, on the picture itself.
#pragma once

#include <QPolygonF>

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

// What is placed.
class PlaceSubject {
  public:
    enum class Way { move, turn, scale };

    virtual ~PlaceSubject() = default;
    // False while there is nothing to move.
    virtual bool works() const = 0;
    // The press of a button may choose what is moved. False where it is on nothing.
    virtual bool take_up(Point /*canvas*/) { return works(); }
    // Where turning and scaling hold the picture still unless a person says so, and where that snaps to, in canvas
    // pixels.
    virtual Point pivot() const = 0;
    // Whether a person may put it elsewhere: where it may not, a press on it moves all.
    virtual bool pivot_moves() const { return true; }
    virtual std::optional<Point> pivot_snap() const { return std::nullopt; }
    // A move that is drawn to edges nearby; `reach` in canvas pixels.
    virtual Point snapped(Point by, double /*reach*/) const { return by; }
    // `change` leads from canvas to canvas.
    virtual Pile moved(const Matrix& change) const = 0;
    virtual QString words(Way way) const = 0;
    // Its outline, in canvas pixels; none where the picture itself shows it.
    virtual QPolygonF outline() const { return {}; }
};

// A ring about a pivot: dragging the ring turns, its knot scales, the pivot itself can be moved; dragging anywhere else
// moves.
class PlaceTool final : public CanvasTool {
  public:
    PlaceTool(Studio& studio, Viewer& viewer, Canvas& canvas, PlaceSubject& subject)
        : studio_(studio), viewer_(viewer), canvas_(canvas), subject_(subject) {}

    // As the person put it, else the subject's own.
    Point pivot() const { return pivot_.value_or(subject_.pivot()); }
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
    QPointF pivot_on_screen() const;
    QPointF on_screen(Point canvas) const { return canvas_.to_screen({canvas.x + 0.5, canvas.y + 0.5}); }

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PlaceSubject& subject_;
    std::optional<Point> pivot_;
    std::optional<Hold> hold_;
    QPointF from_;
    Matrix change_;
};

}  // namespace bp::app
