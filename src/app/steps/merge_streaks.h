// Streaks of frames, found and drawn: which of them are left out.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QPushButton>
#include <array>

#include "app/canvas/canvas.h"
#include "app/canvas/streak_tool.h"
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
    // What the left button does on the picture while nothing else of the page has it.
    StreakTool& tool() { return tool_; }
    void put_down();

  signals:
    // The next two clicks are to draw a streak.
    void drawing_begun();

  private:
    void decide(const std::vector<StreakAt>& streaks, bool leave_out);
    void go_to(const StreakAt& at);
    void mark();
    QWidget* chosen_row();
    void refresh_chosen();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    StreakTool tool_;
    std::array<QPushButton*, 3> kinds_{};
    QPushButton* draw_;
    FoundList* list_;
    QLabel* by_kind_;
    QWidget* chosen_;
    QComboBox* kind_;
    QDoubleSpinBox* width_;
    bool marks_ = false;
};

}  // namespace bp::app
