// A meteor of a shower, pulled by its ends and its side on the result.
#pragma once

#include <QObject>

#include "app/canvas/band_handles.h"
#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"
#include "parts/shapes.h"

namespace bp::app {

class MeteorTool final : public QObject, public CanvasTool {
    Q_OBJECT

  public:
    MeteorTool(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {}

    // The part whose handles show; for one that is no meteor, or that was placed elsewhere, none do.
    void set_part(int id);

    bool press(QPointF at) override;
    bool taken_up() const override { return false; }
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint(QPainter& painter) const override;

  signals:
    // A meteor was chosen on the picture.
    void chosen(int part);

  private:
    // The band of the part; none while it cannot be pulled.
    std::optional<DrawnShape> band() const;
    BandHandles on_screen(const DrawnShape& band) const;
    DrawnShape pulled(QPointF to) const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    int part_ = 0;
    std::optional<BandHandles::Hold> hold_;
    DrawnShape before_, now_;
    QPointF from_;
};

}  // namespace bp::app
