// Drawing shapes into masks: press, drag, let go.
#pragma once

#include "app/canvas/canvas.h"
#include "parts/shapes.h"

namespace bp::app {

class ShapeTool final : public CanvasTool {
  public:
    // Whether what is drawn is kept or given back goes by the brush, where that is asked for; else it is kept.
    enum class Keeps { always, as_the_brush };
    ShapeTool(Canvas& canvas, MaskTarget& target, Keeps keeps = Keeps::always)
        : canvas_(canvas), target_(target), keeps_(keeps) {}
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
    Keeps keeps_;
    ShapeKind kind_ = ShapeKind::ellipse;
    std::optional<Mask> before_;
    DrawnShape shape_;
};

}  // namespace bp::app
