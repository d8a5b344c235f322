// Tone and colour of the finished picture: the tone control on the whole, and a free curve.
#pragma once

#include <QCheckBox>
#include <QPushButton>
#include <vector>

#include "app/canvas/canvas.h"
#include "app/panels/curve_pad.h"
#include "app/panels/tone_panel.h"
#include "app/steps/page.h"

namespace bp::app {

// How bright the picture is before it is finished, looked at anew whenever a page with it is seen.
class TonesOfPicture : public QObject {
    Q_OBJECT

  public:
    TonesOfPicture(Studio& studio, QObject* parent) : QObject(parent), studio_(studio), lane_(this) {}
    void look();

  signals:
    void seen(const std::vector<float>& shares);

  private:
    Studio& studio_;
    Lane lane_;
};

class FinishTone : public Page {
    Q_OBJECT

  public:
    FinishTone(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    TonesOfPicture tones_;
    TonePanel* tone_;
    QPushButton* reset_;
    QCheckBox* clipping_;
};

class FinishCurve : public Page {
    Q_OBJECT

  public:
    FinishCurve(Studio& studio, Viewer& viewer, QWidget* parent);
    void opened() override;
    void closed() override;
    void refresh() override;

  private:
    Pile with_shown(const Curve& curve) const;

    Studio& studio_;
    Viewer& viewer_;
    TonesOfPicture tones_;
    std::vector<QPushButton*> channels_;
    CurvePad* pad_;
    QPushButton* reset_;
    Curve Curves::*shown_ = &Curves::brightness;
};

}  // namespace bp::app
