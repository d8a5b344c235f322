// Lay the frames over each other.
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <vector>

#include "app/miniatures.h"
#include "app/step_line.h"
#include "app/studio.h"

namespace bp::app {

class AlignStep : public StepBody {
    Q_OBJECT

  public:
    explicit AlignStep(Studio& studio);
    QString title() const override { return tr("Align"); }
    QString summary() const override;
    bool needs_look() const override;
    QStringList traces() const override { return {QStringLiteral("left_over"), QStringLiteral("sure")}; }
    void opened() override;
    bool rendering() const override { return lane_.busy(); }

  private:
    void build_by_hand();
    // Moves the frame that is looked at, in steps of what is chosen, and turns it about the pole or the middle.
    void nudge(double right, double down, double turns);
    void refresh();
    QStringList facts_of(const Frame& frame) const;
    void render_miniatures();

    Studio& studio_;
    Lane lane_;
    MiniatureGrid* grid_;
    QLabel* facts_;
    QPushButton* reference_;
    QCheckBox* crop_;
    QCheckBox* insist_;
    QWidget* by_hand_;
    std::vector<QPushButton*> paces_;
    QPushButton* refine_;
};

}  // namespace bp::app
