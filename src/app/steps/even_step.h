// Make the frames agree in light and colour.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <vector>

#include "app/canvas/canvas.h"
#include "app/looks/controls.h"
#include "app/panels/tone_panel.h"
#include "app/steps/even_sensor.h"
#include "app/steps/page_tabs.h"
#include "app/steps/step_line.h"

namespace bp::app {

class EvenStep : public StepBody {
    Q_OBJECT

  public:
    EvenStep(Studio& studio, Viewer& viewer, Canvas& canvas);
    QString title() const override { return tr("Even"); }
    QString summary() const override;
    QStringList traces() const override { return {QStringLiteral("level")}; }
    void opened() override;
    void closed() override;

  private:
    void build_levels();
    void build_look();
    void look_at_tones();
    void refresh() override;
    // The look that is shown: of all frames, or the current frame's own.
    Look shown_look() const;
    Pile with_shown_look(const Look& look) const;
    bool of_all() const { return all_->isChecked(); }

    Studio& studio_;
    Viewer& viewer_;
    Canvas& canvas_;
    QVBoxLayout* page_ = nullptr;  // of light and colour
    PageTabs* tabs_;
    std::vector<QPushButton*> kinds_;
    NamedSlider* level_;
    QLabel* facts_;
    QPushButton* all_;
    QPushButton* own_;
    TonePanel* tone_;
    QPushButton* reset_;
    QPushButton* copy_;
    QCheckBox* clipping_;
    Lane lane_;
};

}  // namespace bp::app
