// Which frames of a clip become frames of the pile.
#pragma once

#include <QDialog>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>

#include "io/clip.h"

namespace bp::app {

class ClipDialog : public QDialog {
    Q_OBJECT

  public:
    ClipDialog(const QString& clip, const ClipFacts& facts, QWidget* parent);
    // Names of the chosen frames.
    QStringList names() const;

  private:
    std::vector<long> numbers() const;
    void refresh();

    QString clip_;
    ClipFacts facts_;
    QDoubleSpinBox* from_;
    QDoubleSpinBox* to_;
    QDoubleSpinBox* rate_;
    QLabel* count_;
    QPushButton* take_;
};

}  // namespace bp::app
