// Drawing shapes into masks: press, drag, let go.
#pragma once

#include "app/canvas/canvas.h"
#include "parts/shapes.h"

namespace bp::app {

class ShapeTool final : public CanvasTool {
  public:
    ShapeTool(Canvas& canvas, MaskTarget& target) : canvas_(canvas), target_(target) {}
    void set_kind(ShapeKind kind) { kind_ = kind; }
    ShapeKind kind() const { return kind_; }

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::CrossCursor; }
    void paint_below(QPainter& painter, const QRect& shown) const override;
    void paint(QPainter& painter) const override;

  private:
    Point on_canvas(QPointF at) const;

    Canvas& canvas_;
    MaskTarget& target_;
    ShapeKind kind_ = ShapeKind::ellipse;
    std::optional<Mask> before_;
    DrawnShape shape_;
};

}  // namespace bp::app
