// Two small fields on which a look's colours are set: the cast of light, and one range of hues on a ring.
#pragma once

#include <QWidget>

#include "even/look.h"

namespace bp::app {

// What the two have in common: something is dragged, tried out meanwhile, and settled or left.
class ColourPad : public QWidget {
    Q_OBJECT

  public:
    explicit ColourPad(QWidget* parent);
    void set_look(const Look& look);
    bool leave_drag();
    QSize sizeHint() const override { return {98, 98}; }

  signals:
    void tried(const bp::Look& look);
    void settled(const bp::Look& look);
    void left();

  protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    // What is taken up at this place; 0 for nothing.
    virtual int part_at(QPointF at) const = 0;
    virtual Look dragged(const Look& before, int part, QPointF from, QPointF to) const = 0;
    virtual Look taken_back(const Look& look, int part) const = 0;

    QRectF square() const;
    Look look_;
    int held_ = 0;

  private:
    Look before_;
    QPointF from_;
};

// Across: cool to warm. Up: towards magenta, down: towards green.
class CastPad final : public ColourPad {
    Q_OBJECT

  public:
    explicit CastPad(QWidget* parent);
    QPointF knot() const;

  protected:
    void paintEvent(QPaintEvent*) override;
    int part_at(QPointF at) const override;
    Look dragged(const Look& before, int part, QPointF from, QPointF to) const override;
    Look taken_back(const Look& look, int part) const override;
};

// A ring of hues: the knot on it chooses the range, the one inside is drawn to where its hues are turned.
class HueRing final : public ColourPad {
    Q_OBJECT

  public:
    explicit HueRing(QWidget* parent);
    QPointF range_knot() const;
    QPointF turn_knot() const;

  protected:
    void paintEvent(QPaintEvent*) override;
    int part_at(QPointF at) const override;
    Look dragged(const Look& before, int part, QPointF from, QPointF to) const override;
    Look taken_back(const Look& look, int part) const override;

  private:
    QPointF on_ring(double degrees, double share) const;
};

}  // namespace bp::app
