// One frame moved by hand over the reference: by keys, by typed numbers, by handles on the picture.
#pragma once

#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <array>
#include <vector>

#include "app/canvas/place_tool.h"
#include "app/steps/page.h"

namespace bp::app {

class AlignHand : public Page {
    Q_OBJECT

  public:
    AlignHand(Studio& studio, Viewer& viewer, Canvas& canvas, Comparison& comparison, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    void build_pad();
    void build_numbers();
    // Moves the frame that is looked at, in steps of what is chosen, and turns it about the pivot.
    void nudge(double right, double down, double turns);
    void type_in();
    void set_flicker(bool on);
    // The frame that can be moved, or null.
    const Frame* movable() const;

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    Comparison& comparison_;
    PlaceTool tool_;
    QLabel* hint_;
    QWidget* all_;
    std::vector<QPushButton*> paces_;
    std::array<QDoubleSpinBox*, 4> numbers_{};  // right, down, turn, scale
    QPushButton *refine_, *flicker_;
};

}  // namespace bp::app
