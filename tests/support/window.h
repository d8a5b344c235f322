// Driving the real window as a person does: clicks on what is to be seen, keys to what has the focus, answers to the
// dialogs that come.
#pragma once

#include <QAbstractItemView>
#include <QAbstractScrollArea>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <QMimeData>
#include <QMouseEvent>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QSpinBox>
#include <QTest>
#include <QTimer>
#include <functional>
#include <memory>

#include "app/window/main_window.h"
#include "engine/render.h"
#include "support/fixtures.h"

namespace bp::test {

// Under a sanitizer all takes many times as long.
#if defined(__SANITIZE_THREAD__)
constexpr int patience = 12;
#elif defined(__SANITIZE_ADDRESS__)
constexpr int patience = 5;
#else
constexpr int patience = 1;
#endif

inline bool wait_for(const std::function<bool()>& ready, int ms = 20000) {
    QElapsedTimer clock;
    clock.start();
    while (!ready()) {
        if (clock.elapsed() > qint64(ms) * patience) return false;
        QTest::qWait(2);
    }
    return true;
}

// Lets everything that is already on its way arrive: what was posted, and what that posts.
inline void let_pass() {
    for (int i = 0; i < 5; ++i) {
        QCoreApplication::sendPostedEvents();
        QCoreApplication::processEvents();
    }
}

// Whatever the lane ran before has ended, and what it told has arrived: its jobs have one thread.
inline bool has_ended(app::Lane& lane) {
    bool heard = false;
    lane.run<int>([](Job&) { return 0; }, [&](int) { heard = true; });
    return wait_for([&] { return heard; });
}

// While it lives, the next dialog of this kind is answered as soon as it is seen. A test that ends without it having
// come fails in `came()`.
class Answering {
  public:
    explicit Answering(std::function<bool(QWidget&)> answer) : answer_(std::move(answer)) {
        QObject::connect(&timer_, &QTimer::timeout, [this] {
            QWidget* dialog = QApplication::activeModalWidget();
            if (!dialog || !dialog->isVisible() || came_ || answers_) return;
            // It has come when the answer is given, and not while it is: what is waited for then would be met too soon.
            answers_ = true;
            came_ = answer_(*dialog);
            answers_ = false;
        });
        timer_.start(10);
    }
    bool came() const { return came_; }

  private:
    std::function<bool(QWidget&)> answer_;
    QTimer timer_;
    bool came_ = false;
    bool answers_ = false;
};

// Presses a button of a question by its number; -1 is Escape. `words` must stand in the question.
inline std::function<bool(QWidget&)> answer(int number, const QString& words = {}) {
    return [=](QWidget& dialog) {
        auto* box = qobject_cast<QMessageBox*>(&dialog);
        if (!box || !(box->text() + box->informativeText()).contains(words)) return false;
        if (number < 0) {
            QTest::keyClick(box, Qt::Key_Escape);
            return true;
        }
        auto* button = box->findChild<QPushButton*>(QStringLiteral("answer_%1").arg(number));
        if (!button || !button->isVisible()) return false;
        QTest::mouseClick(button, Qt::LeftButton);
        return true;
    };
}

// Types names into a dialog for files and presses Enter. An empty list leaves it by Escape.
inline std::function<bool(QWidget&)> choose(const std::vector<fs::path>& paths) {
    return [=](QWidget& widget) {
        auto* dialog = qobject_cast<QFileDialog*>(&widget);
        if (!dialog) return false;
        auto* name = dialog->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
        if (!name) return false;
        if (paths.empty()) {
            QTest::keyClick(dialog, Qt::Key_Escape);
            return true;
        }
        dialog->setDirectory(QString::fromStdString(paths.front().parent_path().string()));
        QStringList names;
        for (const fs::path& path : paths)
            names << (paths.size() == 1
                          ? QString::fromStdString(path.string())
                          : QStringLiteral("\"%1\"").arg(QString::fromStdString(path.filename().string())));
        // As pasted: what is typed letter by letter opens a list of proposals over the field.
        name->setFocus();
        name->setText(names.join(QLatin1Char(' ')));
        let_pass();
        QTest::keyClick(name, Qt::Key_Return);
        return true;
    };
}

// 1280 x 800, or as the run of the tests says: WIDTHxHEIGHT.
inline QSize usual_size() {
    const QStringList said = qEnvironmentVariable("BRIGHT_PILE_TEST_WINDOW", "1280x800").split('x');
    return {said.first().toInt(), said.last().toInt()};
}

struct Window {
    std::unique_ptr<app::MainWindow> made;
    app::MainWindow& window;

    Window() : made(std::make_unique<app::MainWindow>()), window(*made) {
        window.resize(usual_size());
        window.show();
        QApplication::setActiveWindow(&window);
        wait_for([this] { return window.isActiveWindow(); }, 2000);
        let_pass();
    }
    ~Window() { window.studio().document().close(); }

    app::Studio& studio() { return window.studio(); }
    const Pile& pile() { return window.studio().pile(); }
    // Green of a pixel of the result, rendered apart from what the window shows.
    std::uint16_t result_at(int x, int y) {
        Job job;
        FrameStore store(working_space(pile()), {0, std::size_t(1) << 30});
        return render(pile(), store, {x, y, 1, 1}, 0, job).value().at(0, 0, 1);
    }

    template <class T>
    T* find(const char* name) {
        T* found = window.findChild<T*>(QLatin1String(name));
        if (!found) throw std::runtime_error(std::string("no widget ") + name);
        return found;
    }
    // The one of that name that is to be seen.
    template <class T>
    T* seen(const char* name) {
        for (T* one : window.findChildren<T*>(QLatin1String(name)))
            if (one->isVisible()) return one;
        return nullptr;
    }
    // Only what is to be seen and can be used is clicked; what lies further down is scrolled to first.
    void click(QWidget* widget) {
        const std::string name = widget->objectName().toStdString();
        for (QWidget* around = widget->parentWidget(); around; around = around->parentWidget())
            if (auto* scroll = qobject_cast<QScrollArea*>(around)) {
                let_pass();
                scroll->ensureWidgetVisible(widget);
            }
        if (!widget->isVisible()) throw std::runtime_error(name + " is not to be seen");
        if (!widget->isEnabled()) throw std::runtime_error(name + " cannot be used now");
        take_back();
        // A box to tick may be wider than what of it takes a click.
        const QPoint tick(8, widget->height() / 2);
        QTest::mouseClick(widget, Qt::LeftButton, Qt::NoModifier, qobject_cast<QCheckBox*>(widget) ? tick : QPoint());
        let_pass();
    }
    void click(const char* name) { click(find<QWidget>(name)); }
    // A window manager gives the window its keys again when a dialog or a list has gone; here there is none.
    void take_back() {
        if (!QApplication::activeModalWidget() && !window.isActiveWindow()) QApplication::setActiveWindow(&window);
    }
    // To whatever has the focus.
    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        take_back();
        QTest::keyClick(focus(), key, modifiers);
    }
    QWidget* focus() {
        QWidget* has_it = QApplication::focusWidget();
        return has_it ? has_it : &window;
    }
    // Gives the focus as Tab would, to something that can be reached so.
    void tab_to(const char* name) {
        auto* widget = find<QWidget>(name);
        if (!widget->isVisible() || !(widget->focusPolicy() & Qt::TabFocus))
            throw std::runtime_error(std::string(name) + " cannot be reached by Tab");
        widget->setFocus(Qt::TabFocusReason);
    }
    // Opens a list by a click and goes to one of its lines by keys.
    void pick(const char* name, int line) {
        auto* box = find<QComboBox>(name);
        if (box->isEditable())
            QTest::mouseClick(box, Qt::LeftButton, Qt::NoModifier, {box->width() - 8, box->height() / 2});
        else
            click(box);
        QAbstractItemView* list = box->view();
        if (!wait_for([&] { return list->isVisible(); }, 5000))
            throw std::runtime_error(std::string(name) + " stays shut");
        QTest::keyClick(list, Qt::Key_Home);
        for (int i = 0; i < line; ++i) QTest::keyClick(list, Qt::Key_Down);
        QTest::keyClick(list, Qt::Key_Return);
        wait_for([&] { return !list->isVisible(); }, 5000);
        let_pass();
    }
    void pick(const char* name, const QString& words) {
        const int line = find<QComboBox>(name)->findText(words, Qt::MatchContains);
        if (line < 0) throw std::runtime_error(std::string(name) + " has no such line");
        pick(name, line);
    }
    // Types a number into its box, as it is written where the person is, and goes on by Tab.
    void enter(const char* name, double value) {
        auto* box = find<QAbstractSpinBox>(name);
        click(box);
        auto* line = box->findChild<QLineEdit*>();
        line->selectAll();
        const auto* whole = qobject_cast<QSpinBox*>(box);
        QTest::keyClicks(line, whole ? box->locale().toString(int(value)) : box->locale().toString(value, 'g', 8));
        QTest::keyClick(line, Qt::Key_Tab);
        let_pass();
    }
    // By keys: to its beginning, then in large and small steps.
    void slide(const char* name, int value) {
        auto* slider = find<QSlider>(name);
        tab_to(name);
        QTest::keyClick(slider, Qt::Key_Home);
        while (slider->value() + slider->pageStep() <= value) QTest::keyClick(slider, Qt::Key_PageUp);
        while (slider->value() < value) QTest::keyClick(slider, Qt::Key_Right);
        let_pass();
    }
    // By the keys and dialogs that a person uses; true when the file was written.
    bool save_as(const fs::path& path) {
        const Answering dialog(choose({path}));
        key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
        return dialog.came() && quiet() && fs::exists(path);
    }
    bool export_to(const fs::path& path) {
        click("export");
        const Answering dialog(choose({path}));
        click("export_now");
        return dialog.came() && quiet() && fs::exists(path);
    }
    void drop(const std::vector<fs::path>& paths) {
        QMimeData data;
        QList<QUrl> urls;
        for (const fs::path& path : paths) urls << QUrl::fromLocalFile(QString::fromStdString(path.string()));
        data.setUrls(urls);
        QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &enter);
        QDropEvent event(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&window, &event);
        let_pass();
    }
    bool quiet() {
        constexpr int long_work_ms = 60000;
        return wait_for([this] { return !studio().busy(); }, long_work_ms) &&
               wait_for([this] { return studio().thumbnails().complete() || !studio().document().open(); },
                        long_work_ms);
    }
    // Until the fine picture of what is visible is there.
    bool settle() {
        if (!quiet()) return false;
        let_pass();
        return wait_for([this] { return !window.viewer().busy(); }, 60000);
    }
    // A folder that is dropped becomes Trails, by a click where another outcome is guessed; for another one its card is
    // clicked and the frames are chosen.
    bool open(const Folder& folder, Outcome outcome = Outcome::trails) {
        if (!bring(folder, outcome) || !settle()) return false;
        if (outcome != Outcome::trails || pile().outcome == outcome) return true;
        click("outcome_is_0");
        return settle();
    }
    // Until the pile is there; work on its frames goes on.
    bool bring(const Folder& folder, Outcome outcome) {
        if (outcome == Outcome::trails) {
            drop({folder.path()});
        } else {
            std::vector<fs::path> frames;
            for (const std::string& name : folder.names())
                if (name.find(".pile") == std::string::npos) frames.push_back(folder / name);
            const Answering dialog(choose(frames));
            click(("outcome_" + std::to_string(int(outcome))).c_str());
            if (!dialog.came()) return false;
        }
        return wait_for([this] { return studio().document().open(); });
    }
    // What the program says now, in one text.
    QString told() { return window.notices().sentences().join(QLatin1Char('\n')); }
    // Moves the mark of the keyboard from one place of the picture to another; the first time it stands in the middle.
    void walk(QPointF from, QPointF to) {
        constexpr int long_step = 12;
        const QPoint way = (window.canvas().to_screen(to) - window.canvas().to_screen(from)).toPoint();
        const auto go = [&](int pixels, Qt::Key back, Qt::Key on) {
            const Qt::Key key_to_press = pixels < 0 ? back : on;
            for (int i = 0; i < std::abs(pixels) / long_step; ++i) key(key_to_press, Qt::ControlModifier);
            for (int i = 0; i < std::abs(pixels) % long_step; ++i)
                key(key_to_press, Qt::ControlModifier | Qt::ShiftModifier);
        };
        go(way.x(), Qt::Key_Left, Qt::Key_Right);
        go(way.y(), Qt::Key_Up, Qt::Key_Down);
    }
    QPointF middle_of_canvas() {
        const app::Canvas& canvas = window.canvas();
        return canvas.to_canvas({canvas.width() / 2.0, canvas.height() / 2.0});
    }
    void move_over_canvas(QPointF canvas_point) {
        app::Canvas& canvas = window.canvas();
        const QPointF s = canvas.to_screen(canvas_point);
        QMouseEvent move(QEvent::MouseMove, s, canvas.mapToGlobal(s), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&canvas, &move);
    }
    void stroke(const std::vector<QPointF>& points) {
        app::Canvas& canvas = window.canvas();
        const auto at = [&](QPointF p) { return canvas.to_screen(p).toPoint(); };
        QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, at(points.front()));
        for (const QPointF& p : points) move_over_canvas(p);
        QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, at(points.back()));
    }
};

// Opens every step, and every page of it, and looks there.
inline void on_every_page(Window& w, const std::function<void()>& look) {
    for (int step = 0; step < 7; ++step) {
        w.key(Qt::Key(Qt::Key_1 + step), Qt::ControlModifier);
        if (!w.settle()) throw std::runtime_error("a step does not settle");
        std::vector<QAbstractButton*> pages;
        for (auto* button : w.find<QWidget>("step_line")->findChildren<QAbstractButton*>())
            if (button->isVisible() && button->objectName().startsWith(QStringLiteral("page_")))
                pages.push_back(button);
        if (pages.empty()) look();
        for (QAbstractButton* page : pages) {
            if (!page->isVisible()) continue;
            w.click(page);
            look();
        }
    }
}

}  // namespace bp::test
