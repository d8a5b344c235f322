// What every frame has at a point, in the order of the run, by channel.
#pragma once

#include <QWidget>
#include <vector>

#include "engine/plumb.h"

namespace bp::app {

class PlumbChart : public QWidget {
    Q_OBJECT

  public:
    explicit PlumbChart(QWidget* parent);
    // `times` in seconds, one a frame, never falling: where they lie from left to right; none: evenly.
    void show_plumb(const Plumb& plumb, int channels, std::vector<double> times);
    void clear();
    void set_chosen(int frame);
    int chosen() const { return chosen_; }
    // The middle of what stands for a frame; null where there is none.
    QPointF place_of(int frame) const;
    QSize sizeHint() const override { return {240, 132}; }

  signals:
    void frame_chosen(int frame);

  protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    QRectF field() const;
    double x_of(std::size_t at) const;
    double y_of(double share) const;
    void choose_at(double x);
    void draw_channel(QPainter& painter, std::size_t channel) const;

    Plumb plumb_;
    int channels_ = 0;
    std::vector<double> times_;
    double most_ = 1;  // share of white at the top of the field
    int chosen_ = 0;
};

// "43%", or by channel "43, 40, 38%" where they differ: samples as shares of white, as they stand in the picture.
QString shares_in_words(const std::array<std::uint16_t, 3>& samples, int channels);

}  // namespace bp::app
