// A ramp or an ellipse of a place: drawn, and pulled by its knots.
#pragma once

#include <functional>

#include "app/canvas/canvas.h"
#include "parts/shapes.h"

namespace bp::app {

class PlaceShapeTool final : public CanvasTool {
  public:
    struct Uses {
        // The shape that can be pulled; none where there is none.
        std::function<std::optional<DrawnShape>()> read;
        std::function<void(const DrawnShape&)> try_out;
        std::function<void()> give_up;
        // One that was pulled, and one that was drawn anew.
        std::function<void(const DrawnShape&)> pulled;
        std::function<void(const DrawnShape&)> drawn;
        // Hatched below; null for nothing.
        std::function<const Mask*()> hatched;
    };
    PlaceShapeTool(Canvas& canvas, Uses uses) : canvas_(canvas), uses_(std::move(uses)) {}

    // The next drag draws one of this kind; none: what is there is pulled.
    void draw(std::optional<ShapeKind> kind) { kind_ = kind; }
    std::optional<ShapeKind> draws() const { return kind_; }

    bool press(QPointF at) override;
    bool taken_up() const override { return kind_.has_value(); }
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint_below(QPainter& painter, const QRect& shown) const override;
    void paint(QPainter& painter) const override;

  private:
    enum class Hold { from, to, whole };
    std::optional<Hold> hold_at(const DrawnShape& shape, QPointF at) const;
    Point on_canvas(QPointF at) const;
    QPointF on_screen(Point at) const { return canvas_.to_screen({at.x + 0.5, at.y + 0.5}); }
    std::optional<DrawnShape> shown() const;

    Canvas& canvas_;
    Uses uses_;
    std::optional<ShapeKind> kind_;
    std::optional<Hold> hold_;
    QPointF from_;
    DrawnShape before_, now_;
};

}  // namespace bp::app
