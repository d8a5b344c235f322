// The crop in numbers and to a ratio, wherever it is set: beside the tool that pulls it on the picture.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <array>

#include "app/canvas/crop_tool.h"

namespace bp::app {

class CropControls : public QWidget {
    Q_OBJECT

  public:
    // Its controls are called `object` and what they are.
    CropControls(Studio& studio, CropTool& tool, const QString& object, QWidget* parent);
    void show_crop();

  private:
    void build_ratio(const QString& object);
    void build_numbers(const QString& object);
    void fill_ratios();
    void choose_ratio(const QString& words);
    void type_in(std::size_t which);
    void crop(const Rect& area, const QString& what, const QString& merged = {});
    std::optional<double> ratio() const;

    Studio& studio_;
    CropTool& tool_;
    QPushButton *fit_, *all_, *turn_;
    QComboBox* ratio_;
    std::array<QSpinBox*, 4> numbers_{};  // left, top, width, height
    QString chosen_;                      // the ratio, as it is written
    bool upright_ = false;
};

}  // namespace bp::app
