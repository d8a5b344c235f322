// Sensor spots, marked on the picture.
#pragma once

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"

namespace bp::app {

// A click on a frame marks a spot of the size of the brush, takes up a place that was suggested, or gives back a spot
// that is mended already.
class SpotTool final : public CanvasTool {
  public:
    SpotTool(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {}

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF) override { return std::nullopt; }
    void release() override {}
    void cancel() override {}
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint(QPainter& painter) const override;

    // Half the width over which a suspected spot is mended: its rim is soft.
    static double mended_radius(const SpotGuess& guess) { return 1.5 * guess.radius_px; }
    // Brings a place of the sensor to the middle of the canvas, at full size at least.
    void look_at(Point sensor);

  private:
    // On the sensor of the frame that is looked at, by place on the screen, and back.
    Point on_sensor(QPointF screen) const;
    QPointF on_screen(Point sensor) const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
};

}  // namespace bp::app
