// Streaks of the frame that is looked at: drawn with two clicks, chosen, and pulled by their ends and sides.
#pragma once

#include <QObject>

#include "app/canvas/band_handles.h"
#include "app/canvas/canvas.h"
#include "app/canvas/canvas_tool.h"
#include "pile/streak_edits.h"

namespace bp::app {

class StreakTool final : public QObject, public CanvasTool {
    Q_OBJECT

  public:
    StreakTool(Studio& studio, Viewer& viewer, Canvas& canvas) : studio_(studio), viewer_(viewer), canvas_(canvas) {}

    // The one whose handles show; none when it is no more there.
    std::optional<StreakAt> chosen() const;
    void choose(std::optional<StreakAt> at);
    // The next two clicks draw a streak.
    bool drawing() const { return drawing_; }
    void set_drawing(bool on);

    bool press(QPointF at) override;
    std::optional<QRect> drag(QPointF at) override;
    void release() override;
    void cancel() override;
    bool taken_up() const override { return drawing_; }
    std::optional<Qt::CursorShape> cursor_at(QPointF at) const override;
    void paint(QPainter& painter) const override;
    QRect mark_at(QPointF at) const override;

  signals:
    // A person chose one on the picture, or drew one.
    void chosen_on_picture();
    void drawing_ended();

  private:
    using Hold = BandHandles::Hold;
    // The frame under the pointer, when streaks can be seen on it.
    const Frame* frame() const;
    Point on_frame(const Frame& frame, QPointF screen) const;
    QPointF on_screen(const Frame& frame, Point p) const;
    BandHandles handles_of(const Frame& frame, const Line& line) const;
    std::optional<Hold> hold_at(QPointF at) const;
    std::optional<StreakAt> streak_under(QPointF at) const;
    void draw(QPointF at);
    // The streak as it is being pulled.
    Line pulled(const Frame& frame, QPointF to) const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    std::optional<StreakAt> chosen_;
    bool drawing_ = false;
    std::optional<Point> begun_;  // the first of the two clicks, in pixels of the frame `begun_in_`
    int begun_in_ = 0;
    std::optional<Hold> hold_;
    Line before_, now_;  // of the one that is pulled
    QPointF from_;
};

}  // namespace bp::app
