// Gather the run, know its frames, and sort them.
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <array>

#include "app/canvas/viewer.h"
#include "app/panels/found_list.h"
#include "app/steps/step_line.h"
#include "app/work/arriving.h"
#include "app/work/studio.h"
#include "app/work/surveyor.h"

namespace bp::app {

class FramesStep : public StepBody {
    Q_OBJECT

  public:
    FramesStep(Studio& studio, Viewer& viewer, Surveyor& surveyor, Arriving& arriving);
    QString title() const override { return tr("Frames"); }
    QString summary() const override;
    bool needs_look() const override;

  signals:
    void camera_wanted();
    void clip_wanted();

  private:
    void build_gathering();
    void build_frame();
    void build_odd();
    void build_guess();
    void build_run();
    void refresh() override;
    void refresh_odd();
    void refresh_role(const Frame* current);
    void find_text();
    void take_note();
    void refresh_note(const Frame* current);
    void thin();

    Studio& studio_;
    Viewer& viewer_;
    Surveyor& surveyor_;
    Arriving& arriving_;
    QWidget* guessed_;
    QLabel* guessed_words_;
    std::array<QPushButton*, 6> is_{};
    QWidget* coming_;
    QLabel* coming_words_;
    QLabel* facts_;
    QLabel* problems_;
    QPushButton* find_;
    QPushButton* take_;
    QPushButton* aside_;
    QPushButton* remove_;
    QComboBox* role_;
    QWidget* guess_;
    QLabel* guess_words_;
    QPushButton* reference_;
    QPushButton* base_;
    QLineEdit* note_;
    FoundList* odd_;
    QLineEdit* search_;
    QSpinBox* every_;
    QPushButton* thin_;
};

}  // namespace bp::app
