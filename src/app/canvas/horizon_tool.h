// A line drawn along what is to be level, or upright.
#pragma once

#include <functional>

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

class HorizonTool final : public CanvasTool {
  public:
    // `drawn` is given the degrees by which the picture is to be turned on, clockwise.
    HorizonTool(Canvas& canvas, std::function<void(double)> drawn) : canvas_(canvas), drawn_(std::move(drawn)) {}

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override { from_.reset(); }
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::CrossCursor; }
    void paint(QPainter& painter) const override;

  private:
    Canvas& canvas_;
    std::function<void(double)> drawn_;
    std::optional<QPointF> from_;
    QPointF to_;
};

}  // namespace bp::app
