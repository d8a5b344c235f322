// The noise of the result beside that of one frame.
#pragma once

#include <QLabel>
#include <QPushButton>

#include "app/canvas/canvas.h"
#include "app/canvas/comparison.h"
#include "app/work/jobs.h"
#include "app/work/studio.h"
#include "even/noise.h"

namespace bp::app {

// Controls of a page: the page says when they are to be brought up to date.
class MergeNoise : public QWidget {
    Q_OBJECT

  public:
    MergeNoise(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent);
    void refresh();

  private:
    void measure();
    // What is measured: the middle of what is seen, in canvas pixels.
    Rect area() const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    Lane lane_;
    QPushButton* measure_;
    QPushButton* beside_;
    QLabel* facts_;
    Pile measured_;  // that the facts are of
};

// "Noise is 2.9 EV less than in one frame; the root of 60 frames would give 2.95 EV." and a line for each brightness.
QString noise_in_words(const Noise& noise, int frames);

}  // namespace bp::app
