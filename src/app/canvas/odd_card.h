// Over the canvas while the pile cannot give the picture that is meant: a sentence that says why, and a button that
// mends it.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/viewer.h"
#include "engine/odd_state.h"

namespace bp::app {

class OddCard : public QFrame {
    Q_OBJECT

  public:
    // Lies over `canvas`, at its lower edge.
    OddCard(Studio& studio, Viewer& viewer, QWidget* canvas);

  signals:
    void frames_wanted();

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    void refresh();
    void mend();
    void lay_out();

    Studio& studio_;
    Viewer& viewer_;
    OddState state_ = OddState::none;
    QLabel* words_;
    QPushButton* mend_;
};

}  // namespace bp::app
