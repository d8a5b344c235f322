#include "app/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QMimeData>
#include <QScreen>
#include <QSettings>
#include <QShortcut>
#include <QVBoxLayout>
#include <utility>

#include "app/align_table.h"
#include "app/capture_panel.h"
#include "app/clip_dialog.h"
#include "app/steps/align_step.h"
#include "app/steps/even_step.h"
#include "app/steps/export_step.h"
#include "app/steps/frames_step.h"
#include "app/steps/merge_step.h"
#include "app/steps/parts_step.h"
#include "app/theme.h"
#include "app/words.h"
#include "io/kinds.h"

namespace bp::app {
namespace {

constexpr double zoom_step = 1.25;
constexpr double brush_step = 1.2;
constexpr double divider_step = 0.05;

QStringList local_files(const QMimeData* data) {
    QStringList out;
    for (const QUrl& url : data->urls())
        if (url.isLocalFile()) out << url.toLocalFile();
    return out;
}

bool is_clip(const QString& name) {
    const Kind* kind = kind_of(name.toStdString());
    return kind && kind->way == Way::clip;
}

}  // namespace

MainWindow::MainWindow()
    : studio_(new Studio(this)),
      viewer_(new Viewer(*studio_)),
      surveyor_(new Surveyor(*studio_)),
      comparison_(new Comparison(*studio_, *viewer_)),
      arriving_(new Arriving(*studio_)) {
    setWindowTitle(tr("Bright Pile"));
    setWindowIcon(icon(QStringLiteral("bright-pile")));
    setAcceptDrops(true);
    resize(QSize(1280, 800).boundedTo(screen()->availableSize()));
    auto* centre = new QWidget(this);
    auto* column = new QVBoxLayout(centre);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    pages_ = new QStackedWidget(centre);
    recovery_ = new Recovery(*studio_, this);
    start_ = new StartScreen;
    pages_->addWidget(start_);
    pages_->addWidget(build_desk());
    column->addWidget(pages_, 1);
    jobs_ = new JobBar(centre);
    column->addWidget(jobs_);
    setCentralWidget(centre);
    jobs_->watch(studio_->work());
    jobs_->watch(viewer_->lane());

    connect(start_, &StartScreen::outcome_chosen, this, [this](Outcome outcome) { choose_and_open(outcome); });
    connect(start_, &StartScreen::open_wanted, this, [this] { choose_and_open(std::nullopt); });
    connect(start_, &StartScreen::demo_chosen, studio_, &Studio::open_demo);
    connect(start_, &StartScreen::theme_wanted, this, &MainWindow::flip_theme);
    connect(studio_, &Studio::said, jobs_, &JobBar::say);
    connect(&studio_->document(), &Document::opened, this, [this] {
        const bool open = studio_->document().open();
        pages_->setCurrentIndex(open ? 1 : 0);
        if (open) {
            steps_->open(0);
            canvas_->setFocus();
        }
    });
    connect(&studio_->document(), &Document::changed, this, [this] {
        const Document& document = studio_->document();
        if (after_save_ && !document.edited()) std::exchange(after_save_, {})();
        setWindowTitle(document.open() ? tr("%1 - Bright Pile").arg(document.name()) : tr("Bright Pile"));
    });
    camera_ = new CameraPanel(*arriving_, this);
    connect(camera_, &CameraPanel::start_wanted, this,
            [this](const CameraSettings& settings) { leave([this, settings] { arriving_->photograph(settings); }); });
    connect(start_, &StartScreen::folder_wanted, this, &MainWindow::choose_folder);
    connect(start_, &StartScreen::camera_wanted, this, [this] { camera_->open_over(*this); });
    connect(start_, &StartScreen::left_over_wanted, recovery_, &Recovery::take_up);
    build_shortcuts();
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
    look_ = new LookBar(*studio_, *viewer_, *comparison_, desk);
    auto* sight = new QVBoxLayout;
    sight->setSpacing(0);
    sight->addWidget(look_);
    sight->addWidget(canvas_, 1);
    row->addWidget(steps_);
    row->addLayout(sight, 1);
    auto* capture = new CapturePanel(*studio_, *surveyor_, desk);
    capture->hide();
    row->addWidget(capture);
    connect(look_->capture_button(), &QPushButton::toggled, capture, &QWidget::setVisible);
    auto* table = new AlignTable(*studio_, desk);
    table->hide();
    row->addWidget(table);
    column->addLayout(row, 1);
    rail_ = new TimeRail(*studio_, *surveyor_, desk);
    column->addWidget(rail_);
    auto* exporting = new ExportStep(*studio_);
    auto* frames = new FramesStep(*studio_, *viewer_, *surveyor_, *arriving_);
    steps_->add(frames);
    connect(frames, &FramesStep::clip_wanted, this, [this] {
        const QString clip = QFileDialog::getOpenFileName(this, tr("Frames of a clip"), {}, clips_filter());
        if (!clip.isEmpty()) take_clip(clip);
    });
    connect(frames, &FramesStep::camera_wanted, this, [this] { camera_->open_over(*this); });
    steps_->add(new EvenStep(*studio_, *viewer_, *canvas_));
    auto* align = new AlignStep(*studio_, *viewer_, *canvas_, *comparison_);
    steps_->add(align);
    steps_->add(new MergeStep(*studio_, *viewer_));
    steps_->add(new PartsStep(*studio_, *viewer_, *canvas_));
    export_index_ = 5;
    steps_->add(exporting);
    connect(align, &AlignStep::table_wanted, table, &QWidget::setVisible);
    connect(steps_, &StepLine::step_opened, this, &MainWindow::step_opened);
    connect(bar_, &TopBar::home_wanted, this, &MainWindow::go_home);
    connect(bar_, &TopBar::open_wanted, this, [this] { choose_and_open(std::nullopt); });
    connect(bar_, &TopBar::save_wanted, this, &MainWindow::save);
    connect(bar_, &TopBar::export_wanted, this, [this] {
        steps_->open(export_index_);
        export_picture();
    });
    connect(bar_, &TopBar::theme_wanted, this, &MainWindow::flip_theme);
    connect(exporting, &ExportStep::export_wanted, this, &MainWindow::export_picture);
    // Looking through the frames is what the rail is for: choosing one there shows it.
    connect(rail_, &TimeRail::frame_chosen, this, [this] {
        if (viewer_->of_all()) viewer_->set_view(View::frame);
    });
    return desk;
}

void MainWindow::build_shortcuts() {
    const auto on = [this](const QKeySequence& keys, auto action) {
        connect(new QShortcut(keys, this), &QShortcut::activated, this, action);
    };
    on(QKeySequence::Open, [this] { choose_and_open(std::nullopt); });
    on(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_O), [this] { choose_folder(); });
    on(QKeySequence::Save, [this] { save(); });
    on(QKeySequence::SaveAs, [this] { save_as(); });
    on(QKeySequence::Undo, [this] { studio_->document().undo(); });
    on(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), [this] { studio_->document().redo(); });
    on(QKeySequence::SelectAll, [this] {
        std::vector<int> all;
        for (const Frame& frame : studio_->pile().frames) all.push_back(frame.id);
        studio_->select_these(std::move(all));
    });
    on(QKeySequence(Qt::CTRL | Qt::Key_E), [this] { export_picture(); });
    on(QKeySequence(Qt::CTRL | Qt::Key_L), [this] { flip_theme(); });
    on(QKeySequence::Quit, [this] { close(); });
    for (int i = 0; i < 6; ++i) on(QKeySequence(Qt::CTRL | Qt::Key(Qt::Key_1 + i)), [this, i] { steps_->open(i); });
}

void MainWindow::step_opened() {
    rail_->bring_traces(steps_->traces());
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
    if (pages_->currentIndex() == 0) {
        QMainWindow::keyPressEvent(event);
        return;
    }
    Brush brush = canvas_->brush();
    const bool paints = canvas_->painting();
    switch (event->key()) {
        case Qt::Key_Left:
        case Qt::Key_Right: {
            const int by = event->key() == Qt::Key_Left ? -1 : 1;
            studio_->step_current(by, event->modifiers().testFlag(Qt::ShiftModifier));
            if (viewer_->of_all() && !flipped_from_) viewer_->set_view(View::frame);
            return;
        }
        case Qt::Key_A:
            studio_->toggle_aside();
            return;
        case Qt::Key_Delete:
            studio_->remove_selected();
            return;
        case Qt::Key_1:
            viewer_->set_view(View::result);
            return;
        case Qt::Key_2:
            viewer_->set_view(View::frame);
            return;
        case Qt::Key_3:
            viewer_->set_view(View::difference);
            return;
        case Qt::Key_4:
            viewer_->set_view(View::cover);
            return;
        case Qt::Key_R:
            look_->set_playing(!look_->playing());
            return;
        case Qt::Key_I:
            look_->capture_button()->toggle();
            return;
        case Qt::Key_D:
            comparison_->set_on(!comparison_->on());
            return;
        case Qt::Key_H:
            comparison_->hold();
            return;
        case Qt::Key_BracketLeft:
            canvas_->set_divider(canvas_->divider() - divider_step);
            return;
        case Qt::Key_BracketRight:
            canvas_->set_divider(canvas_->divider() + divider_step);
            return;
        case Qt::Key_F:
            canvas_->fit();
            return;
        case Qt::Key_P:
            canvas_->zoom_by(1.0 / canvas_->zoom());
            return;
        case Qt::Key_Plus:
        case Qt::Key_Equal:
            canvas_->zoom_by(zoom_step);
            return;
        case Qt::Key_Minus:
            canvas_->zoom_by(1 / zoom_step);
            return;
        case Qt::Key_K:
            brush.keep = !brush.keep;
            if (paints) canvas_->set_brush(brush);
            return;
        case Qt::Key_Comma:
            brush.size /= brush_step;
            if (paints) canvas_->set_brush(brush);
            return;
        case Qt::Key_Period:
            brush.size *= brush_step;
            if (paints) canvas_->set_brush(brush);
            return;
        case Qt::Key_Space:
            if (comparison_->on()) {
                canvas_->set_flipped(true);
            } else if (!event->isAutoRepeat() && !flipped_from_) {
                flipped_from_ = viewer_->view();
                viewer_->set_view(*flipped_from_ == View::result ? View::frame : View::result);
            }
            return;
        default:
            QMainWindow::keyPressEvent(event);
    }
}

void MainWindow::keyReleaseEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) canvas_->set_flipped(false);
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat() && flipped_from_) {
        viewer_->set_view(*flipped_from_);
        flipped_from_.reset();
        return;
    }
    QMainWindow::keyReleaseEvent(event);
}

void MainWindow::choose_folder() {
    const QString folder = QFileDialog::getExistingDirectory(this, tr("Open a folder"));
    if (!folder.isEmpty()) leave([this, folder] { studio_->open({folder}, Outcome::trails); });
}

void MainWindow::choose_and_open(std::optional<Outcome> outcome) {
    const QString filter = outcome ? pictures_filter() : pictures_filter(true);
    const QString title = outcome ? tr("Frames for %1").arg(word(*outcome)) : tr("Open");
    const QStringList names = QFileDialog::getOpenFileNames(this, title, {}, filter);
    if (names.isEmpty()) return;
    if (names.size() == 1 && is_clip(names.first())) {
        take_clip(names.first());
        return;
    }
    leave([this, names, outcome] { studio_->open(names, outcome.value_or(Outcome::trails)); });
}

void MainWindow::take_clip(const QString& clip) {
    const Result<ClipFacts> facts = probe_clip(clip.toStdString());
    if (!facts.ok()) {
        studio_->say(QString::fromStdString(facts.failure().sentence), true);
        return;
    }
    ClipDialog dialog(clip, facts.value(), this);
    if (dialog.exec() == QDialog::Accepted) studio_->add(dialog.names());
}

void MainWindow::save() {
    if (!studio_->document().open()) return;
    if (studio_->document().path().isEmpty())
        save_as();
    else
        studio_->save(studio_->document().path());
}

bool MainWindow::save_as() {
    if (!studio_->document().open()) return false;
    const QString base = QFileInfo(studio_->document().name()).completeBaseName();
    QString path =
        QFileDialog::getSaveFileName(this, tr("Save the pile"), base + QStringLiteral(".pile"), tr("Piles (*.pile)"));
    if (path.isEmpty()) return false;
    if (!path.endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive)) path += QStringLiteral(".pile");
    studio_->save(path);
    return true;
}

void MainWindow::export_picture() {
    if (!studio_->document().open()) return;
    const QString ending = QString::fromStdString(studio_->pile().exporting.ending);
    const QString base = QFileInfo(studio_->document().name()).completeBaseName();
    QString path =
        QFileDialog::getSaveFileName(this, tr("Export the picture"), base + ending, tr("Picture (*%1)").arg(ending));
    if (path.isEmpty()) return;
    if (!path.endsWith(ending, Qt::CaseInsensitive)) path += ending;
    studio_->export_to(path);
}

void MainWindow::leave(std::function<void()> then) {
    if (!studio_->document().open() || !studio_->document().edited()) {
        then();
        return;
    }
    const auto answer = QMessageBox::question(
        this, tr("Bright Pile"), tr("%1 has edits that are not saved.").arg(studio_->document().name()),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
    if (answer == QMessageBox::Discard) then();
    if (answer != QMessageBox::Save) return;
    after_save_ = std::move(then);
    if (studio_->document().path().isEmpty() && !save_as())
        after_save_ = {};
    else if (!studio_->document().path().isEmpty())
        save();
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
    if (names.size() == 1 && is_clip(names.first())) {
        take_clip(names.first());
        return;
    }
    // A pile replaces what is open; frames join it.
    if (names.first().endsWith(QStringLiteral(".pile"), Qt::CaseInsensitive))
        leave([this, names] { studio_->open(names, Outcome::trails); });
    else
        studio_->add(names);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    event->ignore();
    leave([this] {
        arriving_->stop();
        recovery_->forget();
        studio_->document().close();
        QCoreApplication::quit();
    });
}

}  // namespace bp::app
