// How long a person waits: the real window opens a run and is driven by mouse and keys. Every wait is from the input
// event to the end of the paint event that shows what came of it. Prints JSON, in milliseconds.
#include <QAbstractButton>
#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QListWidget>
#include <QMouseEvent>
#include <QSlider>
#include <QStandardPaths>
#include <QThread>
#include <QTimer>
#include <algorithm>
#include <cstdio>
#include <functional>
#include <map>
#include <stdexcept>
#include <string_view>
#include <vector>

#include "app/looks/theme.h"
#include "app/panels/plumb_panel.h"
#include "app/window/main_window.h"
#include "parts/shapes.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/part_edits.h"

namespace {

using namespace bp;
using namespace bp::app;

constexpr int patience_ms = 600000;

// Notes when the canvas has painted what is waited for.
class PaintWatch : public QObject {
  public:
    explicit PaintWatch(QWidget& canvas) : canvas_(canvas) {
        canvas.installEventFilter(this);
        // What was painted before it was all there is painted once more; else this would wait for ever.
        connect(&late_, &QTimer::timeout, this, [this] {
            if (!painted_ && ready_ && ready_()) canvas_.update();
        });
        late_.start(200);
    }

    double ms_until_painted(const std::function<void()>& act, std::function<bool()> ready) {
        ready_ = std::move(ready);
        painted_ = false;
        QElapsedTimer clock;
        clock.start();
        act();
        while (!painted_) {
            if (clock.elapsed() > patience_ms) throw std::runtime_error("waited in vain");
            QCoreApplication::processEvents(QEventLoop::AllEvents | QEventLoop::WaitForMoreEvents);
        }
        return double(clock.nsecsElapsed()) / 1e6;
    }

  protected:
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Paint && ready_ && ready_()) painted_ = true;
        return false;
    }

  private:
    QWidget& canvas_;
    QTimer late_;
    std::function<bool()> ready_;
    bool painted_ = false;
};

void wait_for(const std::function<bool()>& ready) {
    QElapsedTimer clock;
    clock.start();
    while (!ready()) {
        if (clock.elapsed() > patience_ms) throw std::runtime_error("waited in vain");
        QCoreApplication::processEvents(QEventLoop::AllEvents, 2);
        // What is waited for has the cores.
        QThread::usleep(300);
    }
}

void rest(int ms) {
    QElapsedTimer clock;
    clock.start();
    while (clock.elapsed() < ms) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 2);
        QThread::usleep(300);
    }
}

void press(QWidget& widget, int key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    QKeyEvent down(QEvent::KeyPress, key, modifiers);
    QApplication::sendEvent(&widget, &down);
    QKeyEvent up(QEvent::KeyRelease, key, modifiers);
    QApplication::sendEvent(&widget, &up);
}

void mouse(QWidget& widget, QEvent::Type type, QPointF at) {
    QMouseEvent event(type, at, widget.mapToGlobal(at), type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton,
                      type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&widget, &event);
}

void click(QWidget& widget) {
    const QPointF middle(widget.width() / 2.0, widget.height() / 2.0);
    mouse(widget, QEvent::MouseButtonPress, middle);
    mouse(widget, QEvent::MouseButtonRelease, middle);
}

struct Waits {
    std::vector<double> ms;
    void print(const char* name) {
        std::sort(ms.begin(), ms.end());
        std::fflush(stdout);
        std::printf(",\n \"%s\": {\"median\": %.1f, \"worst\": %.1f, \"of\": %zu}", name, ms[ms.size() / 2], ms.back(),
                    ms.size());
    }
};

class Bench {
  public:
    explicit Bench(MainWindow& window) : window_(window), viewer_(window.viewer()), watch_(window.canvas()) {}

    void open(const QString& folder) {
        Studio& studio = window_.studio();
        QElapsedTimer clock;
        clock.start();
        const auto now = [&] { return double(clock.nsecsElapsed()) / 1e6; };
        studio.open({folder}, Outcome::trails);
        wait_for([&] { return studio.document().open(); });
        std::printf("{\"frames\": %zu,\n \"listed\": %.1f", studio.pile().frames.size(), now());
        watch_.ms_until_painted([] {}, [&] { return !studio.thumbnails().of(studio.current()).isNull(); });
        std::printf(",\n \"first_frame\": %.1f", now());
        watch_.ms_until_painted([] {}, [&] { return !viewer_.overview().image.isNull(); });
        std::printf(",\n \"growing\": %.1f", now());
        watch_.ms_until_painted([] {}, [&] { return studio.thumbnails().complete() && viewer_.seen(); });
        std::printf(",\n \"first_sight\": %.1f", now());
        watch_.ms_until_painted([&] { window_.canvas().update(); }, [&] { return viewer_.seen_finely(); });
        std::printf(",\n \"screen_resolution\": %.1f", now());
        // Every frame is known: its measures, and whether it is odd.
        wait_for([&] { return window_.surveyor().complete(); });
        std::printf(",\n \"known\": %.1f", now());
    }

    void run(std::string_view part) {
        static const std::map<std::string_view, void (Bench::*)()> parts{
            {"open", nullptr},          {"modes", &Bench::modes},
            {"slider", &Bench::slider}, {"trails", &Bench::trails},
            {"plumb", &Bench::plumb},   {"set_aside", &Bench::set_aside},
            {"nudge", &Bench::nudge},   {"flips", &Bench::flips_at_fit},
            {"brush", &Bench::brush},   {"full_size", &Bench::full_size},
            {"rail", &Bench::rail},     {"parts", &Bench::parts},
            {"finish", &Bench::finish}};
        if (part == "all") {
            for (const char* one :
                 {"modes", "slider", "trails", "plumb", "set_aside", "nudge", "flips", "brush", "full_size"})
                run(one);
            return;
        }
        const auto found = parts.find(part);
        if (found == parts.end()) throw std::runtime_error("there is nothing called " + std::string(part));
        if (found->second) (this->*found->second)();
    }

    void flips_at_fit() { flips("flip"); }

    void modes() {
        open_step(4);
        Waits coarse, fine;
        for (int round = 0; round < 3; ++round)
            for (const char* mode : {"median", "mean", "minimum", "maximum", "lighten"}) {
                // Nothing is remembered, as when the frames have just been looked through.
                window_.studio().stores().bases()->clear();
                auto* button = window_.findChild<QWidget*>(QStringLiteral("mode_%1").arg(QLatin1String(mode)));
                if (!button) throw std::runtime_error("no such mode");
                changes([&] { click(*button); }, coarse, fine);
            }
        coarse.print("mode");
        fine.print("mode_screen_resolution");
    }

    void slider() {
        auto* slider = window_.findChild<QSlider*>(QStringLiteral("strength"));
        Waits coarse, fine;
        for (int step = 0; step < 8; ++step) changes([&] { press(*slider, Qt::Key_Left); }, coarse, fine);
        coarse.print("slider");
    }

    // The taper, and a head that is grown and softened, pulled by key.
    void trails() {
        const auto push = [&](const char* name) {
            auto* button = window_.findChild<QWidget*>(QLatin1String(name));
            if (!button) throw std::runtime_error("no such button");
            click(*button);
        };
        changes_of_view([&] { push("mode_lighten"); });
        push("page_trails");
        changes_of_view([&] { push("taper_old"); });
        const auto pull = [&](const char* slider, const char* name, int steps) {
            auto* of = window_.findChild<QSlider*>(QLatin1String(slider));
            if (!of) throw std::runtime_error("no such slider");
            Waits coarse, fine;
            for (int step = 0; step < steps; ++step) changes([&] { press(*of, Qt::Key_Right); }, coarse, fine);
            coarse.print(name);
        };
        pull("taper_over", "taper", 8);
        window_.studio().document().edit(with_head(window_.studio().pile(), {true, 5, 3, {4, true}}),
                                         QStringLiteral("Head"));
        wait_for([&] { return viewer_.seen_finely(); });
        pull("head_radius", "head", 8);
        // What follows is measured without.
        changes_of_view([&] {
            window_.studio().document().edit(with_taper(with_head(window_.studio().pile(), {}), {}),
                                             QStringLiteral("None"));
        });
        push("page_mode");
    }

    // A point of the picture through all frames, at fit zoom.
    void plumb() {
        auto* panel = window_.findChild<PlumbPanel*>();
        auto* chart = window_.findChild<PlumbChart*>();
        press(window_.canvas(), Qt::Key_L);
        wait_for([&] { return panel->isVisible() && viewer_.seen_finely(); });
        PaintWatch watch(*chart);
        Waits waits;
        for (int i = 0; i < 12; ++i) {
            const long before = panel->found();
            const QPointF at(200 + 20 * i, 150 + 10 * i);
            waits.ms.push_back(watch.ms_until_painted(
                [&] {
                    mouse(window_.canvas(), QEvent::MouseButtonPress, at);
                    mouse(window_.canvas(), QEvent::MouseButtonRelease, at);
                },
                [&] { return panel->found() > before; }));
        }
        waits.print("plumb");
        press(window_.canvas(), Qt::Key_L);
        wait_for([&] { return viewer_.seen_finely(); });
    }

    // A frame moved by hand in the difference, at fit zoom.
    void nudge() {
        open_step(3);
        press(window_.canvas(), Qt::Key_Right);
        const auto button = [&](const char* name) {
            auto* found = window_.findChild<QWidget*>(QLatin1String(name));
            if (!found) throw std::runtime_error("no such button");
            return found;
        };
        click(*button("page_hand"));
        changes_of_view([&] { press(window_.canvas(), Qt::Key_3); });
        Waits coarse, fine;
        for (int round = 0; round < 16; ++round)
            changes([&] { click(*button(round % 4 < 2 ? "nudge_right" : "nudge_down")); }, coarse, fine);
        coarse.print("nudge");
        fine.print("nudge_screen_resolution");
        for (int round = 0; round < 16; ++round) window_.studio().document().undo();
        click(*button("page_place"));
        changes_of_view([&] { press(window_.canvas(), Qt::Key_1); });
    }

    void set_aside() {
        Waits coarse, fine;
        for (int round = 0; round < 8; ++round) changes([&] { press(window_.canvas(), Qt::Key_A); }, coarse, fine);
        coarse.print("set_aside");
    }

    void flips(const char* name) {
        changes_of_view([&] { press(window_.canvas(), Qt::Key_2); });
        Waits waits;
        for (int round = 0; round < 24; ++round) {
            const long before = viewer_.overview().serial;
            waits.ms.push_back(
                watch_.ms_until_painted([&] { press(window_.canvas(), round % 12 < 6 ? Qt::Key_Right : Qt::Key_Left); },
                                        [&] { return viewer_.overview().serial > before; }));
            // As every other wait: what came before is on the screen when the next one begins.
            watch_.ms_until_painted([&] { window_.canvas().update(); }, [&] { return viewer_.seen_finely(); });
        }
        waits.print(name);
    }

    void brush() {
        Canvas& canvas = window_.canvas();
        open_step(5);
        const QPointF middle(canvas.width() / 2.0, canvas.height() / 2.0);
        // A part of the frame, then strokes on it in the result.
        mouse(canvas, QEvent::MouseButtonPress, middle);
        Waits hatch, result;
        for (int i = 1; i <= 40; ++i) {
            const QPointF at = middle + QPointF(3 * i, i);
            hatch.ms.push_back(
                watch_.ms_until_painted([&] { mouse(canvas, QEvent::MouseMove, at); }, [] { return true; }));
        }
        mouse(canvas, QEvent::MouseButtonRelease, middle);
        changes_of_view([&] { press(canvas, Qt::Key_1); });
        stroke_in_result(result);
        hatch.print("brush_frame");
        result.print("brush_result");
    }

    // Strokes on a part whose edge is solved, until the result shows the edge; the places of all frames under the
    // pointer; strokes on one of a hundred parts.
    void parts() {
        Studio& studio = window_.studio();
        const Size size = studio.pile().size;
        Pile next = with_mode(studio.pile(), Mode::one);
        int part = 0;
        std::tie(next, part) = with_new_part(std::move(next), next.frames[3].id);
        const Point middle{size.width / 2.0, size.height / 2.0};
        next = with_part_mask(
            std::move(next), part,
            with_shape(Mask(size),
                       {ShapeKind::ellipse, {middle.x - 1000, middle.y - 1000}, {middle.x + 1000, middle.y + 1000}, 1},
                       true));
        changes_of_view([&] { studio.document().edit(std::move(next), QStringLiteral("Part")); });
        open_step(5);
        Canvas& canvas = window_.canvas();
        auto* list = window_.findChild<QListWidget*>(QStringLiteral("parts_list"));
        list->setCurrentRow(0);
        changes_of_view([&] { press(canvas, Qt::Key_1); });
        for (const auto& [edge, name] : {std::pair{Edge::seam, "seam"}, {Edge::blended, "blend"}}) {
            changes_of_view(
                [&] { studio.document().edit(with_part_edge(studio.pile(), part, edge), QStringLiteral("Edge")); });
            Waits coarse, fine;
            for (int i = 0; i < 6; ++i) {
                const QPointF from = canvas.to_screen({middle.x - 900 + 300 * i, middle.y - 1000});
                mouse(canvas, QEvent::MouseButtonPress, from);
                mouse(canvas, QEvent::MouseMove, from + QPointF(20, 10));
                changes([&] { mouse(canvas, QEvent::MouseButtonRelease, from + QPointF(20, 10)); }, coarse, fine);
            }
            coarse.print(name);
        }
        places();
        hundred();
    }

    // A value of the tone control of Finish, alone and with the other tools at work.
    void finish() {
        Studio& studio = window_.studio();
        open_step(6);
        for (const auto& [busy, name] : {std::pair{false, "finish_tone"}, std::pair{true, "finish_tone_busy"}}) {
            if (busy) {
                Pile next = studio.pile();
                next = with_curves(std::move(next), {{{{0.25, 0.2}, {0.7, 0.75}}}, {}, {}, {}});
                next = with_colour_ranges(std::move(next), {{210, 0, 20, -20}, {30, 0, 10, 0}});
                Detail detail;
                detail.sharpen = 80;
                detail.local = 30;
                detail.smooth = 40;
                detail.smooth_colour = 60;
                next = with_edge_shade(with_detail(std::move(next), detail), {-1});
                const double width = next.size.width, height = next.size.height;
                next = with_new_place(std::move(next), {ShapeKind::ramp, {width / 2, 0}, {width / 2, height / 2}, 1})
                           .first;
                FinishPlace place = next.finish.places.front();
                place.look.exposure_ev = -0.5;
                next = with_place(std::move(next), place);
                changes_of_view([&] { studio.document().edit(std::move(next), QStringLiteral("Finish")); });
            }
            auto* slider = window_.findChild<QSlider*>(QStringLiteral("finish_look_exposure_ev"));
            if (!slider) throw std::runtime_error("no such slider");
            Waits coarse, fine;
            for (int step = 0; step < 10; ++step) changes([&] { press(*slider, Qt::Key_Left); }, coarse, fine);
            coarse.print(name);
        }
        at_full_size();
    }

    // At 1:1: a value of sharpening, and a spot that is mended.
    void at_full_size() {
        Studio& studio = window_.studio();
        changes_of_view([&] { studio.document().edit(with_finish(studio.pile(), {}), QStringLiteral("No finish")); });
        changes_of_view([&] { window_.canvas().zoom_to(1, {window_.canvas().width() / 2.0, 300}); });
        const auto open_page = [&](const char* name) {
            auto* page = window_.findChild<QWidget*>(QLatin1String(name));
            if (!page) throw std::runtime_error(std::string("no page ") + name);
            click(*page);
            rest(300);
        };
        open_page("page_finish_detail");
        auto* slider = window_.findChild<QSlider*>(QStringLiteral("detail_sharpen"));
        if (!slider) throw std::runtime_error("no such slider");
        Waits coarse, fine, first;
        changes([&] { press(*slider, Qt::Key_Right); }, first, first);  // with the first sight at 1:1
        for (int step = 0; step < 10; ++step) changes([&] { press(*slider, Qt::Key_Right); }, coarse, fine);
        fine.print("finish_detail");
        open_page("page_finish_mend");
        Waits at_fit, mended;
        for (int i = 0; i < 8; ++i) {
            const QPointF at(120 + 220 * (i % 4), 120 + 220 * (i / 4));
            mouse(window_.canvas(), QEvent::MouseButtonPress, at);
            changes(
                [&] {
                    mouse(window_.canvas(), QEvent::MouseButtonRelease, at);
                    wait_for([&] { return !studio.pile().finish.mended.empty(); });
                },
                at_fit, mended);
            // A click on one that is there, or on what it is mended from, would take that up.
            changes_of_view([&] { studio.document().undo(); });
        }
        mended.print("finish_mended");
    }

    void places() {
        auto* rail = window_.findChild<QWidget*>(QStringLiteral("time_rail"));
        PaintWatch watch(*rail);
        Waits waits;
        const auto point = [&](int i) {
            const QPointF at(200 + 12 * i, 150 + 7 * i);
            QMouseEvent event(QEvent::MouseMove, at, window_.canvas().mapToGlobal(at), Qt::NoButton, Qt::NoButton,
                              Qt::NoModifier);
            QApplication::sendEvent(&window_.canvas(), &event);
        };
        point(0);
        rest(300);
        for (int i = 1; i <= 24; ++i)
            waits.ms.push_back(watch.ms_until_painted([&] { point(i); }, [] { return true; }));
        waits.print("places");
    }

    void hundred() {
        Studio& studio = window_.studio();
        const Size size = studio.pile().size;
        Pile next = studio.pile();
        next.parts.clear();
        for (int i = 0; i < 100; ++i) {
            int part = 0;
            std::tie(next, part) = with_new_part(std::move(next), next.frames[std::size_t(i) % next.frames.size()].id);
            const Point at{size.width * (i % 10 + 0.5) / 10, size.height * (i / 10 + 0.5) / 10};
            next = with_part_mask(
                std::move(next), part,
                with_shape(Mask(size), {ShapeKind::ellipse, {at.x - 280, at.y - 180}, {at.x + 280, at.y + 180}, 1},
                           true));
        }
        changes_of_view([&] { studio.document().edit(std::move(next), QStringLiteral("Parts")); });
        auto* list = window_.findChild<QListWidget*>(QStringLiteral("parts_list"));
        list->setCurrentRow(50);
        changes_of_view([&] { press(window_.canvas(), Qt::Key_1); });
        Waits result;
        stroke_in_result(result);
        result.print("brush_hundred_parts");
    }

    // The rail under the wheel, and flips by key, from event to the rail's own paint.
    void rail() {
        auto* rail = window_.findChild<QWidget*>(QStringLiteral("time_rail"));
        PaintWatch watch(*rail);
        Waits scrolls, flips;
        const QPointF at(rail->width() / 2.0, rail->height() - 40.0);
        const auto wheel = [&](int delta, Qt::KeyboardModifiers keys) {
            QWheelEvent event(at, rail->mapToGlobal(at), {}, {0, delta}, Qt::NoButton, keys, Qt::NoScrollPhase, false);
            QApplication::sendEvent(rail, &event);
        };
        const auto always = [] { return true; };
        for (int i = 0; i < 10; ++i)
            scrolls.ms.push_back(watch.ms_until_painted([&] { wheel(120, Qt::ControlModifier); }, always));
        for (int i = 0; i < 40; ++i)
            scrolls.ms.push_back(watch.ms_until_painted([&] { wheel(i < 20 ? -120 : 120, {}); }, always));
        // Its keys are for what has the focus.
        rail->setFocus(Qt::TabFocusReason);
        for (int i = 0; i < 40; ++i) {
            const int before = window_.studio().current();
            flips.ms.push_back(
                watch.ms_until_painted([&] { press(*rail, i < 20 ? Qt::Key_PageDown : Qt::Key_PageUp); }, always));
            if (window_.studio().current() == before) throw std::runtime_error("the key did not flip");
            wait_for([&] { return viewer_.seen_finely(); });
        }
        for (int i = 0; i < 10; ++i) wheel(-120, Qt::ControlModifier);
        scrolls.print("rail_scroll");
        flips.print("rail_flip");
    }

    // At 1:1 every frame is needed at full size: once.
    void full_size() {
        QElapsedTimer clock;
        clock.start();
        press(window_.canvas(), Qt::Key_P);
        rest(60);
        wait_for([&] { return viewer_.seen() && viewer_.detail().level == 0 && viewer_.detail().serial > 0; });
        std::printf(",\n \"full_size_few\": %.1f", double(clock.nsecsElapsed()) / 1e6);
        wait_for([&] { return viewer_.seen_finely() && viewer_.detail().level == 0; });
        std::printf(",\n \"full_size\": %.1f", double(clock.nsecsElapsed()) / 1e6);
        // What comes after is another figure.
        wait_for([&] { return !viewer_.bringing().busy(); });
        std::printf(",\n \"full_size_near\": %.1f", double(clock.nsecsElapsed()) / 1e6);
        Waits pans;
        Canvas& canvas = window_.canvas();
        for (int round = 0; round < 8; ++round) {
            const QPointF from(canvas.width() / 2.0, canvas.height() / 2.0);
            const QPointF by(round % 2 == 0 ? -300 : 150, round < 4 ? -200 : 200);
            clock.restart();
            mouse(canvas, QEvent::MouseButtonPress, from);
            mouse(canvas, QEvent::MouseMove, from + by);
            mouse(canvas, QEvent::MouseButtonRelease, from + by);
            rest(45);  // the pause after which a move counts as one
            wait_for([&] { return !viewer_.busy() && viewer_.seen_finely(); });
            pans.ms.push_back(double(clock.nsecsElapsed()) / 1e6);
        }
        pans.print("full_size_pan");
        flips("full_size_flip");
        changes_of_view([&] { press(canvas, Qt::Key_1); });
        press(canvas, Qt::Key_F);
        rest(300);
    }

  private:
    // A stroke about the middle, move by move until the result shows it.
    void stroke_in_result(Waits& waits) {
        Canvas& canvas = window_.canvas();
        const QPointF middle(canvas.width() / 2.0, canvas.height() / 2.0);
        long patches = 0;
        const auto heard = QObject::connect(&viewer_, &Viewer::patched, &watch_, [&] { ++patches; });
        mouse(canvas, QEvent::MouseButtonPress, middle + QPointF(-100, -60));
        wait_for([&] { return patches > 0; });
        for (int i = 1; i <= 60; ++i) {
            const long before = patches;
            const QPointF at = middle + QPointF(-100 + 3 * i, -60 + i);
            waits.ms.push_back(watch_.ms_until_painted([&] { mouse(canvas, QEvent::MouseMove, at); },
                                                       [&] { return patches > before; }));
        }
        mouse(canvas, QEvent::MouseButtonRelease, middle);
        QObject::disconnect(heard);
    }

    void open_step(int number) {
        press(window_.canvas(), Qt::Key_0 + number, Qt::ControlModifier);
        auto* knot = window_.findChild<QWidget*>(QStringLiteral("knot_%1").arg(number - 1));
        if (!knot) throw std::runtime_error("no such step");
        click(*knot);
        rest(500);
        window_.canvas().setFocus();
    }

    void changes(const std::function<void()>& act, Waits& coarse, Waits& fine) {
        const long before = viewer_.overview().serial;
        QElapsedTimer clock;
        clock.start();
        coarse.ms.push_back(watch_.ms_until_painted(act, [&] { return viewer_.overview().serial > before; }));
        watch_.ms_until_painted([&] { window_.canvas().update(); }, [&] { return viewer_.seen_finely(); });
        fine.ms.push_back(double(clock.nsecsElapsed()) / 1e6);
        rest(300);
    }

    void changes_of_view(const std::function<void()>& act) {
        act();
        rest(100);
        wait_for([&] { return viewer_.seen_finely(); });
    }

    MainWindow& window_;
    Viewer& viewer_;
    PaintWatch watch_;
};

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    const QStringList parts = QString::fromLocal8Bit(argc >= 3 ? argv[2] : "all").split(QLatin1Char(','));
    if (argc < 2 || argc > 5 || argc == 4) {
        std::fprintf(
            stderr,
            "Give a folder of frames; what to look at, or several of it with commas between them (open, modes, "
            "slider, trails, plumb, set_aside, nudge, flips, brush, full_size, rail, parts, finish, or all, "
            "which is those from modes to full_size); and the window's width and height.\n");
        return 2;
    }
    QStandardPaths::setTestModeEnabled(true);  // the person's own settings and unsaved work stay as they are
    load_fonts();
    apply_theme(application, ThemeName::dusk);
    MainWindow window;
    window.resize(argc == 5 ? std::atoi(argv[3]) : 1280, argc == 5 ? std::atoi(argv[4]) : 800);
    window.show();
    rest(200);
    try {
        Bench bench(window);
        bench.open(QString::fromLocal8Bit(argv[1]));
        rest(1000);
        for (const QString& part : parts) bench.run(part.toStdString());
        std::printf("}\n");
    } catch (const std::exception& problem) {
        std::fprintf(stderr, "%s\n", problem.what());
        return 1;
    }
    window.studio().document().close();
    return 0;
}
