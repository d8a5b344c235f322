// Over the canvas: how the frames are looked through. Playing, differences, two pictures side by side.
#pragma once

#include <QComboBox>
#include <QPushButton>
#include <QTimer>
#include <QWidget>
#include <vector>

#include "app/canvas/comparison.h"
#include "app/canvas/viewer.h"

namespace bp::app {

class ViewBar : public QWidget {
    Q_OBJECT

  public:
    ViewBar(Studio& studio, Viewer& viewer, Comparison& comparison, QWidget* parent);

    QPushButton* capture_button() const { return capture_; }
    QPushButton* plumb_button() const { return plumb_; }
    bool playing() const { return beat_.isActive(); }
    void set_playing(bool on);
    QSize minimumSizeHint() const override;

  protected:
    void resizeEvent(QResizeEvent*) override;

  private:
    // Playing gives way where there is no room for it: keys do it, too.
    void make_room();
    int width_of(const std::vector<const QWidget*>& without) const;
    void build_play();
    void build_difference();
    void build_pair();
    void refresh();
    void step();

    Studio& studio_;
    Viewer& viewer_;
    Comparison& comparison_;
    QTimer beat_;
    QPushButton* play_;
    QComboBox* rate_;
    QWidget* difference_;
    QComboBox* against_;
    QComboBox* gain_;
    QPushButton* pair_;
    QComboBox* second_;
    QPushButton* hold_;
    QPushButton* swap_;
    QPushButton* plumb_;
    QPushButton* capture_;
};

}  // namespace bp::app
