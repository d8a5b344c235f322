// On the right, when asked for: the capture data of the chosen frame, and what differs across the run.
#pragma once

#include <QFrame>
#include <QLabel>

#include "app/work/studio.h"
#include "app/work/surveyor.h"

class QGridLayout;

namespace bp::app {

class CapturePanel : public QFrame {
    Q_OBJECT

  public:
    CapturePanel(Studio& studio, Surveyor& surveyor, QWidget* parent);

  protected:
    void showEvent(QShowEvent*) override;

  private:
    struct Line {
        QString name;
        QString here;   // of the chosen frame
        QString range;  // across the run; empty when all are the same
    };
    std::vector<Line> lines() const;
    void refresh();

    Studio& studio_;
    Surveyor& surveyor_;
    QLabel* title_;
    QLabel* differs_;
    QGridLayout* grid_;
};

}  // namespace bp::app
