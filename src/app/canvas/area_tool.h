// A tool by which a rectangle of the picture is chosen, as it is seen.
#pragma once

#include <QPainter>
#include <functional>

#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"
#include "app/looks/theme.h"

namespace bp::app {

class AreaTool final : public CanvasTool {
  public:
    AreaTool(Canvas& canvas, std::function<void(const QRectF& shown)> chosen)
        : canvas_(canvas), chosen_(std::move(chosen)) {}

    // In pixels of the picture as it is seen; null for none.
    void set_area(const QRectF& shown) { area_ = shown; }
    bool press(QPointF at) override {
        from_ = to_ = canvas_.screen_to_shown(at);
        drags_ = true;
        return true;
    }
    std::optional<QRect> drag(QPointF at) override {
        to_ = canvas_.screen_to_shown(at);
        return std::nullopt;
    }
    void release() override {
        constexpr double least = 2;
        if (!std::exchange(drags_, false)) return;
        const QRectF drawn = QRectF(from_, to_).normalized();
        if (drawn.width() >= least && drawn.height() >= least) chosen_(drawn);
    }
    void cancel() override { drags_ = false; }
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::CrossCursor; }
    void paint(QPainter& painter) const override {
        const QRectF shown = drags_ ? QRectF(from_, to_).normalized() : area_;
        if (shown.isNull()) return;
        const QRectF on_screen(canvas_.shown_to_screen(shown.topLeft()), canvas_.shown_to_screen(shown.bottomRight()));
        painter.setBrush(Qt::NoBrush);
        for (const QPen& pen : {QPen(QColor(0, 0, 0, 170), 3), QPen(theme().amber, 1.4)}) {
            painter.setPen(pen);
            painter.drawRect(on_screen);
        }
    }

  private:
    Canvas& canvas_;
    std::function<void(const QRectF&)> chosen_;
    QRectF area_;
    QPointF from_, to_;
    bool drags_ = false;
};

}  // namespace bp::app
