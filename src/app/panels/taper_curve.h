// The curve by which the strength of frames rises from a trail's end: a line from nothing to all through one knot.
#pragma once

#include <QWidget>

#include "merge/taper.h"

namespace bp::app {

class TaperCurve : public QWidget {
    Q_OBJECT

  public:
    explicit TaperCurve(QWidget* parent);
    void set_knot(Point knot);  // without a signal, and not while it is held
    QPointF place_of_knot() const { return at(knot_.x, knot_.y); }
    // Gives up the drag that goes on; false when there is none.
    bool leave_drag();
    QSize sizeHint() const override { return {120, 64}; }

  signals:
    void tried(bp::Point knot);    // while it is dragged
    void settled(bp::Point knot);  // when it is let go, stepped by key or taken back to a straight line
    void left();                   // the drag was given up

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF field() const;
    QPointF at(double x, double y) const;
    void settle(Point knot);

    Point knot_{0.5, 0.5};
    Point before_{0.5, 0.5};  // the drag
    QPointF from_;
    bool held_ = false;
};

}  // namespace bp::app
