// The strip along the bottom: every frame a slat at its capture time, as wide as its exposure.
#pragma once

#include <QWidget>
#include <vector>

#include "app/studio.h"

namespace bp::app {

class TimeRail : public QWidget {
    Q_OBJECT

  public:
    explicit TimeRail(Studio& studio, QWidget* parent = nullptr);

    // Where a frame's slat stands now; for keyboard, tests and tooltips alike.
    QRectF slat_of(int id) const;

  signals:
    // A frame was chosen by the person, not by the program.
    void frame_chosen();

  protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    bool event(QEvent* event) override;

  private:
    struct Slat {
        int id = 0;
        QRectF place;
    };

    void lay_out();
    int frame_at(QPointF p) const;
    void choose(int id, Qt::KeyboardModifiers modifiers);
    void draw_slat(QPainter& painter, const Slat& slat, int number) const;
    void draw_times(QPainter& painter) const;
    void draw_shifts(QPainter& painter) const;
    QString tip_for(int id) const;

    Studio& studio_;
    std::vector<Slat> slats_;
    std::vector<QRectF> breaks_;  // where a long pause was shortened
    double zoom_ = 1;
    double scroll_ = 0;
    double full_width_ = 0;
    bool scrubbing_ = false;
};

}  // namespace bp::app
