// Plays with the real window as somebody who knows nothing: random clicks, keys, wheel, drags, drops and answers,
// several jobs at once. After every few acts what must always hold is checked: the pile saves and opens equal, taking
// everything back and doing it again gives the same, the frames on disk are as they were.
#include <QAbstractButton>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QDir>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QLineEdit>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <random>

#include "app/looks/controls.h"
#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/window/main_window.h"
#include "base/files.h"
#include "pile/file.h"
#include "practice/practice.h"

namespace {

using namespace bp;
using namespace bp::app;

class Monkey {
  public:
    Monkey(MainWindow& window, const QDir& room, unsigned seed) : window_(window), room_(room), dice_(seed) {
        for (const QFileInfo& scene : QDir(room.filePath("frames")).entryInfoList(QDir::Dirs | QDir::NoDotAndDotDot))
            for (const QFileInfo& file : QDir(scene.filePath()).entryInfoList(QDir::Files))
                originals_[file.filePath().toStdString()] = content_hash(file.filePath().toStdString()).value();
        answer();
    }

    void act() {
        ++acts_;
        switch (below(18)) {
            case 0:
            case 1:
            case 2:
            case 3:
            case 4:
                click();
                break;
            case 5:
            case 6:
            case 7:
            case 8:
                press_key();
                break;
            case 9:
                wheel();
                break;
            case 10:
            case 11:
            case 12:
                drag();
                break;
            case 13:
                drop();
                break;
            case 14:
                type();
                break;
            case 15:
                choose();
                break;
            case 16:
                resize();
                break;
            default:
                wait(below(120));
        }
        if (acts_ % 12 == 0) check();
        if (acts_ % 150 == 0) check_originals();
    }
    long acts() const { return acts_; }
    void check_originals() {
        for (const auto& [file, hash] : originals_) {
            const auto now = content_hash(file);
            if (!now.ok() || now.value() != hash) fail("an original has changed: " + file);
        }
    }

  private:
    int below(int n) { return std::uniform_int_distribution<int>(0, std::max(0, n - 1))(dice_); }
    template <class T>
    T one_of(std::initializer_list<T> values) {
        return *(values.begin() + below(int(values.size())));
    }
    void log(const QString& what) { std::fprintf(stderr, "%ld %s\n", acts_, qPrintable(what)); }
    [[noreturn]] void fail(const std::string& why) {
        std::fprintf(stderr, "FAILED after %ld acts: %s\n", acts_, why.c_str());
        std::abort();
    }
    void wait(int ms) {
        log(QStringLiteral("wait %1").arg(ms));
        QTest::qWait(ms);
    }

    QList<QWidget*> seen(bool buttons) {
        QList<QWidget*> out;
        for (QWidget* w : window_.findChildren<QWidget*>())
            if (w->isVisible() && w->isEnabled() && !w->size().isEmpty() &&
                (!buttons || qobject_cast<QAbstractButton*>(w)))
                out << w;
        return out;
    }
    QWidget* any(bool buttons) {
        const QList<QWidget*> all = seen(buttons);
        return all.isEmpty() ? &window_ : all[below(int(all.size()))];
    }
    QPoint somewhere(const QWidget* w) { return {below(std::max(1, w->width())), below(std::max(1, w->height()))}; }

    void click() {
        QWidget* w = any(below(5) != 0);
        // Exposing a whole scene takes longer than a monkey has patience.
        if (w->objectName().startsWith("demo_")) return;
        if (auto* area = window_.findChild<QScrollArea*>("step_line"); area && area->isAncestorOf(w))
            area->ensureWidgetVisible(w);
        log("click " + w->objectName() + " " + w->metaObject()->className());
        if (below(12) == 0)
            QTest::mouseDClick(w, Qt::LeftButton, Qt::NoModifier, somewhere(w));
        else
            QTest::mouseClick(w, below(9) == 0 ? Qt::RightButton : Qt::LeftButton,
                              below(9) == 0   ? Qt::ControlModifier
                              : below(9) == 0 ? Qt::ShiftModifier
                                              : Qt::NoModifier);
    }
    void press_key() {
        QWidget* focus = QApplication::focusWidget();
        if (!focus) focus = &window_;
        const Qt::Key key = one_of<Qt::Key>({Qt::Key_A,
                                             Qt::Key_Delete,
                                             Qt::Key_Left,
                                             Qt::Key_Right,
                                             Qt::Key_Up,
                                             Qt::Key_Down,
                                             Qt::Key_Escape,
                                             Qt::Key_Space,
                                             Qt::Key_Return,
                                             Qt::Key_Tab,
                                             Qt::Key_1,
                                             Qt::Key_2,
                                             Qt::Key_3,
                                             Qt::Key_4,
                                             Qt::Key_5,
                                             Qt::Key_6,
                                             Qt::Key_R,
                                             Qt::Key_I,
                                             Qt::Key_D,
                                             Qt::Key_H,
                                             Qt::Key_F,
                                             Qt::Key_P,
                                             Qt::Key_K,
                                             Qt::Key_Plus,
                                             Qt::Key_Minus,
                                             Qt::Key_Comma,
                                             Qt::Key_Period,
                                             Qt::Key_BracketLeft,
                                             Qt::Key_BracketRight,
                                             Qt::Key_Home,
                                             Qt::Key_End,
                                             Qt::Key_PageUp,
                                             Qt::Key_PageDown,
                                             Qt::Key_Z,
                                             Qt::Key_Z,
                                             Qt::Key_Y,
                                             Qt::Key_S,
                                             Qt::Key_E,
                                             Qt::Key_O,
                                             Qt::Key_F1,
                                             Qt::Key_F7,
                                             Qt::Key_F8,
                                             Qt::Key_F10,
                                             Qt::Key_F11,
                                             Qt::Key_G,
                                             Qt::Key_N,
                                             Qt::Key_T,
                                             Qt::Key_Menu,
                                             Qt::Key_L});
        const auto modifiers = one_of<Qt::KeyboardModifiers>(
            {Qt::NoModifier, Qt::NoModifier, Qt::NoModifier, Qt::ControlModifier, Qt::ControlModifier,
             Qt::ShiftModifier, Qt::AltModifier, Qt::ControlModifier | Qt::ShiftModifier});
        log(QStringLiteral("key ") + QKeySequence(key | modifiers).toString() + " to " + focus->objectName());
        for (int i = below(4); i >= 0; --i) {
            QTest::keyClick(focus, key, modifiers);
            focus = QApplication::focusWidget() ? QApplication::focusWidget() : &window_;
        }
    }
    void wheel() {
        QWidget* w = any(false);
        log("wheel " + w->objectName());
        const QPointF at = somewhere(w);
        QWheelEvent event(at, w->mapToGlobal(at), {}, {0, one_of({-120, 120, 360})}, Qt::NoButton,
                          one_of<Qt::KeyboardModifiers>({Qt::NoModifier, Qt::ControlModifier, Qt::ShiftModifier}),
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(w, &event);
    }
    // Sometimes something else happens in the middle of it.
    void drag() {
        QWidget* w = one_of<QWidget*>(
            {&window_.canvas(), &window_.canvas(), any(false), window_.findChild<QWidget*>("time_rail"),
             window_.findChild<QWidget*>("tone_ribbon"), window_.findChild<QWidget*>("hue_ring")});
        if (!w || !w->isVisible()) return;
        log("drag on " + w->objectName());
        const auto button = below(8) == 0 ? Qt::RightButton : Qt::LeftButton;
        const QPointer<QWidget> still = w;
        QTest::mousePress(w, button, Qt::NoModifier, somewhere(w));
        for (int i = below(6); i >= 0 && still; --i) {
            const QPointF at = somewhere(w);
            QMouseEvent move(QEvent::MouseMove, at, w->mapToGlobal(at), Qt::NoButton, button, Qt::NoModifier);
            QApplication::sendEvent(w, &move);
            if (below(6) == 0) press_key();
            if (below(6) == 0) QTest::qWait(below(30));
        }
        if (still) QTest::mouseRelease(w, button, Qt::NoModifier, somewhere(w));
    }
    QString any_path() {
        const QStringList scenes = QDir(room_.filePath("frames")).entryList(QDir::Dirs | QDir::NoDotAndDotDot);
        const QDir scene(room_.filePath("frames/" + scenes[below(int(scenes.size()))]));
        const QStringList files = scene.entryList(QDir::Files);
        const QStringList piles = QDir(room_.filePath("out")).entryList({"*.pile"}, QDir::Files);
        switch (below(5)) {
            case 0:
                return scene.path();
            case 1:
                return piles.isEmpty() ? scene.path() : room_.filePath("out/" + piles[below(int(piles.size()))]);
            case 2:
                return room_.filePath("frames/none.jpg");
            default:
                return scene.filePath(files[below(int(files.size()))]);
        }
    }
    void drop() {
        QMimeData data;
        QList<QUrl> urls;
        for (int i = below(3); i >= 0; --i) urls << QUrl::fromLocalFile(any_path());
        data.setUrls(urls);
        log("drop " + urls.front().fileName());
        QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window_, &enter);
        QDropEvent event(QPointF(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window_, &event);
    }
    void type() {
        QList<QWidget*> fields;
        for (QWidget* w : seen(false))
            if (qobject_cast<QLineEdit*>(w) || qobject_cast<QAbstractSpinBox*>(w)) fields << w;
        if (fields.isEmpty()) return;
        QWidget* field = fields[below(int(fields.size()))];
        log("type into " + field->objectName());
        field->setFocus();
        QTest::keyClicks(field, one_of<QString>({"12", "-3", "0.5", "999999", "gull", "50%1", "1e9", ""}));
        if (below(2) == 0 && field->isVisible()) QTest::keyClick(field, Qt::Key_Return);
    }
    void choose() {
        QList<QComboBox*> boxes;
        for (QComboBox* box : window_.findChildren<QComboBox*>())
            if (box->isVisible() && box->isEnabled()) boxes << box;
        if (boxes.isEmpty()) return;
        QComboBox* box = boxes[below(int(boxes.size()))];
        log("choose in " + box->objectName());
        box->setFocus();
        QTest::keyClick(box, one_of({Qt::Key_Down, Qt::Key_Up, Qt::Key_End}));
    }
    void resize() {
        if (below(4) != 0) return;
        window_.resize(1024 + below(400), 700 + below(200));
    }

    // Whatever asks is answered, without thinking.
    void answer() {
        // Anew each time: a timer whose own work waits in a dialog would not come again for the next one.
        QTimer::singleShot(15, &window_, [this] { answer(); });
        if (QWidget* popup = QApplication::activePopupWidget()) {
            if (auto* menu = qobject_cast<QMenu*>(popup)) {
                const auto actions = menu->actions();
                QAction* action = actions.isEmpty() || below(3) == 0 ? nullptr : actions[below(int(actions.size()))];
                if (action && action->menu()) {
                    const auto inside = action->menu()->actions();
                    action = inside.isEmpty() ? nullptr : inside[below(int(inside.size()))];
                }
                menu->close();
                // The play goes on.
                if (action && action->objectName() == QStringLiteral("do_quit")) action = nullptr;
                if (action && action->isEnabled() && !action->isSeparator() && !action->menu()) {
                    log("menu " + action->text());
                    action->trigger();
                }
            } else if (below(6) == 0) {
                popup->close();
            }
            return;
        }
        QWidget* dialog = QApplication::activeModalWidget();
        if (!dialog || dialog == answered_) return;
        answered_ = dialog;
        log(QStringLiteral("answer ") + dialog->metaObject()->className() + " " + dialog->windowTitle());
        if (auto* files = qobject_cast<QFileDialog*>(dialog)) {
            auto* name = files->findChild<QLineEdit*>("fileNameEdit");
            if (!name || below(3) == 0) {
                files->reject();
                return;
            }
            const bool writes = files->acceptMode() == QFileDialog::AcceptSave;
            name->setFocus();
            name->setText(writes ? room_.filePath(QStringLiteral("out/o%1").arg(below(6)))
                          : files->fileMode() == QFileDialog::Directory ? QFileInfo(any_path()).absolutePath()
                                                                        : any_path());
            QTest::keyClick(name, Qt::Key_Return);
            if (dialog->isVisible()) files->reject();
        } else {
            const auto buttons = dialog->findChildren<QAbstractButton*>();
            QAbstractButton* button = buttons.isEmpty() ? nullptr : buttons[below(int(buttons.size()))];
            if (button && button->isVisible() && below(4) != 0)
                button->click();
            else
                QTest::keyClick(dialog, Qt::Key_Escape);
            if (dialog->isVisible() && below(3) == 0) dialog->close();
        }
        answered_ = nullptr;
    }

    void check() {
        const Document& document = window_.studio().document();
        if (!document.open()) return;
        const Pile pile = document.pile();
        if (!find_frame(pile, document.selection().current)) fail("the current frame is not in the pile");
        for (const int id : document.selection().ids)
            if (!find_frame(pile, id)) fail("a selected frame is not in the pile");
        const fs::path file = room_.filePath("check.pile").toStdString();
        const Status saved = save_pile(pile, file);
        if (!saved.ok()) fail(saved.failure().english());
        Result<LoadedPile> loaded = load_pile(file);
        if (!loaded.ok()) fail(loaded.failure().english());
        for (const Saying& remark : loaded.value().remarks) fail(remark.english());
        Pile back = loaded.value().pile;
        if (back.frames.size() != pile.frames.size()) fail("frames were lost");
        for (std::size_t i = 0; i < pile.frames.size(); ++i) {
            back.frames[i].problem = pile.frames[i].problem;
            back.frames[i].changed = pile.frames[i].changed;
            if (!usable(pile.frames[i])) back.frames[i].file = pile.frames[i].file;
        }
        if (!(back == pile)) fail("the pile is another one when it is opened");
        if (below(8) == 0) check_history();
    }
    void check_history() {
        Document& document = window_.studio().document();
        log("undo everything");
        const Pile last = document.pile();
        int steps = 0;
        while (document.can_undo()) {
            document.undo();
            ++steps;
        }
        for (int i = 0; i < steps; ++i) document.redo();
        if (!(document.pile() == last)) fail("what was taken back and done again is not the same");
    }

    MainWindow& window_;
    QDir room_;
    std::mt19937 dice_;
    std::map<std::string, std::string> originals_;
    QPointer<QWidget> answered_;
    long acts_ = 0;
};

bool expose(const QDir& room) {
    for (const char* name : {"quay", "shelf", "lighthouse"}) {
        practice::PracticeOptions options;
        options.size = {240, 160};
        options.frames = 5;
        options.truth = false;
        Job job;
        const auto folder = room.filePath(QStringLiteral("frames/") + name);
        QDir().mkpath(folder);
        if (!practice::practise(*practice::scene_named(name), folder.toStdString(), options, job).ok()) return false;
    }
    return true;
}

}  // namespace

int main(int argc, char** argv) {
    const int seconds = argc > 1 ? std::atoi(argv[1]) : 60;
    const auto seed = unsigned(argc > 2 ? std::atoi(argv[2]) : 1);
    if (seconds < 1) {
        std::fprintf(stderr, "usage: %s [seconds [seed]]\n", argv[0]);
        return 2;
    }
    QTemporaryDir room;
    for (const char* place : {"XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"}) {
        const QString folder = room.filePath(QString::fromLatin1(place).toLower());
        QDir().mkpath(folder);
        qputenv(place, folder.toLocal8Bit());
    }
    QDir().mkpath(room.filePath("out"));
    qputenv("BRIGHT_PILE_DEMO", room.filePath("demo").toLocal8Bit());
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("bright-pile-monkey"));
    QApplication::setOrganizationName(QStringLiteral("bright-pile"));
    QApplication::setQuitOnLastWindowClosed(false);
    speak(application, QLocale::c());
    guard_wheel(application);
    load_fonts();
    apply_theme(application, ThemeName::dusk);
    if (!expose(QDir(room.path()))) return 2;
    long acts = 0;
    {
        MainWindow window;
        window.show();
        QApplication::setActiveWindow(&window);
        Monkey monkey(window, QDir(room.path()), seed);
        QElapsedTimer clock;
        clock.start();
        while (clock.elapsed() < qint64(seconds) * 1000) {
            if (!window.isVisible()) window.show();
            if (!QApplication::activeModalWidget() && !window.isActiveWindow()) QApplication::setActiveWindow(&window);
            monkey.act();
            QTest::qWait(1);
        }
        monkey.check_originals();
        acts = monkey.acts();
        window.studio().document().close();
    }
    std::printf("%ld acts in %d s, seed %u: all held\n", acts, seconds, seed);
    return 0;
}
