// What the window does at every key: each command of the table (commands.h) is tied to what it stands for.
#include <QApplication>
#include <QKeyEvent>
#include <QPushButton>
#include <array>
#include <map>
#include <utility>

#include "app/looks/controls.h"
#include "app/panels/colour_pads.h"
#include "app/panels/curve_pad.h"
#include "app/panels/taper_curve.h"
#include "app/panels/tone_panel.h"
#include "app/window/guide.h"
#include "app/window/keys_sheet.h"
#include "app/window/main_window.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

constexpr double zoom_step = 1.25;
constexpr double brush_step = 1.2;
constexpr double divider_step = 0.05;

}  // namespace

void MainWindow::tie_keys() {
    const auto open = [this] { return studio_->document().open(); };
    keys_->tie("open", [this] { choose_and_open(std::nullopt); });
    keys_->tie("open_folder", [this] { choose_folder(); });
    keys_->tie("open_like", [this] { choose_like(); });
    keys_->tie(
        "save", [this] { save(); }, open);
    keys_->tie(
        "save_as", [this] { save_as(); }, open);
    keys_->tie(
        "export", [this] { bar_->export_wanted(); }, open);
    keys_->tie(
        "export_at_once", [this] { export_picture(); }, open);
    keys_->tie(
        "undo", [this] { studio_->document().undo(); }, [this] { return studio_->document().can_undo(); });
    keys_->tie(
        "redo", [this] { studio_->document().redo(); }, [this] { return studio_->document().can_redo(); });
    keys_->tie("theme", [this] { flip_theme(); });
    keys_->tie("guide", [this] { show_guide(); });
    keys_->tie("keys", [this] { show_keys(); });
    keys_->tie("preferences", [this] { choose_preferences(); });
    keys_->tie(
        "menu", [this] { bar_->menu_button()->showMenu(); }, open);
    keys_->tie(
        "history", [this] { bar_->history_button()->showMenu(); },
        [this] { return bar_->history_button()->isEnabled(); });
    keys_->tie("full_screen", [this] { flip_full_screen(); });
    keys_->tie(
        "hide_steps", [this] { steps_->setVisible(steps_->isHidden()); }, open);
    keys_->tie(
        "hide_rail", [this] { rail_->setVisible(rail_->isHidden()); }, open);
    keys_->tie(
        "invert",
        [this] {
            std::vector<int> others;
            const std::vector<int>& ids = studio_->selected();
            for (const Frame& frame : studio_->pile().frames)
                if (std::find(ids.begin(), ids.end(), frame.id) == ids.end()) others.push_back(frame.id);
            if (!others.empty()) studio_->select_these(std::move(others));
        },
        open);
    keys_->tie(
        "by_time", [this] { studio_->document().edit(with_order_by_time(studio_->pile()), tr("Order by time")); },
        open);
    keys_->tie(
        "by_name", [this] { studio_->document().edit(with_order_by_name(studio_->pile()), tr("Order by name")); },
        open);
    keys_->tie(
        "earlier", [this] { rail_->move_selected(-1); }, open, rail_);
    keys_->tie(
        "later", [this] { rail_->move_selected(1); }, open, rail_);
    keys_->tie("quit", [this] { close(); });
    keys_->tie(
        "select_all",
        [this] {
            std::vector<int> all;
            for (const Frame& frame : studio_->pile().frames) all.push_back(frame.id);
            studio_->select_these(std::move(all));
        },
        open);
    keys_->tie(
        "aside", [this] { studio_->toggle_aside(); }, open);
    keys_->tie(
        "remove", [this] { remove_chosen(); }, open);
    const auto step = [this](int by, bool extend) {
        studio_->step_current(by, extend);
        if (viewer_->hides_choice() && !flipped_from_) viewer_->set_view(View::frame);
    };
    keys_->tie(
        "frame_before", [step] { step(-1, false); }, open);
    keys_->tie(
        "frame_after", [step] { step(1, false); }, open);
    keys_->tie(
        "extend_back", [step] { step(-1, true); }, open);
    keys_->tie(
        "extend_on", [step] { step(1, true); }, open);
    const std::array<const char*, 7> steps{"step_0", "step_1", "step_2", "step_3", "step_4", "step_5", "step_6"};
    for (std::size_t i = 0; i < steps.size(); ++i)
        keys_->tie(
            steps[i], [this, i] { steps_->open(int(i)); }, open);
    struct Leap {
        const char *go, *select;
        std::function<int()> to;
    };
    const auto here = [this] { return number_of(studio_->pile(), studio_->current()); };
    const std::array<Leap, 4> leaps{
        {{"first_frame", "select_first", [] { return 1; }},
         {"last_frame", "select_last", [this] { return int(studio_->pile().frames.size()); }},
         {"ten_back", "select_ten_back", [here] { return here() - 10; }},
         {"ten_on", "select_ten_on", [here] { return here() + 10; }}}};
    for (const Leap& leap : leaps) {
        keys_->tie(
            leap.go, [this, to = leap.to] { rail_->go_to(to(), false); }, open, rail_);
        keys_->tie(
            leap.select, [this, to = leap.to] { rail_->go_to(to(), true); }, open, rail_);
    }
    constexpr double rail_step = 1.5;
    keys_->tie(
        "rail_closer", [this] { rail_->zoom_by(rail_step); }, open, rail_);
    keys_->tie(
        "rail_further", [this] { rail_->zoom_by(1 / rail_step); }, open, rail_);
}

void MainWindow::tie_picture_keys() {
    const auto open = [this] { return studio_->document().open(); };
    const std::array<const char*, view_count> views{"view_0", "view_1", "view_2", "view_3", "view_4"};
    for (std::size_t i = 0; i < views.size(); ++i)
        keys_->tie(
            views[i], [this, i] { viewer_->set_view(View(int(i))); }, open);
    keys_->tie(
        "flip", [] {}, open);  // by press and release, below
    keys_->tie(
        "before", [] {}, open);  // the same
    keys_->tie(
        "hold_place", [] {}, open);  // the same
    keys_->tie(
        "play", [this] { play_->set_playing(!play_->playing()); }, open);
    keys_->tie(
        "proof", [this] { viewer_->set_proof(!viewer_->proof()); }, open);
    keys_->tie(
        "pair", [this] { comparison_->set_on(!comparison_->on()); }, open);
    keys_->tie(
        "hold", [this] { comparison_->hold(); }, open);
    const auto pair = [this] { return comparison_->on(); };
    keys_->tie(
        "divider_left", [this] { canvas_->set_divider(canvas_->divider() - divider_step); }, pair);
    keys_->tie(
        "divider_right", [this] { canvas_->set_divider(canvas_->divider() + divider_step); }, pair);
    keys_->tie(
        "capture", [this] { capture_button_->toggle(); }, open);
    keys_->tie(
        "tones", [this] { tones_button_->toggle(); }, open);
    keys_->tie(
        "plumb", [this] { plumb_button_->toggle(); }, open);
    keys_->tie(
        "fit", [this] { canvas_->fit(); }, open);
    keys_->tie(
        "pixels", [this] { canvas_->zoom_by(canvas_->pixel_by_pixel() / canvas_->zoom()); }, open);
    keys_->tie(
        "twice", [this] { canvas_->zoom_by(2 * canvas_->pixel_by_pixel() / canvas_->zoom()); }, open);
    keys_->tie(
        "zoom_typed", [this] { list_sizes(); }, open);
    keys_->tie(
        "closer", [this] { canvas_->zoom_by(zoom_step); }, open);
    keys_->tie(
        "further", [this] { canvas_->zoom_by(1 / zoom_step); }, open);
    keys_->tie("leave", [this] { leave_something(); });
    const auto brush = [this](const std::function<void(Brush&)>& change) {
        Brush now = canvas_->brush();
        change(now);
        canvas_->set_brush(now);
    };
    keys_->tie(
        "keep", [brush] { brush([](Brush& b) { b.keep = !b.keep; }); }, [this] { return canvas_->painting(); });
    const auto sized = [this] { return canvas_->painting() || canvas_->has_tool(); };
    keys_->tie(
        "brush_smaller", [brush] { brush([](Brush& b) { b.size /= brush_step; }); }, sized);
    keys_->tie(
        "brush_larger", [brush] { brush([](Brush& b) { b.size *= brush_step; }); }, sized);
    struct Arrow {
        const char *pan, *mark;
        QPointF by;
    };
    for (const Arrow& arrow : {Arrow{"pan_left", "mark_left", {-1, 0}}, Arrow{"pan_right", "mark_right", {1, 0}},
                               Arrow{"pan_up", "mark_up", {0, -1}}, Arrow{"pan_down", "mark_down", {0, 1}}}) {
        keys_->tie(
            arrow.pan, [this, arrow] { canvas_->pan(arrow.by); }, open, canvas_);
        keys_->tie(
            arrow.mark, [this, arrow] { canvas_->step_mark(arrow.by); }, open, canvas_);
    }
    for (const char* id : {"nudge_left", "nudge_right", "nudge_up", "nudge_down", "turn_left", "turn_right"}) {
        auto* button = findChild<QPushButton*>(QLatin1String(id));
        keys_->tie(
            id, [button] { button->click(); }, [button] { return button->isVisible() && button->isEnabled(); });
    }
}

// The lists of parts and of places have a use of their own for the key.
void MainWindow::remove_chosen() {
    const QWidget* focus = QApplication::focusWidget();
    const QString list = focus ? focus->objectName() : QString();
    // What is chosen in a list is meant while the list has the focus, and by its button it goes.
    static const std::map<QString, QString> buttons{
        {QStringLiteral("parts_list"), QStringLiteral("part_remove")},
        {QStringLiteral("places_list"), QStringLiteral("place_remove")},
        {QStringLiteral("mended_list"), QStringLiteral("mend_remove")},
        {QStringLiteral("export_versions"), QStringLiteral("export_remove_version")}};
    if (const auto found = buttons.find(list); found != buttons.end())
        findChild<QPushButton*>(found->second)->click();
    else
        studio_->remove_selected();
}

// What is left first is what is held down.
bool MainWindow::leave_something() {
    if (NamedSlider::leave_drag() || canvas_->leave_drag() || rail_->leave_drag()) return true;
    for (TonePanel* panel : findChildren<TonePanel*>())
        if (panel->leave_drag()) return true;
    for (TaperCurve* curve : findChildren<TaperCurve*>())
        if (curve->leave_drag()) return true;
    // Those that stand alone; a tone control has seen to its own.
    for (ColourPad* pad : findChildren<ColourPad*>())
        if (pad->leave_drag()) return true;
    for (CurvePad* curve : findChildren<CurvePad*>())
        if (curve->leave_drag()) return true;
    if (viewer_->trying()) {
        viewer_->leave_trial();
        return true;
    }
    if (canvas_->leave_tool()) return true;
    if (play_->playing()) {
        play_->set_playing(false);
        return true;
    }
    if (rail_->holds_patches()) {
        rail_->hold_patches(false);
        return true;
    }
    if (isFullScreen() && QApplication::focusWidget() == canvas_) {
        flip_full_screen();
        return true;
    }
    if (QApplication::focusWidget() == canvas_ || pages_->currentIndex() == 0) return false;
    canvas_->setFocus();
    return true;
}

void MainWindow::show_guide() {
    if (!guide_) guide_ = new Guide(this);
    guide_->open_chapter(chapter_of_step(studio_->document().open() ? steps_->open_step() : -1));
    guide_->show();
    guide_->raise();
    guide_->activateWindow();
}

void MainWindow::show_keys() {
    KeysSheet(this).exec();
}

bool MainWindow::event(QEvent* event) {
    // What is held down while the window goes to the back is let go elsewhere, and never heard.
    if (event->type() == QEvent::WindowDeactivate && flipped_from_)
        viewer_->set_view(*std::exchange(flipped_from_, {}));
    if (event->type() == QEvent::WindowDeactivate) {
        canvas_->set_flipped(false);
        viewer_->set_finished(true);
        rail_->hold_patches(false);
    }
    return QMainWindow::event(event);
}

void MainWindow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && event->modifiers() == Qt::NoModifier && studio_->document().open()) {
        if (comparison_->on()) {
            canvas_->set_flipped(true);
        } else if (!event->isAutoRepeat() && !flipped_from_) {
            flipped_from_ = viewer_->view();
            viewer_->set_view(*flipped_from_ == View::result ? View::frame : View::result);
        }
        return;
    }
    if (event->key() == Qt::Key_U && event->modifiers() == Qt::NoModifier && studio_->document().open()) {
        viewer_->set_finished(false);
        return;
    }
    if (event->key() == Qt::Key_T && event->modifiers() == Qt::NoModifier && rail_->shows_patches()) {
        if (!event->isAutoRepeat()) rail_->hold_patches(true);
        return;
    }
    if (!keys_->press(QKeySequence(event->keyCombination()))) QMainWindow::keyPressEvent(event);
}

void MainWindow::keyReleaseEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat()) {
        canvas_->set_flipped(false);
        if (flipped_from_) viewer_->set_view(*std::exchange(flipped_from_, {}));
        return;
    }
    if (event->key() == Qt::Key_U && !event->isAutoRepeat()) return viewer_->set_finished(true);
    if (event->key() == Qt::Key_T && !event->isAutoRepeat()) return rail_->hold_patches(false);
    QMainWindow::keyReleaseEvent(event);
}

}  // namespace bp::app
