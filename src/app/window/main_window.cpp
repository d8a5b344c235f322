#include "app/window/main_window.h"

#include <QAbstractSpinBox>
#include <QApplication>
#include <QCloseEvent>
#include <QFileInfo>
#include <QMimeData>
#include <QProcess>
#include <QScreen>
#include <QSettings>
#include <QTimer>
#include <QVBoxLayout>
#include <utility>

#include "app/canvas/odd_card.h"
#include "app/looks/controls.h"
#include "app/looks/display.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/align_table.h"
#include "app/panels/capture_panel.h"
#include "app/panels/plumb_panel.h"
#include "app/panels/questions.h"
#include "app/panels/tones_panel.h"
#include "app/steps/align_step.h"
#include "app/steps/even_step.h"
#include "app/steps/export_step.h"
#include "app/steps/finish_step.h"
#include "app/steps/frames_step.h"
#include "app/steps/merge_step.h"
#include "app/steps/parts_step.h"
#include "app/window/menus.h"
#include "app/window/preferences.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

QStringList local_files(const QMimeData* data) {
    QStringList out;
    for (const QUrl& url : data->urls())
        if (url.isLocalFile()) out << url.toLocalFile();
    return out;
}

constexpr auto geometry_key = "window/geometry";

}  // namespace

MainWindow::MainWindow()
    : studio_(new Studio(this)),
      viewer_(new Viewer(*studio_)),
      surveyor_(new Surveyor(*studio_)),
      comparison_(new Comparison(*studio_, *viewer_)),
      arriving_(new Arriving(*studio_)) {
    starter_ = [](const QStringList& names) {
        QProcess program;
        program.setProgram(QCoreApplication::applicationFilePath());
        program.setArguments(names);
        program.setProcessEnvironment(Preferences::surroundings());
        return program.startDetached();
    };
    setWindowTitle(tr("Bright Pile"));
    setWindowIcon(icon(QStringLiteral("bright-pile")));
    setAcceptDrops(true);
    resize(QSize(1280, 800).boundedTo(screen()->availableSize()));
    restoreGeometry(QSettings().value(QLatin1String(geometry_key)).toByteArray());
    // The screen may be a smaller one now, or everything on it drawn larger.
    const QRect room = screen()->availableGeometry();
    if (!isFullScreen() && !isMaximized() && (width() > room.width() || height() > room.height()))
        setGeometry(QRect(room.topLeft(), size().boundedTo(room.size())));
    use_display_of(screen());
    auto* centre = new QWidget(this);
    auto* column = new QVBoxLayout(centre);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    pages_ = new QStackedWidget(centre);
    recovery_ = new Recovery(
        *studio_, [this] { return viewer_->overview().image; }, this);
    start_ = new StartScreen;
    pages_->addWidget(start_);
    pages_->addWidget(build_desk());
    column->addWidget(pages_, 1);
    setCentralWidget(centre);
    notices_ = new Notices(centre);
    for (Lane* lane : {&studio_->opening(), &studio_->placing(), &studio_->finding(), &studio_->measuring(),
                       &studio_->exporting(), &studio_->saving(), &viewer_->lane(), &viewer_->bringing()})
        notices_->watch(*lane);

    connect(start_, &StartScreen::outcome_chosen, this, [this](Outcome outcome) { choose_and_open(outcome); });
    connect(start_, &StartScreen::open_wanted, this, [this] { choose_and_open(std::nullopt); });
    connect(start_, &StartScreen::demo_chosen, studio_, &Studio::open_demo);
    connect(start_, &StartScreen::recent_wanted, this, &MainWindow::open_recent);
    connect(start_, &StartScreen::preferences_wanted, this, &MainWindow::choose_preferences);
    connect(start_, &StartScreen::guide_wanted, this, &MainWindow::show_guide);
    connect(studio_, &Studio::saved, this, [this] {
        noted_ = 0;
        note_pile();
    });
    // As soon as there is something to see of it.
    connect(viewer_, &Viewer::settled, this, [this] {
        if (noted_ != studio_->document().identity() && viewer_->seen_finely()) note_pile();
    });
    connect(studio_, &Studio::said, notices_, &Notices::say);
    // Where it can be said whether the guess is right.
    connect(studio_, &Studio::outcome_guessed, this, [this] {
        if (studio_->outcome_guess()) steps_->open(0);
    });
    for (Lane* lane : {&studio_->exporting(), &studio_->saving()})
        connect(
            lane, &Lane::busy_changed, this,
            [this] {
                if (!studio_->writing() && when_written_) std::exchange(when_written_, {})();
            },
            Qt::QueuedConnection);
    // Whoever works on while something is being opened is asked once more.
    studio_->set_gate([this](const std::function<bool()>& edited, const std::function<void()>& take_up) {
        when_free([this, edited, take_up] {
            if (edited())
                leave(take_up);
            else
                take_up();
        });
    });
    connect(&studio_->document(), &Document::opened, this, [this] {
        const bool open = studio_->document().open();
        pages_->setCurrentIndex(open ? 1 : 0);
        notices_->keep_below(open ? canvas_->mapTo(centralWidget(), QPoint(0, 0)).y() : 0);
        if (open) {
            steps_->open(first_step());
            canvas_->setFocus();
        } else {
            start_->setFocus();
        }
    });
    connect(&studio_->document(), &Document::changed, this, [this] {
        const Document& document = studio_->document();
        setWindowTitle(document.open() ? tr("%1 - Bright Pile").arg(document.name()) : tr("Bright Pile"));
    });
    camera_ = new CameraPanel(*arriving_, this);
    connect(camera_, &CameraPanel::start_wanted, this,
            [this](const CameraSettings& settings) { leave([this, settings] { arriving_->photograph(settings); }); });
    connect(start_, &StartScreen::folder_wanted, this, &MainWindow::choose_folder);
    connect(start_, &StartScreen::like_wanted, this, &MainWindow::choose_like);
    connect(start_, &StartScreen::camera_wanted, this, [this] { camera_->open_over(*this); });
    connect(start_, &StartScreen::left_over_wanted, recovery_, &Recovery::take_up);
    keys_ = new Keys(this);
    build_list_menus();
    tie_keys();
    tie_picture_keys();
    order_tabs(*pages_);
    start_->setFocus();
}

QWidget* MainWindow::build_desk() {
    auto* desk = new QWidget;
    auto* column = new QVBoxLayout(desk);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    bar_ = new TopBar(*studio_, *viewer_, desk);
    column->addWidget(bar_);
    auto* row = new QHBoxLayout;
    row->setSpacing(0);
    steps_ = new StepLine(desk);
    canvas_ = new Canvas(*studio_, *viewer_, *comparison_, desk);
    held_ = new ViewBar(*viewer_, *comparison_, desk);
    auto* odd = new OddCard(*studio_, *viewer_, canvas_);
    connect(odd, &OddCard::frames_wanted, this, [this] { choose_and_open(std::nullopt); });
    auto* sight = new QVBoxLayout;
    sight->setSpacing(0);
    sight->addWidget(held_);
    sight->addWidget(canvas_, 1);
    row->addWidget(steps_);
    row->addLayout(sight, 1);
    auto* capture = new CapturePanel(*studio_, *surveyor_, desk);
    capture->hide();
    row->addWidget(capture);
    play_ = new PlayBar(*studio_, *viewer_, desk);
    auto* switches = new QWidget(desk);
    auto* switch_row = new QHBoxLayout(switches);
    switch_row->setContentsMargins(0, 0, 0, 0);
    switch_row->setSpacing(space::hair);
    const auto panel_switch = [&](const char* id, const QString& words, const QString& name) {
        QPushButton* button = push(words, name, tip_of(id), switches);
        button->setCheckable(true);
        button->setProperty("low", true);
        switch_row->addWidget(button);
        return button;
    };
    plumb_button_ = panel_switch("plumb", tr("Plumb"), QStringLiteral("plumb"));
    tones_button_ = panel_switch("tones", tr("Tones"), QStringLiteral("tones"));
    capture_button_ = panel_switch("capture", tr("Capture data"), QStringLiteral("capture_data"));
    auto* tones = new TonesPanel(*studio_, *viewer_, *canvas_, desk);
    tones->hide();
    row->addWidget(tones);
    connect(tones_button_, &QPushButton::toggled, tones, &QWidget::setVisible);
    connect(capture_button_, &QPushButton::toggled, capture, &QWidget::setVisible);
    auto* plumb = new PlumbPanel(*studio_, *viewer_, desk);
    plumb->hide();
    row->addWidget(plumb);
    connect(plumb_button_, &QPushButton::toggled, plumb, &QWidget::setVisible);
    // Several together would leave little of the picture.
    for (QPushButton* one : {plumb_button_, tones_button_, capture_button_})
        connect(one, &QPushButton::toggled, this, [this, one](bool on) {
            for (QPushButton* other : {plumb_button_, tones_button_, capture_button_})
                if (on && other != one) other->setChecked(false);
        });
    connect(canvas_, &Canvas::clicked, plumb, &PlumbPanel::look_at);
    connect(plumb, &PlumbPanel::place_changed, canvas_,
            [this, plumb] { canvas_->set_plumb(plumb->isVisible() ? plumb->place() : std::nullopt); });
    auto* table = new AlignTable(*studio_, desk);
    table->hide();
    row->addWidget(table);
    column->addLayout(row, 1);
    rail_ = new TimeRail(*studio_, *surveyor_, desk);
    column->addWidget(rail_);
    rail_->set_head(play_, switches);
    connect(rail_, &TimeRail::menu_wanted, this, &MainWindow::frame_menu);
    connect(canvas_, &Canvas::menu_wanted, this, &MainWindow::picture_menu);
    connect(canvas_->zoom_button(), &QToolButton::clicked, this, &MainWindow::list_sizes);
    auto* exporting = new ExportStep(*studio_, *viewer_, *canvas_);
    auto* frames = new FramesStep(*studio_, *viewer_, *surveyor_, *arriving_);
    steps_->add(frames);
    connect(frames, &FramesStep::clip_wanted, this, [this] {
        const QStringList clips =
            ask_for_files(this, Places::frames, tr("Frames of a clip"), clips_filter(), near_frames());
        if (!clips.isEmpty()) studio_->add(frames_of_clip(clips.first()));
    });
    connect(frames, &FramesStep::camera_wanted, this, [this] { camera_->open_over(*this); });
    steps_->add(new EvenStep(*studio_, *viewer_, *canvas_));
    auto* align = new AlignStep(*studio_, *viewer_, *canvas_, *comparison_);
    steps_->add(align);
    steps_->add(new MergeStep(*studio_, *viewer_, *canvas_, *comparison_));
    steps_->add(new PartsStep(*studio_, *viewer_, *canvas_, *rail_));
    auto* finish = new FinishStep(*studio_, *viewer_, *canvas_);
    steps_->add(finish);
    connect(finish, &FinishStep::save_wanted, this, &MainWindow::save_finish);
    connect(finish, &FinishStep::take_wanted, this, &MainWindow::take_finish);
    steps_->add(exporting);
    connect(align, &AlignStep::table_wanted, table, &QWidget::setVisible);
    connect(steps_, &StepLine::step_opened, this, &MainWindow::step_opened);
    connect(bar_, &TopBar::home_wanted, this, &MainWindow::go_home);
    connect(bar_, &TopBar::open_wanted, this, [this] { choose_and_open(std::nullopt); });
    connect(bar_, &TopBar::save_wanted, this, [this] { save(); });
    connect(bar_, &TopBar::export_wanted, this, [this, exporting] { steps_->open(exporting); });
    connect(bar_, &TopBar::menu_opens, this,
            [this](QMenu* menu) { fill_main_menu(*menu, *keys_, [this](QMenu& piles) { list_recent(piles); }); });
    connect(bar_, &TopBar::history_opens, this, [this](QMenu* menu) { list_history(*menu); });
    connect(bar_, &TopBar::pair_wanted, comparison_, &Comparison::set_on);
    connect(comparison_, &Comparison::changed, bar_, [this] { bar_->set_pair(comparison_->on()); });
    connect(exporting, &ExportStep::export_wanted, this, &MainWindow::export_picture);
    connect(exporting, &ExportStep::growth_wanted, this, &MainWindow::export_growth);
    // Looking through the frames is what the rail is for: choosing one there shows it.
    connect(rail_, &TimeRail::frame_chosen, this, [this] {
        if (viewer_->hides_choice()) viewer_->set_view(View::frame);
    });
    connect(canvas_, &Canvas::origin_pointed, rail_, &TimeRail::point_at);
    connect(rail_, &TimeRail::taper_tried, this,
            [this](const Taper& taper) { viewer_->try_out(with_taper(studio_->pile(), taper, studio_->zone())); });
    connect(rail_, &TimeRail::taper_settled, this, [this](const Taper& taper) {
        studio_->document().edit(with_taper(studio_->pile(), taper, studio_->zone()), tr("Taper"));
        viewer_->leave_trial();
    });
    connect(rail_, &TimeRail::taper_left, viewer_, &Viewer::leave_trial);
    connect(viewer_, &Viewer::tried, rail_, [this] {
        const Method& method = method_of(viewer_->shown(), studio_->zone());
        rail_->try_method(viewer_->trying() ? std::optional(method) : std::nullopt);
    });
    return desk;
}

void MainWindow::step_opened() {
    rail_->bring_traces(steps_->traces());
    rail_->show_taper(steps_->shows_taper());
}

void MainWindow::settle_typing() {
    // A field that is left tells what was typed; one that keeps the focus has to be asked.
    if (auto* box = qobject_cast<QAbstractSpinBox*>(QApplication::focusWidget())) box->interpretText();
}

// Where the work of an outcome begins: parts are chosen from the start, once all frames are here.
int MainWindow::first_step() const {
    constexpr int frames = 0, parts = 4;
    const Pile& pile = studio_->pile();
    const bool fresh = studio_->document().path().isEmpty() && pile.parts.empty() && !arriving_->photographing() &&
                       !arriving_->watching();
    return fresh && pile.outcome == Outcome::best_of ? parts : frames;
}

void MainWindow::leave(std::function<void()> then) {
    if (asking_) return;
    settle_typing();
    if (!studio_->writing() || !studio_->document().open()) {
        leave_when_saved(std::move(then));
        return;
    }
    asking_ = true;
    const QString what = studio_->exporting().busy() ? studio_->exporting().name() : studio_->saving().name();
    const auto answer =
        ask(this, tr("Not done yet: %1.").arg(what), tr("What is being written would be lost."),
            {{tr("Wait for it"), tr("Goes on when everything is written")},
             {tr("Stop it and leave"), tr("What is being written is given up; files that were there stay")},
             {tr("Stay"), tr("Goes back to the pile")}});
    asking_ = false;
    if (!answer || *answer == 2) return;
    if (*answer == 1) {
        studio_->exporting().stop_all();
        studio_->saving().stop_all();
        leave_when_saved(std::move(then));
    } else if (studio_->writing()) {
        when_written_ = [this, then = std::move(then)] { when_free([this, then] { leave_when_saved(then); }); };
    } else {
        leave_when_saved(std::move(then));
    }
}

void MainWindow::leave_when_saved(std::function<void()> then) {
    const Document& document = studio_->document();
    if (!document.open() || !document.edited()) {
        then();
        return;
    }
    asking_ = true;
    const auto answer = ask(this, tr("%1 has edits that are not saved.").arg(document.name()), {},
                            {{tr("Save them"), tr("Saves the pile, then goes on")},
                             {tr("Throw them away"), tr("Goes on; the edits are lost")},
                             {tr("Stay"), tr("Goes back to the pile")}});
    asking_ = false;
    if (!answer || *answer == 2) return;
    if (*answer == 1) {
        then();
        return;
    }
    // Only when it is on disk, and nothing was changed meanwhile.
    save([this, then = std::move(then)](bool saved) {
        if (!saved) return;
        when_free([this, then] {
            if (studio_->document().edited())
                leave(then);
            else
                then();
        });
    });
}

void MainWindow::when_free(std::function<void()> then) {
    if (!asking_ && !QApplication::activeModalWidget() && !QApplication::activePopupWidget()) {
        then();
        return;
    }
    constexpr int pause_ms = 100;
    QTimer::singleShot(pause_ms, this, [this, then = std::move(then)] { when_free(then); });
}

void MainWindow::go_home() {
    leave([this] { studio_->document().close(); });
}

void MainWindow::flip_theme() {
    const ThemeName next = theme_name() == ThemeName::dusk ? ThemeName::noon : ThemeName::dusk;
    apply_theme(*qApp, next);
    QSettings().setValue(QStringLiteral("theme"), int(next));
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (!local_files(event->mimeData()).isEmpty()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    const QStringList names = local_files(event->mimeData());
    if (names.isEmpty()) return;
    event->acceptProposedAction();
    // Whoever let it go waits until the drop is over: questions come after it.
    QTimer::singleShot(0, this, [this, names] { take_drop(names); });
}

void MainWindow::closeEvent(QCloseEvent* event) {
    event->ignore();
    leave([this] { end(); });
}

void MainWindow::end() {
    QSettings().setValue(QLatin1String(geometry_key), saveGeometry());
    arriving_->stop();
    recovery_->forget();
    studio_->document().close();
    QCoreApplication::quit();
}

void MainWindow::start_again() {
    leave([this] {
        // What was never saved is opened anew from its frames.
        QStringList names;
        if (const QString& path = studio_->document().path(); !path.isEmpty())
            names << path;
        else
            for (const Frame& frame : studio_->pile().frames)
                names << QString::fromStdString(frame.file->path.string());
        if (starter_(names))
            end();
        else
            studio_->say(tr("The program could not be started again. End it, and start it by hand."), true);
    });
}

}  // namespace bp::app
