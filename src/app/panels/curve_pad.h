// A free curve from tone to tone: points that are pulled, added by a click and taken away.
#pragma once

#include <QWidget>
#include <vector>

#include "finish/curve.h"

namespace bp::app {

class CurvePad : public QWidget {
    Q_OBJECT

  public:
    explicit CurvePad(QWidget* parent);
    // Without a signal; not while a point is in the hand.
    void set_curve(const Curve& curve);
    // How much of the picture has each tone, from black to white.
    void set_distribution(std::vector<float> shares);
    // Gives up the drag that goes on; false when there is none.
    bool leave_drag();
    QPointF place_of(Point point) const;
    int chosen() const { return chosen_; }
    QSize sizeHint() const override { return {220, 190}; }

  signals:
    void tried(const bp::Curve& curve);
    void settled(const bp::Curve& curve);
    void left();

  protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF field() const;
    Point tone_at(QPointF at) const;
    int point_near(QPointF at) const;  // -1 for none
    // The chosen point moved to a place, between its neighbours.
    void move_chosen(Point to);
    void choose(int point);
    void take_away(int point);
    void say_chosen();

    Curve curve_, before_;
    int chosen_ = -1;
    bool held_ = false;
    std::vector<float> shares_;
};

}  // namespace bp::app
