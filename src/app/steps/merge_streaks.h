// Streaks that were found: which of them are left out.
#pragma once

#include <QPushButton>
#include <array>

#include "app/canvas/canvas.h"
#include "app/panels/found_list.h"

namespace bp::app {

// Controls of a page: the page says when they are to be brought up to date, and when it is seen.
class MergeStreaks : public QWidget {
    Q_OBJECT

  public:
    MergeStreaks(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void refresh();
    // Marks them on the picture: all on the result, its own on a frame.
    void show_marks(bool on);

  private:
    void decide(const std::vector<int>& keys, bool leave_out);
    void mark();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    std::array<QPushButton*, 3> kinds_{};
    FoundList* list_;
    bool marks_ = false;
};

}  // namespace bp::app
