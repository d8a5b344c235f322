// The lists that the window opens: what can be done with a frame, the picture, a list; sizes, edits, piles.
#include <QApplication>
#include <QDoubleSpinBox>
#include <QFileInfo>
#include <QListWidget>
#include <QMenu>
#include <QScreen>
#include <QSettings>
#include <QTimer>
#include <QWidgetAction>
#include <QWindow>
#include <array>
#include <span>
#include <utility>

#include "app/looks/controls.h"
#include "app/looks/display.h"
#include "app/looks/words.h"
#include "app/window/main_window.h"
#include "app/window/menus.h"
#include "app/window/preferences.h"
#include "app/work/recents.h"
#include "pile/edits.h"

namespace bp::app {
namespace {

// What is done with what is chosen in a list, by the buttons that do it.
struct ListMenu {
    const char* list;
    std::span<const char* const> buttons;
};
constexpr std::array parts{"part_up", "part_down", "part_remove"};
constexpr std::array places{"place_earlier", "place_later", "place_copy", "place_remove"};
constexpr std::array mended{"mend_remove"};
constexpr std::array versions{"export_remove_version"};
constexpr std::array odd{"set_aside", "remove_frames", "take_all_odd_frames"};
constexpr std::array streaks{"streak_remove", "streaks_draw"};
constexpr std::array<ListMenu, 6> list_menus{{{"odd_frames", odd},
                                              {"parts_list", parts},
                                              {"places_list", places},
                                              {"mended_list", mended},
                                              {"export_versions", versions},
                                              {"streaks", streaks}}};

}  // namespace

void MainWindow::build_list_menus() {
    for (const ListMenu& of : list_menus) {
        auto* list = findChild<QListWidget*>(QLatin1String(of.list));
        list->setContextMenuPolicy(Qt::CustomContextMenu);
        connect(list, &QWidget::customContextMenuRequested, this, [this, list, buttons = of.buttons](QPoint at) {
            QMenu menu(this);
            menu.setObjectName(QStringLiteral("list_menu"));
            add_buttons(menu, *this, buttons);
            if (list->currentItem() && !menu.isEmpty()) menu.exec(list->viewport()->mapToGlobal(at));
        });
    }
}

void MainWindow::frame_menu(QPoint at) {
    const Pile& pile = studio_->pile();
    const Frame* frame = find_frame(pile, studio_->current());
    if (!frame) return;
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("frame_menu"));
    add_commands(menu, *keys_, std::array{"aside", "remove"});
    menu.addSeparator();
    QMenu* roles = menu.addMenu(tr("It is"));
    roles->setObjectName(QStringLiteral("frame_roles"));
    for (const Role role : {Role::scene, Role::foreground, Role::dark}) {
        QAction* action = roles->addAction(word(role), this, [this, role] {
            studio_->document().edit(with_role(studio_->pile(), studio_->selected(), role),
                                     tr("Role: %1").arg(within_sentence(word(role))));
        });
        action->setCheckable(true);
        action->setChecked(frame->role == role);
    }
    QAction* reference = menu.addAction(tr("Others are aligned to it"), this, [this] {
        studio_->document().edit(with_reference(studio_->pile(), studio_->current()), tr("Reference"));
    });
    reference->setObjectName(QStringLiteral("do_reference"));
    reference->setEnabled(usable(*frame) && frame->id != pile.reference);
    menu.addSeparator();
    add_commands(menu, *keys_, std::array{"select_all", "invert"});
    menu.addSeparator();
    add_commands(menu, *keys_, std::array{"by_time", "by_name"});
    menu.exec(at);
}

void MainWindow::picture_menu(QPoint at) {
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("picture_menu"));
    add_commands(menu, *keys_, std::array{"fit", "pixels", "twice"});
    menu.addSeparator();
    add_commands(menu, *keys_, std::array{"view_0", "view_1", "view_2", "view_3", "view_4"});
    menu.addSeparator();
    add_commands(menu, *keys_, std::array{"pair", "hold", "plumb", "tones", "capture", "proof"});
    menu.addSeparator();
    add_commands(menu, *keys_, std::array{"aside", "hide_steps", "hide_rail", "full_screen"});
    menu.exec(at);
}

// Sizes of the picture, and one that is typed.
void MainWindow::list_sizes() {
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("sizes"));
    add_commands(menu, *keys_, std::array{"fit", "pixels", "twice", "closer", "further"});
    menu.addSeparator();
    auto* typed = new QDoubleSpinBox(&menu);
    typed->setObjectName(QStringLiteral("size_typed"));
    typed->setAccessibleName(tr("Size in percent"));
    typed->setDecimals(0);
    constexpr double least = 1, most = 800;
    typed->setRange(least, most);
    typed->setSuffix(tr("%"));
    typed->setValue(std::round(100 * canvas_->zoom() / canvas_->pixel_by_pixel()));
    auto* action = new QWidgetAction(&menu);
    action->setDefaultWidget(typed);
    menu.addAction(action);
    const auto show = [this, typed] {
        canvas_->zoom_to(typed->value() / 100 * canvas_->pixel_by_pixel(),
                         {canvas_->width() / 2.0, canvas_->height() / 2.0});
    };
    connect(typed, &QDoubleSpinBox::editingFinished, &menu, [typed, show, &menu] {
        if (!typed->hasFocus()) return;
        show();
        menu.close();
    });
    QTimer::singleShot(0, typed, [typed] {
        typed->setFocus();
        typed->selectAll();
    });
    const QToolButton* button = canvas_->zoom_button();
    menu.exec(button->mapToGlobal(QPoint(0, -menu.sizeHint().height())));
}

// The newest at the top: the present one has a tick, those above it were taken back.
void MainWindow::list_history(QMenu& menu) {
    constexpr int most = 30;
    menu.clear();
    const QStringList steps = studio_->document().steps();
    const int now = studio_->document().step();
    const int first = std::max(0, std::min(now - most / 2, int(steps.size()) - most));
    for (int i = std::min(first + most, int(steps.size())) - 1; i >= first; --i) {
        QAction* action = menu.addAction(steps[i], this, [this, i] { studio_->document().go_to_step(i); });
        action->setObjectName(QStringLiteral("step_of_history_%1").arg(i));
        action->setCheckable(true);
        action->setChecked(i == now);
    }
}

void MainWindow::list_recent(QMenu& menu) {
    const std::vector<RecentPile> piles = recent_piles();
    for (const RecentPile& one : piles) {
        QAction* action =
            menu.addAction(QFileInfo(one.path).fileName(), this, [this, path = one.path] { open_recent(path); });
        action->setToolTip(one.path);
        action->setObjectName(QStringLiteral("recent_pile"));
    }
    menu.setToolTipsVisible(true);
}

void MainWindow::open_recent(const QString& path) {
    if (!QFileInfo::exists(path)) {
        studio_->say(tr("%1 is no longer there. Open it from where it is now.").arg(path), true);
        forget_recent(path);
        return;
    }
    open_instead({path}, std::nullopt);
}

void MainWindow::note_pile() {
    const Document& document = studio_->document();
    if (!document.open() || document.path().isEmpty()) return;
    const bool seen = viewer_->view() == View::result && viewer_->seen_finely() && !viewer_->trying();
    note_recent(document.path(), seen ? viewer_->overview().image : QImage());
    if (seen) noted_ = document.identity();
}

void MainWindow::choose_preferences() {
    Preferences dialog(*studio_, this);
    bool again = false;
    connect(&dialog, &Preferences::display_changed, this, &MainWindow::show_anew);
    connect(&dialog, &Preferences::start_again_wanted, this, [&again] { again = true; });
    dialog.exec();
    if (again) start_again();
}

void MainWindow::show_anew() {
    viewer_->show_again();
    comparison_->viewer().show_again();
    studio_->previews().clear();
    studio_->thumbnails().clear();
    studio_->thumbnails().load();
}

void MainWindow::flip_full_screen() {
    if (isFullScreen())
        showNormal();
    else
        showFullScreen();
}

void MainWindow::showEvent(QShowEvent* event) {
    QMainWindow::showEvent(event);
    // Moved to another screen, the window shows pictures by that one's profile.
    connect(windowHandle(), &QWindow::screenChanged, this, &MainWindow::moved_to, Qt::UniqueConnection);
    // What the desktop puts around a window is known a moment after it is on the screen.
    constexpr int framed_ms = 250;
    if (!std::exchange(shown_, true)) QTimer::singleShot(framed_ms, this, &MainWindow::keep_frame_on_screen);
}

void MainWindow::keep_frame_on_screen() {
    if (isFullScreen() || isMaximized()) return;
    const QRect room = screen()->availableGeometry();
    const QSize fits = size().boundedTo(room.size() - (frameGeometry().size() - size()));
    // One that is larger by itself was made so.
    if (fits == size() || size().boundedTo(room.size()) != size()) return;
    move(room.topLeft());
    resize(fits);
}

void MainWindow::moved_to(QScreen* screen) {
    if (use_display_of(screen)) show_anew();
}

}  // namespace bp::app
