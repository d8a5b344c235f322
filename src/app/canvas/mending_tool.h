// Spots and lines to mend, drawn on the picture; those that are there are chosen and moved.
#pragma once

#include <functional>
#include <vector>

#include "app/canvas/canvas.h"
#include "finish/mend.h"

namespace bp::app {

class MendingTool final : public CanvasTool {
  public:
    struct Uses {
        std::function<const std::vector<Mended>&()> all;
        std::function<int()> chosen;  // its id; 0 for none
        std::function<void(int)> choose;
        std::function<void(const Mended&)> try_out;
        std::function<void()> give_up;
        std::function<void(const Mended&)> moved;
        // A spot, or a line along which was drawn, in pixels of the canvas.
        std::function<void(std::vector<Point>)> drawn;
    };
    MendingTool(Canvas& canvas, Uses uses) : canvas_(canvas), uses_(std::move(uses)) {}

    bool press(QPointF at) override;
    bool taken_up() const override { return false; }
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::CrossCursor; }
    void paint(QPainter& painter) const override;

  private:
    enum class Hold { drawing, place, source };
    Point on_canvas(QPointF at) const;
    QPointF on_screen(Point at) const { return canvas_.to_screen({at.x + 0.5, at.y + 0.5}); }
    const Mended* at(Point p) const;
    const Mended* chosen() const;
    void paint_one(QPainter& painter, const Mended& one, bool strong) const;

    Canvas& canvas_;
    Uses uses_;
    std::optional<Hold> hold_;
    QPointF from_;
    std::vector<Point> way_;
    Mended before_, now_;
};

}  // namespace bp::app
