// Two pictures beside each other: what stands on the right of the divider, and what a difference is taken against.
#pragma once

#include "app/canvas/viewer.h"
#include "pile/edits.h"

namespace bp::app {

// `merge`: the result by settings of the merge that were held.
// `unfinished`: the result before it is finished.
enum class Second { result, reference, before, held, merge, unfinished };

class Comparison : public QObject {
    Q_OBJECT

  public:
    Comparison(Studio& studio, Viewer& first);

    bool on() const { return on_; }
    void set_on(bool on);
    Second second() const { return second_; }
    void set_second(Second second);
    // Keeps the current frame as the one to compare with; settings of the merge where these are compared.
    void hold();
    void hold_frame();
    void hold_merge();
    // The held settings become the pile's, and the pile's are held.
    void swap_merge();
    int held() const { return held_; }
    bool holds_merge() const { return held_merge_.has_value(); }
    Viewer& viewer() { return viewer_; }
    const Viewer& viewer() const { return viewer_; }
    // "Result", "frame 12"
    QString name() const;

  signals:
    void changed();

  private:
    int frame() const;
    void apply();
    void show_held_merge();

    Studio& studio_;
    Viewer viewer_;
    bool on_ = false;
    Second second_ = Second::result;
    int held_ = 0;
    std::optional<MergeSettings> held_merge_;
};

}  // namespace bp::app
