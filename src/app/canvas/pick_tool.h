// A tool that asks for a place of the picture.
#pragma once

#include <functional>

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

class PickTool final : public CanvasTool {
  public:
    PickTool(Canvas& canvas, std::function<void(Point)> picked) : canvas_(canvas), picked_(std::move(picked)) {}

    bool press(QPointF at) override {
        const QPointF p = canvas_.to_canvas(at);
        picked_({p.x() - 0.5, p.y() - 0.5});
        return true;
    }
    std::optional<QRect> drag(QPointF) override { return QRect(); }
    void release() override {}
    void cancel() override {}
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::CrossCursor; }
    void paint(QPainter&) const override {}

  private:
    Canvas& canvas_;
    std::function<void(Point)> picked_;
};

}  // namespace bp::app
