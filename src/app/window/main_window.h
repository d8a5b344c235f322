// The window: lays out its pieces and passes on what a person asks for. No work of its own.
#pragma once

#include <QMainWindow>
#include <QStackedWidget>
#include <functional>

#include "app/canvas/canvas.h"
#include "app/canvas/comparison.h"
#include "app/canvas/view_bar.h"
#include "app/canvas/viewer.h"
#include "app/panels/camera_panel.h"
#include "app/panels/play_bar.h"
#include "app/rail/time_rail.h"
#include "app/steps/step_line.h"
#include "app/window/notices.h"
#include "app/window/start_screen.h"
#include "app/window/top_bar.h"
#include "app/work/commands.h"
#include "app/work/recovery.h"
#include "app/work/studio.h"
#include "app/work/surveyor.h"

namespace bp::app {

class Guide;

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
    Notices& notices() { return *notices_; }
    Recovery& recovery() { return *recovery_; }
    Keys& keys() { return *keys_; }
    const PlayBar& play_bar() const { return *play_; }

    // Starts the program once more beside this one, with these names; true when it runs.
    using Starter = std::function<bool(const QStringList& names)>;
    void set_starter(Starter starter) { starter_ = std::move(starter); }

  protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    void keep_frame_on_screen();
    QWidget* build_desk();
    void tie_keys();
    void tie_picture_keys();
    void choose_folder();
    void choose_and_open(std::optional<Outcome> outcome);
    // A folder, files, a clip or a pile, in place of what is open.
    void open_instead(const QStringList& names, std::optional<Outcome> outcome, std::function<void()> then = {});
    // Asks which frames of a clip are wanted and gives their names; none when nothing is.
    QStringList frames_of_clip(const QString& clip);
    void take_drop(const QStringList& names);
    void take_piles(const QStringList& piles, const QStringList& frames);
    QStringList with_frames_of_clips(const QStringList& names);
    // `done` is told whether the pile is on disk.
    void save(std::function<void(bool)> done = {});
    void save_as(std::function<void(bool)> done = {});
    void save_finish();
    void take_finish();
    int first_step() const;
    void export_picture();
    void export_versions(const std::vector<std::string>& names);
    void export_growth();
    void go_home();
    // What the pile looks like and where it lies, for the list of those that were open last.
    void note_pile();
    void open_recent(const QString& path);
    void list_recent(QMenu& menu);
    void list_history(QMenu& menu);
    void list_sizes();
    void frame_menu(QPoint at);
    void picture_menu(QPoint at);
    void build_list_menus();
    void choose_preferences();
    void start_again();
    // Nothing is asked any more.
    void end();
    // Pictures are made anew for what the screen's samples mean now.
    void show_anew();
    void moved_to(QScreen* screen);
    void flip_full_screen();
    // What is being typed counts, as if the field had been left.
    void settle_typing();
    // Does `then` at once, or after the person has decided what becomes of what is being written and of unsaved edits.
    void leave(std::function<void()> then);
    void leave_when_saved(std::function<void()> then);
    // Does what replaces the open pile, once no dialog or menu is up: it is about that pile.
    void when_free(std::function<void()> then);
    // Where the frames lie, for dialogs to begin at; the pile's own place when it has one.
    QString near_frames() const;
    void remove_chosen();
    bool leave_something();
    // Asks for a pile, then for the frames that are to be like it.
    void choose_like();
    void show_guide();
    void show_keys();
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
    ViewBar* held_;
    PlayBar* play_;
    QPushButton *plumb_button_, *capture_button_, *tones_button_;
    TimeRail* rail_;
    Guide* guide_ = nullptr;  // once it was asked for
    Notices* notices_;
    Keys* keys_;
    std::optional<View> flipped_from_;
    Starter starter_;
    std::function<void()> when_written_;  // waits for what is being written
    bool shown_ = false;                  // it was on the screen
    bool asking_ = false;                 // a question about leaving stands
    long noted_ = 0;                      // the pile whose picture is in the list of recent ones
};

}  // namespace bp::app
