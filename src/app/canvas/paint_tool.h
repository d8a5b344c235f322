// Painting of masks on the picture.
#pragma once

#include "app/canvas/canvas_tool.h"
#include "app/canvas/mask_target.h"

namespace bp::app {

class Canvas;

class PaintTool final : public CanvasTool {
  public:
    explicit PaintTool(Canvas& canvas) : canvas_(canvas) {}

    // Null for none: then there is nothing to paint. It must outlive its use here.
    void set_target(MaskTarget* target) { target_ = target; }
    MaskTarget* target() const { return target_; }
    const Brush& brush() const { return brush_; }
    void set_brush(const Brush& brush);
    void set_show_mask(bool on) { show_mask_ = on; }
    // What is painted on is no more as it was when the stroke began.
    bool overtaken() const { return stroke_ && !(target_->read() == before_); }

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    std::optional<Qt::CursorShape> cursor_at(QPointF) const override { return Qt::BlankCursor; }
    void paint_below(QPainter& painter, const QRect& shown) const override;
    void paint(QPainter& painter) const override;
    QRect mark_at(QPointF at) const override;

  private:
    QRect extend(QPointF at);

    Canvas& canvas_;
    MaskTarget* target_ = nullptr;
    Brush brush_, stroke_of_;
    bool show_mask_ = true;
    std::optional<Stroke> stroke_;
    Mask before_;
};

}  // namespace bp::app
