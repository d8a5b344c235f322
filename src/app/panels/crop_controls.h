// The crop in numbers and to a ratio, wherever it is set: beside the tool that pulls it on the picture.
#pragma once

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <array>

#include "app/canvas/crop_tool.h"
#include "app/canvas/horizon_tool.h"

namespace bp::app {

class CropControls : public QWidget {
    Q_OBJECT

  public:
    // Its controls are called `object` and what they are.
    CropControls(Studio& studio, Canvas& canvas, CropTool& tool, const QString& object, QWidget* parent);
    void show_crop();
    // Goes back from drawing a horizon.
    void leave_horizon();

  private:
    void build_turn(const QString& object);
    void turn_to(double degrees, const QString& what, const QString& merged = {});
    void build_ratio(const QString& object);
    void build_numbers(const QString& object);
    void fill_ratios();
    void choose_ratio(const QString& words);
    void type_in(std::size_t which);
    void crop(const Rect& area, const QString& what, const QString& merged = {});
    std::optional<double> ratio() const;

    Studio& studio_;
    Canvas& canvas_;
    CropTool& tool_;
    HorizonTool horizon_;
    QPushButton *fit_, *all_, *turn_, *draw_;
    QDoubleSpinBox* degrees_;
    QComboBox* ratio_;
    std::array<QSpinBox*, 4> numbers_{};  // left, top, width, height
    QString chosen_;                      // the ratio, as it is written
    bool upright_ = false;
};

}  // namespace bp::app
