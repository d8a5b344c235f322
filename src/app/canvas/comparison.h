// Two pictures beside each other: what stands on the right of the divider, and what a difference is taken against.
#pragma once

#include "app/canvas/viewer.h"

namespace bp::app {

enum class Second { result, reference, before, held };

class Comparison : public QObject {
    Q_OBJECT

  public:
    Comparison(Studio& studio, Viewer& first);

    bool on() const { return on_; }
    void set_on(bool on);
    Second second() const { return second_; }
    void set_second(Second second);
    // Keeps the current frame as the one to compare with.
    void hold();
    int held() const { return held_; }
    Viewer& viewer() { return viewer_; }
    const Viewer& viewer() const { return viewer_; }
    // "Result", "frame 12"
    QString name() const;

  signals:
    void changed();

  private:
    int frame() const;
    void apply();

    Studio& studio_;
    Viewer viewer_;
    bool on_ = false;
    Second second_ = Second::result;
    int held_ = 0;
};

}  // namespace bp::app
