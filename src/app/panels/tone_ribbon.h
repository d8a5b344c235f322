// The tone ribbon: how bright the picture is, from dark to bright, with five knots that its tones are pulled by.
#pragma once

#include <QWidget>
#include <array>
#include <vector>

#include "even/look.h"

namespace bp::app {

class ToneRibbon : public QWidget {
    Q_OBJECT

  public:
    enum class Knot { floor, deep, middle, bright, peak };
    static constexpr std::array<Knot, 5> knots{Knot::floor, Knot::deep, Knot::middle, Knot::bright, Knot::peak};
    static double Look::*value_of(Knot knot);

    explicit ToneRibbon(QWidget* parent);
    void set_look(const Look& look);
    const Look& look() const { return look_; }
    // How much of the picture has each tone, before the look: from black to white, 1 at most.
    void set_distribution(std::vector<float> shares);
    QPointF place_of(Knot knot) const;
    bool held() const { return held_ >= 0; }
    // Gives up the drag that goes on; false when there is none.
    bool leave_drag();
    QSize sizeHint() const override { return {200, 104}; }

  signals:
    void tried(const bp::Look& look);    // while a knot is dragged
    void settled(const bp::Look& look);  // when it is let go, or was double-clicked
    void left();                         // the drag was given up
    void held_changed(bool held);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;

  private:
    QRectF field() const;
    QPointF at(double tone, double out) const;
    double x_of(double tone) const;
    double tone_at(double x) const;
    int knot_at(QPointF p) const;
    void let_go();

    Look look_;
    Look before_;  // the drag
    std::vector<float> shares_;
    QPointF from_;
    int held_ = -1;
    int near_ = -1;
};

}  // namespace bp::app
