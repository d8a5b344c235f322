// The window: lays out its pieces and passes on what a person asks for. No work of its own.
#pragma once

#include <QMainWindow>
#include <QStackedWidget>
#include <functional>

#include "app/camera_panel.h"
#include "app/canvas.h"
#include "app/comparison.h"
#include "app/job_bar.h"
#include "app/look_bar.h"
#include "app/recovery.h"
#include "app/start_screen.h"
#include "app/step_line.h"
#include "app/studio.h"
#include "app/surveyor.h"
#include "app/time_rail.h"
#include "app/top_bar.h"
#include "app/viewer.h"

namespace bp::app {

class MainWindow : public QMainWindow {
    Q_OBJECT

  public:
    MainWindow();

    Studio& studio() { return *studio_; }
    Viewer& viewer() { return *viewer_; }
    Surveyor& surveyor() { return *surveyor_; }
    Arriving& arriving() { return *arriving_; }
    Comparison& comparison() { return *comparison_; }
    Canvas& canvas() { return *canvas_; }
    StepLine& steps() { return *steps_; }

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void closeEvent(QCloseEvent* event) override;

  private:
    QWidget* build_desk();
    void build_shortcuts();
    void choose_folder();
    void choose_and_open(std::optional<Outcome> outcome);
    // Asks which frames of a clip are wanted; adds them to the open pile, or begins one.
    void take_clip(const QString& clip);
    void save();
    bool save_as();
    void export_picture();
    void go_home();
    // Does `then` at once, or after the person has decided what becomes of unsaved edits.
    void leave(std::function<void()> then);
    void flip_theme();
    void step_opened();

    Studio* studio_;
    Viewer* viewer_;
    Surveyor* surveyor_;
    Comparison* comparison_;
    Arriving* arriving_;
    CameraPanel* camera_;
    QStackedWidget* pages_;
    Recovery* recovery_;
    StartScreen* start_;
    TopBar* bar_;
    StepLine* steps_;
    Canvas* canvas_;
    LookBar* look_;
    TimeRail* rail_;
    JobBar* jobs_;
    int export_index_ = 0;
    std::optional<View> flipped_from_;
    std::function<void()> after_save_;
};

}  // namespace bp::app
