// The mask of the chosen part as a whole, and shapes in it.
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/canvas/pick_tool.h"
#include "app/canvas/shape_tool.h"
#include "app/looks/controls.h"
#include "app/steps/page.h"
#include "app/steps/part_target.h"

namespace bp::app {

class PartsMask : public Page {
    Q_OBJECT

  public:
    PartsMask(Studio& studio, Viewer& viewer, Canvas& canvas, PartTarget& target, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    void build_shapes();
    void build_whole();
    // Null: none.
    void take_up(QPushButton* tool);
    void pick(Point canvas);
    void change(const std::function<Mask(const Mask&)>& how, const QString& what);

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    PartTarget& target_;
    ShapeTool shape_;
    PickTool pick_;
    QLabel* hint_;
    QPushButton *keep_, *give_back_;
    QPushButton *ellipse_, *ramp_, *like_;
    NamedSlider* reach_;
    QCheckBox* everywhere_;
    QWidget* of_part_;
    NamedSlider* by_;
    QComboBox* copy_;
};

}  // namespace bp::app
