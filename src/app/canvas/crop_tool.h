// The crop, drawn and dragged on the picture.
#pragma once

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

// Works in the Cover view, where all of the canvas is seen: edges and corners of the crop can be dragged, its inside
// moves it.
class CropTool final : public CanvasTool {
  public:
    static constexpr int least = 16;  // pixels of the picture that a crop keeps each way
    CropTool(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {}

    // Width over height that the crop keeps while it is pulled; none: any.
    void set_ratio(std::optional<double> ratio) { ratio_ = ratio; }

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    bool taken_up() const override { return false; }
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint(QPainter& painter) const override;

  private:
    // Which edges follow the pointer: -1 the left or upper one, 1 the right or lower one, 0 none; none of all: the
    // whole.
    struct Hold {
        int across = 0;
        int down = 0;
    };
    std::optional<Hold> hold_at(QPointF at) const;
    // A crop that was pulled freely, in the tool's ratio: what is not held stays where it was, or in the middle.
    Rect in_ratio(const Rect& pulled, const Rect& canvas) const;
    Rect crop() const;
    QRectF on_screen() const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    std::optional<Hold> hold_;
    QPointF from_;
    Rect before_;
    std::optional<Rect> now_;
    std::optional<double> ratio_;
};

}  // namespace bp::app
