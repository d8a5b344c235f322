// How much of the picture is dark and bright: of what is seen of it, or of an area that is chosen.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <optional>

#include "app/canvas/area_tool.h"
#include "app/canvas/viewer.h"
#include "even/tone.h"

namespace bp::app {

// Ribbons from dark to bright, one over the other, thick where much has a tone.
class ToneRibbons : public QWidget {
    Q_OBJECT

  public:
    explicit ToneRibbons(QWidget* parent);
    void set_counts(ToneCounts counts);
    const ToneCounts& counts() const { return counts_; }

  protected:
    void paintEvent(QPaintEvent*) override;

  private:
    ToneCounts counts_;
};

class TonesPanel : public QFrame {
    Q_OBJECT

  public:
    TonesPanel(Studio& studio, Viewer& viewer, Canvas& canvas, QWidget* parent);
    const ToneRibbons& ribbons() const { return *ribbons_; }

  protected:
    void showEvent(QShowEvent*) override;
    void hideEvent(QHideEvent*) override;

  private:
    void choose(bool on);
    void refresh();

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    AreaTool tool_;
    QTimer later_;
    ToneRibbons* ribbons_;
    QPushButton* choose_;
    QLabel* of_;
    QLabel* clipped_;
    std::optional<Rect> area_;  // as it is seen
};

}  // namespace bp::app
