// Driving the real window as a person does.
#pragma once

#include <QApplication>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QTest>
#include <functional>

#include "app/main_window.h"
#include "support/fixtures.h"

namespace bp::test {

inline bool wait_for(const std::function<bool()>& ready, int ms = 60000) {
    QElapsedTimer clock;
    clock.start();
    while (!ready()) {
        if (clock.elapsed() > ms) return false;
        QTest::qWait(5);
    }
    return true;
}

struct Window {
    app::MainWindow window;

    Window() {
        window.resize(1280, 800);
        window.show();
        QTest::qWait(20);
    }
    ~Window() { window.studio().document().close(); }

    app::Studio& studio() { return window.studio(); }
    const Pile& pile() { return window.studio().pile(); }

    template <class T>
    T* find(const char* name) {
        T* found = window.findChild<T*>(QLatin1String(name));
        if (!found) throw std::runtime_error(std::string("no widget ") + name);
        return found;
    }
    void click(const char* name) { QTest::mouseClick(find<QWidget>(name), Qt::LeftButton); }
    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QTest::keyClick(&window.canvas(), key, modifiers);
    }
    bool quiet() {
        return wait_for([this] { return !studio().work().busy(); }) &&
               wait_for([this] { return studio().thumbnails_complete() || !studio().document().open(); });
    }
    // Until the fine picture of what is visible is there.
    bool settle() {
        if (!quiet()) return false;
        QTest::qWait(80);
        return wait_for([this] { return !window.viewer().busy(); });
    }
    bool open(const Folder& folder, Outcome outcome = Outcome::trails) {
        studio().open({QString::fromStdString(folder.path().string())}, outcome);
        return wait_for([this] { return studio().document().open(); }) && settle();
    }
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
    void stroke(const std::vector<QPointF>& points) {
        app::Canvas& canvas = window.canvas();
        const auto at = [&](QPointF p) { return canvas.to_screen(p).toPoint(); };
        QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, at(points.front()));
        for (const QPointF& p : points) {
            const QPointF s = canvas.to_screen(p);
            QMouseEvent move(QEvent::MouseMove, s, canvas.mapToGlobal(s), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(&canvas, &move);
        }
        QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, at(points.back()));
    }
};

}  // namespace bp::test
