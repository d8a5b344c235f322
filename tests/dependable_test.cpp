// What a person must be able to rely on: work is not lost, one thing does not stop another, and the window goes on.
#include <QAccessible>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPointer>
#include <QScrollBar>
#include <QSlider>
#include <QSpinBox>
#include <QThread>
#include <QToolButton>
#include <QWheelEvent>
#include <atomic>
#include <catch2/catch.hpp>
#include <fstream>

#include "app/panels/miniatures.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void run_of(const Folder& folder, int count, Size size = {120, 90}) {
    for (int i = 0; i < count; ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"), landscape(size, Matrix::shift(i, 0), unsigned(i), 0.02),
              8);
}

// Work of a kind that goes on until it is let go or stopped.
template <class T>
struct Held {
    std::shared_ptr<std::atomic<bool>> go = std::make_shared<std::atomic<bool>>(false);
    std::shared_ptr<std::atomic<bool>> stopped = std::make_shared<std::atomic<bool>>(false);
    void on(app::Lane& lane, const QString& name) {
        lane.run<T>(
            [go = go, stopped = stopped](Job& job) -> T {
                while (!*go && !job.stopped()) QThread::msleep(1);
                *stopped = job.stopped();
                if (job.stopped()) return stopped_failure();
                return Done{};
            },
            [](const T&) {}, name);
    }
};

// Four frames of a run, by keys and the dialog; they are being opened then.
void begin_to_open(Window& w, const Folder& run) {
    const Answering dialog(choose({run / "f1.tif", run / "f2.tif", run / "f3.tif", run / "f4.tif"}));
    w.key(Qt::Key_O, Qt::ControlModifier);
    REQUIRE(dialog.came());
    REQUIRE(w.studio().opening().busy());
}

}  // namespace

TEST_CASE("a frame that is looked at can be removed, and the next one is shown", "[window]") {
    const Folder folder;
    run_of(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    const std::vector<Frame> frames = w.pile().frames;
    w.key(Qt::Key_Right);
    REQUIRE(w.window.viewer().view() == app::View::frame);
    REQUIRE(w.settle());
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 3);
    CHECK(w.studio().current() == frames[2].id);
    REQUIRE(w.settle());
    w.key(Qt::Key_End);
    w.studio().select(frames[3].id);
    w.key(Qt::Key_Delete);
    CHECK(w.studio().current() == frames[2].id);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().frames.size() == 4);
    REQUIRE(w.settle());
    // Done again with the frame that goes being the one that is looked at.
    w.studio().select(frames[1].id);
    w.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(w.pile().frames.size() == 3);
    CHECK(find_frame(w.pile(), w.studio().current()));
    REQUIRE(w.settle());
}

TEST_CASE("adding is taken back with the added frame looked at, and chosen beside an old one", "[window]") {
    const Folder folder, more;
    run_of(folder, 2);
    run_of(more, 2, {120, 90});
    for (int i = 1; i <= 2; ++i)
        write(more / ("g" + std::to_string(i) + ".tif"), landscape({120, 90}, {}, unsigned(40 + i), 0.02), 8);
    Window w;
    REQUIRE(w.open(folder));
    const int old = w.pile().frames[0].id;
    w.drop({more / "g1.tif", more / "g2.tif"});
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 4; }));
    REQUIRE(w.settle());
    const int added = w.pile().frames.back().id;
    w.studio().select(added);
    w.key(Qt::Key_2);
    REQUIRE(w.settle());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().frames.size() == 2);
    CHECK(find_frame(w.pile(), w.studio().current()));
    REQUIRE(w.settle());
    w.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    w.studio().select(old);
    w.studio().select(added, false, true);
    REQUIRE(w.studio().selected().size() == 2);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.studio().selected() == std::vector<int>{old});
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 1);
    // The last one stays, and it is said.
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 1);
    CHECK(w.told().contains(QStringLiteral("stays in the pile")));
    REQUIRE(w.settle());
}

TEST_CASE("ids are never given twice, so that nothing known of one frame is taken for another's", "[window]") {
    const Folder folder, more;
    run_of(folder, 2);
    for (int i = 1; i <= 2; ++i)
        write(more / ("g" + std::to_string(i) + ".tif"), landscape({120, 90}, {}, unsigned(40 + i), 0.02), 8);
    Window w;
    REQUIRE(w.open(folder));
    w.drop({more / "g1.tif"});
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 3; }));
    const int first = w.pile().frames.back().id;
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.drop({more / "g2.tif"});
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 3; }));
    CHECK(w.pile().frames.back().id != first);
}

TEST_CASE("whether to replace is asked about the very file that is written", "[window]") {
    const Folder folder, out;
    run_of(folder, 2);
    std::ofstream(out / "evening.pile") << "the work of another evening";
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_A);
    // The name is typed without its ending; the question comes; another name is chosen instead.
    int questions = 0, dialogs = 0;
    QPointer<QWidget> answered;
    QTimer person;
    QObject::connect(&person, &QTimer::timeout, [&] {
        QWidget* dialog = QApplication::activeModalWidget();
        if (!dialog || dialog == answered) return;
        answered = dialog;
        if (qobject_cast<QFileDialog*>(dialog)) {
            ++dialogs;
            choose({out / (dialogs == 1 ? "evening" : "night")})(*dialog);
        } else if (answer(0, QStringLiteral("evening.pile is there already"))(*dialog)) {
            ++questions;
        }
    });
    person.start(20);
    w.key(Qt::Key_S, Qt::ControlModifier);
    person.stop();
    REQUIRE(w.quiet());
    CHECK(questions == 1);
    CHECK(dialogs == 2);
    CHECK(bytes_of(out / "evening.pile") == "the work of another evening");
    CHECK(load_pile(out / "night.pile").ok());
    CHECK(w.studio().document().path().endsWith(QStringLiteral("night.pile")));
    // Left by Escape nothing is written.
    w.key(Qt::Key_A);
    const Answering left(choose({}));
    w.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(left.came());
    REQUIRE(w.quiet());
    CHECK(w.studio().document().edited());
    CHECK(out.names() == std::vector<std::string>{"evening.pile", "night.pile"});
}

TEST_CASE("saving, exporting and finding go on beside each other", "[window]") {
    const Folder folder, out;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    Held<Status> exporting, finding;
    exporting.on(w.studio().exporting(), QStringLiteral("writing a picture"));
    finding.on(w.studio().finding(), QStringLiteral("finding something"));
    {
        const Answering dialog(choose({out / "a.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
    }
    REQUIRE(wait_for([&] { return !w.studio().saving().busy(); }));
    CHECK(fs::exists(out / "a.pile"));
    CHECK(w.studio().exporting().busy());
    CHECK(w.studio().finding().busy());
    // Switching off what is not running stops nothing that is.
    w.click("knot_1");
    w.click("level_off");
    w.click("knot_2");
    w.click("align_none");
    CHECK(w.studio().finding().busy());
    // Another search takes the place of the one before, and that is said.
    w.click("align_shift");
    CHECK(w.told().contains(QStringLiteral("Stopped: finding something")));
    *exporting.go = true;
    REQUIRE(w.quiet());
    CHECK_FALSE(*exporting.stopped);
    CHECK(*finding.stopped);
    CHECK(w.pile().methods.sky.model == Model::shift);
}

TEST_CASE("what is edited while a pile is saved stays unsaved, and the place is known", "[window]") {
    const Folder folder, out;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    Held<Status> before;
    before.on(w.studio().saving(), QStringLiteral("saving another"));
    {
        const Answering dialog(choose({out / "a.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
    }
    const Pile saved = w.pile();
    w.key(Qt::Key_A);
    *before.go = true;
    REQUIRE(w.quiet());
    CHECK(load_pile(out / "a.pile").value().pile == saved);
    CHECK(w.studio().document().path().endsWith(QStringLiteral("a.pile")));
    CHECK(w.studio().document().edited());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(w.studio().document().edited());
}

TEST_CASE("leaving while something is written asks: wait, stop, stay", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    for (const int chosen : {0, 1, 2, -1}) {
        INFO(chosen);
        Window w;
        REQUIRE(w.open(folder));
        Held<Status> writing;
        writing.on(w.studio().exporting(), QStringLiteral("writing trails.tif"));
        const Answering question(answer(chosen, QStringLiteral("trails.tif")));
        w.click("home");
        CHECK(question.came());
        if (chosen == 0) {
            CHECK(w.studio().document().open());
            *writing.go = true;
            CHECK(wait_for([&] { return !w.studio().document().open(); }, 5000));
            CHECK_FALSE(*writing.stopped);
        } else if (chosen == 1) {
            CHECK(wait_for([&] { return !w.studio().document().open() && *writing.stopped; }, 5000));
        } else {
            CHECK(w.studio().document().open());
            CHECK(w.studio().exporting().busy());
            *writing.go = true;
            REQUIRE(w.quiet());
            CHECK(w.studio().document().open());
        }
    }
}

TEST_CASE("leaving with unsaved edits asks, and a save that fails leaves nothing", "[window]") {
    const Folder folder, out;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_A);
    {
        const Answering stays(answer(2, QStringLiteral("not saved")));
        w.click("home");
        CHECK(stays.came());
    }
    CHECK(w.studio().document().open());
    std::ofstream(out / "closed.pile") << "x";
    fs::permissions(out / "closed.pile", fs::perms(0444));
    const auto save_into = [&](const std::string& name, bool replaces) {
        int step = 0;
        QPointer<QWidget> answered;
        QTimer person;
        QObject::connect(&person, &QTimer::timeout, [&] {
            QWidget* dialog = QApplication::activeModalWidget();
            if (!dialog || dialog == answered) return;
            answered = dialog;
            if (step == 0 && answer(0, QStringLiteral("not saved"))(*dialog))
                step = 1;
            else if (step == 1 && choose({out / name})(*dialog))
                step = replaces ? 2 : 3;
            else if (step == 2 && answer(1, QStringLiteral("is there already"))(*dialog))
                step = 3;
        });
        person.start(20);
        w.click("home");
        person.stop();
        CHECK(step == 3);
    };
    save_into("closed.pile", true);
    REQUIRE(w.quiet());
    CHECK(w.studio().document().open());
    CHECK(w.told().contains(QStringLiteral("protected from writing")));
    CHECK(bytes_of(out / "closed.pile") == "x");
    // What failed then does not come to pass with a later save.
    {
        const Answering dialog(choose({out / "later.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
    }
    REQUIRE(w.quiet());
    CHECK(w.studio().document().open());
    w.key(Qt::Key_A);
    const Answering saves(answer(0, QStringLiteral("not saved")));
    w.click("home");
    CHECK(wait_for([&] { return !w.studio().document().open(); }, 5000));
    CHECK(load_pile(out / "later.pile").ok());
}

TEST_CASE("whoever works on while another pile is being opened is asked before it takes the place", "[window]") {
    const Folder folder, other, out;
    run_of(folder, 3);
    run_of(other, 5);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(w.save_as(out / "first.pile"));
    // What is edited meanwhile stays, when the person says so, and no question comes later.
    begin_to_open(w, other);
    w.key(Qt::Key_A);
    REQUIRE(w.studio().document().edited());
    {
        const Answering question(answer(2, QStringLiteral("not saved")));
        REQUIRE(wait_for([&] { return question.came(); }));
        REQUIRE(w.quiet());
    }
    CHECK(w.pile().frames.size() == 3);
    CHECK(w.studio().document().edited());
    // It is saved, when the person says that, before the other one opens.
    w.key(Qt::Key_Z, Qt::ControlModifier);
    REQUIRE_FALSE(w.studio().document().edited());
    begin_to_open(w, other);
    w.key(Qt::Key_A);
    {
        const Answering question(answer(0, QStringLiteral("not saved")));
        REQUIRE(wait_for([&] { return question.came(); }));
        REQUIRE(wait_for([&] { return w.pile().frames.size() == 4; }));
        REQUIRE(w.quiet());
    }
    const Result<LoadedPile> kept = load_pile(out / "first.pile");
    REQUIRE(kept.ok());
    CHECK(std::count_if(kept.value().pile.frames.begin(), kept.value().pile.frames.end(),
                        [](const Frame& f) { return f.aside; }) == 1);
    // Nothing was done meanwhile: no question.
    begin_to_open(w, other);
    REQUIRE(w.settle());
    CHECK(w.studio().document().name() != QStringLiteral("first.pile"));
}

TEST_CASE("what was opened waits for a dialog about the pile that is open", "[window]") {
    const Folder folder, other, out;
    run_of(folder, 3);
    run_of(other, 5);
    Window w;
    REQUIRE(w.open(folder));
    begin_to_open(w, other);
    // The person is in the middle of saving when the other one is there: what is saved is what the dialog was about.
    const Answering dialog([&](QWidget& widget) {
        if (w.studio().opening().busy()) return false;
        let_pass();
        return choose({out / "first.pile"})(widget);
    });
    // Asked for at once, while that is still being opened.
    w.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(dialog.came());
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 4; }));
    REQUIRE(w.quiet());
    const Result<LoadedPile> kept = load_pile(out / "first.pile");
    REQUIRE(kept.ok());
    CHECK(kept.value().pile.frames.size() == 3);
    CHECK(w.studio().document().path().isEmpty());
}

TEST_CASE("frames that are aligned after a save are still to be saved", "[window]") {
    const Folder folder, more, out;
    run_of(folder, 3);
    write(more / "later.tif", landscape({120, 90}, Matrix::shift(4, 0), 9, 0.02), 8);
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_3, Qt::ControlModifier);
    w.click("align_shift");
    REQUIRE(w.quiet());
    REQUIRE(w.pile().methods.sky.model == Model::shift);
    w.drop({more / "later.tif"});
    REQUIRE(wait_for([&] { return w.pile().frames.size() == 4; }));
    // Saved while the new one is looked at.
    REQUIRE(w.save_as(out / "night.pile"));
    REQUIRE(w.quiet());
    REQUIRE(w.pile().frames.back().places.sky);
    const Result<LoadedPile> kept = load_pile(out / "night.pile");
    REQUIRE(kept.ok());
    // Either it was there when the pile was written, or the pile says that it is not all on disk.
    CHECK(w.studio().document().edited() == !kept.value().pile.frames.back().places.sky.has_value());
}

TEST_CASE("a note counts letter by letter, is one step, and stays with its frame", "[window]") {
    const Folder folder, out;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    const int first = w.studio().current();
    w.click("note");
    QTest::keyClicks(w.focus(), "gull on the mole");
    CHECK(find_frame(w.pile(), first)->note == "gull on the mole");
    {
        const Answering dialog(choose({out / "a.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
    }
    REQUIRE(w.quiet());
    CHECK(find_frame(load_pile(out / "a.pile").value().pile, first)->note == "gull on the mole");
    CHECK_FALSE(w.studio().document().edited());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(find_frame(w.pile(), first)->note.empty());
    CHECK(w.find<QLineEdit>("note")->text().isEmpty());
    // Another pile's frame gets nothing of it.
    const Folder other;
    run_of(other, 2);
    QTest::keyClicks(w.focus(), "half a w");
    const Answering thrown(answer(1, QStringLiteral("not saved")));
    w.click("home");
    REQUIRE(w.open(other));
    for (const Frame& frame : w.pile().frames) CHECK(frame.note.empty());
}

TEST_CASE("keys do their work wherever the focus is, and text stays text", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    REQUIRE(w.window.keys().complete());
    const int id = w.studio().current();
    // A list and a box to choose from would take letters for themselves.
    w.tab_to("role");
    w.key(Qt::Key_A);
    CHECK(find_frame(w.pile(), id)->aside);
    w.key(Qt::Key_D);
    CHECK(w.window.comparison().on());
    w.key(Qt::Key_D);
    CHECK(find_frame(w.pile(), id)->role == Role::scene);
    w.tab_to("rate");
    const int rate = w.find<QComboBox>("rate")->currentIndex();
    w.key(Qt::Key_2);
    CHECK(w.window.viewer().view() == app::View::frame);
    CHECK(w.find<QComboBox>("rate")->currentIndex() == rate);
    // After a click on a button Space does not press it again.
    w.click("set_aside");
    CHECK_FALSE(find_frame(w.pile(), id)->aside);
    w.key(Qt::Key_Space);
    CHECK_FALSE(find_frame(w.pile(), id)->aside);
    // In a field letters are letters.
    w.click("find_frames");
    QTest::keyClicks(w.focus(), "ad2");
    CHECK(w.find<QLineEdit>("find_frames")->text() == QStringLiteral("ad2"));
    CHECK_FALSE(find_frame(w.pile(), id)->aside);
    CHECK(w.pile().frames.size() == 3);
    w.key(Qt::Key_Escape);
    CHECK(w.focus() == &w.window.canvas());
}

TEST_CASE("Escape leaves a stroke, then the brush; undo in the middle of a stroke does not bring it back", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_4");
    w.key(Qt::Key_2);
    REQUIRE(w.settle());
    app::Canvas& canvas = w.window.canvas();
    const auto press = [&](QPointF at) {
        QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, canvas.to_screen(at).toPoint());
        w.move_over_canvas(at + QPointF(10, 5));
    };
    const auto let_go = [&](QPointF at) {
        QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, canvas.to_screen(at).toPoint());
    };
    press({40, 40});
    w.key(Qt::Key_Escape);
    let_go({50, 45});
    CHECK(w.pile().parts.empty());
    CHECK(canvas.painting());
    w.stroke({{40, 40}, {60, 50}});
    REQUIRE(w.pile().parts.size() == 1);
    press({80, 60});
    w.key(Qt::Key_Z, Qt::ControlModifier);
    let_go({90, 65});
    CHECK(w.pile().parts.empty());
    w.key(Qt::Key_Escape);
    CHECK_FALSE(canvas.painting());
    w.stroke({{40, 40}, {60, 50}});
    CHECK(w.pile().parts.empty());
    w.click("brush_keep");
    CHECK(canvas.painting());
}

TEST_CASE("a slider in the hand is let go by Escape without an edit", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_3");
    auto* slider = w.find<QSlider>("strength");
    REQUIRE(slider->isVisible());
    const Pile before = w.pile();
    const QPoint handle(slider->width() - 6, slider->height() / 2);
    QTest::mousePress(slider, Qt::LeftButton, Qt::NoModifier, handle);
    QMouseEvent move(QEvent::MouseMove, QPointF(40, handle.y()), slider->mapToGlobal(QPointF(40, handle.y())),
                     Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(slider, &move);
    CHECK(w.window.viewer().trying());
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.window.viewer().trying());
    CHECK(slider->value() == 100);
    QTest::mouseRelease(slider, Qt::LeftButton, Qt::NoModifier, QPoint(30, handle.y()));
    CHECK(w.pile() == before);
}

TEST_CASE("the wheel scrolls the steps and changes a value only where the focus is", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_1");
    const auto wheel = [](QWidget* over) {
        const QPointF at(over->rect().center());
        QWheelEvent event(at, over->mapToGlobal(at), {}, {0, -120}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                          false);
        QApplication::sendEvent(over, &event);
        let_pass();
    };
    auto* exposure = w.find<QSlider>("look_exposure_ev");
    auto* steps = w.find<QScrollArea>("step_room_1")->verticalScrollBar();
    REQUIRE(steps->maximum() > 0);
    steps->setValue(0);
    wheel(exposure);
    CHECK(exposure->value() == 0);
    CHECK(steps->value() > 0);
    wheel(w.find<QSpinBox>("look_deep"));
    CHECK(w.pile().look == Look{});
    exposure->setFocus();
    wheel(exposure);
    CHECK(exposure->value() != 0);
}

TEST_CASE("arrows walk over miniatures, and only Enter or Space chooses", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_2");
    w.tab_to("align_none");
    w.key(Qt::Key_Right);
    w.key(Qt::Key_Right);
    CHECK(w.focus() == w.find<QWidget>("align_rigid"));
    CHECK(w.pile().methods.sky.model == Model::none);
    CHECK_FALSE(w.studio().finding().busy());
    w.key(Qt::Key_Return);
    REQUIRE(w.quiet());
    CHECK(w.pile().methods.sky.model == Model::rigid);
    w.click("knot_3");
    w.tab_to("mode_lighten");
    w.key(Qt::Key_Down);
    w.key(Qt::Key_Space);
    CHECK(w.pile().methods.sky.mode == Mode::median);
}

TEST_CASE("Tab goes from the top to the bottom and from the left to the right", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_2");
    w.tab_to("knot_2");
    QPoint last = w.focus()->mapTo(&w.window, QPoint(0, 0));
    QStringList order;
    for (int i = 0; i < 10; ++i) {
        w.key(Qt::Key_Tab);
        const QPoint here = w.focus()->mapTo(&w.window, QPoint(0, 0));
        order << w.focus()->objectName();
        INFO(order.join(QStringLiteral(", ")).toStdString());
        const bool onward = here.y() > last.y() + 4 || (std::abs(here.y() - last.y()) <= 4 && here.x() > last.x());
        CHECK(onward);
        last = here;
    }
    // Of tabs, one of which is open, it is that one; the arrows go on from there.
    CHECK(order.startsWith(QStringLiteral("page_place")));
    CHECK(order.contains(QStringLiteral("align_stars")));
}

TEST_CASE("what the program says stays, moves nothing and widens nothing", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    const QSize before = w.window.size();
    const QRect picture = w.window.canvas().geometry();
    w.studio().say(QString(QStringLiteral("a very long sentence about files ")).repeated(20), true);
    Held<Status> work;
    work.on(w.studio().finding(), QStringLiteral("looking"));
    REQUIRE(wait_for([&] { return w.seen<QPushButton>("stop") != nullptr; }));
    CHECK(w.told().contains(QStringLiteral("a very long sentence")));
    CHECK(w.window.size() == before);
    CHECK(w.window.canvas().geometry() == picture);
    CHECK(w.window.notices().width() < before.width());
    *work.go = true;
    REQUIRE(w.quiet());
    w.studio().say(QStringLiteral("another"));
    CHECK(w.window.notices().sentences().size() == 2);
    w.click(w.seen<QPushButton>("sentence_read"));
    CHECK(w.window.notices().sentences() == QStringList{QStringLiteral("another")});
}

TEST_CASE("what a job throws is a sentence, and the program goes on", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    bool heard = false;
    w.studio().finding().run<int>([](Job&) -> int { throw std::bad_alloc(); }, [&](int) { heard = true; });
    REQUIRE(wait_for([&] { return w.told().contains(QStringLiteral("not enough memory")); }, 5000));
    CHECK_FALSE(heard);
    CHECK_FALSE(w.studio().busy());
    w.studio().finding().run<Status>([](Job&) -> Status { throw std::runtime_error("odd"); },
                                     [&](const Status& s) { heard = !s.ok(); });
    REQUIRE(wait_for([&] { return heard; }, 5000));
    w.click("knot_2");
    w.click("align_shift");
    REQUIRE(w.quiet());
    CHECK(w.pile().methods.sky.model == Model::shift);
}

TEST_CASE("a reference that is removed while frames are aligned does not come back", "[window]") {
    const Folder folder;
    run_of(folder, 4);
    Window w;
    REQUIRE(w.open(folder));
    const int reference = w.pile().reference;
    w.studio().align(Model::rigid, reference);
    w.studio().select(reference);
    w.key(Qt::Key_Delete);
    REQUIRE(w.settle());
    CHECK(find_frame(w.pile(), w.pile().reference));
    CHECK(w.pile().frames.size() == 3);
}

TEST_CASE("an empty choice of files to add stops nothing and says nothing", "[window]") {
    const Folder folder;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    Held<Status> work;
    work.on(w.studio().opening(), QStringLiteral("adding others"));
    w.studio().add({});
    CHECK(w.studio().opening().busy());
    CHECK(w.told().isEmpty());
    *work.go = true;
    REQUIRE(w.quiet());
    CHECK_FALSE(*work.stopped);
}

TEST_CASE("the Export button opens the step in which format and place are chosen", "[window]") {
    const Folder folder, out;
    run_of(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    w.click("export");
    CHECK(w.find<QComboBox>("export_format")->isVisible());
    CHECK_FALSE(QApplication::activeModalWidget());
    const Answering dialog(choose({out / "picture"}));
    w.click("export_now");
    CHECK(dialog.came());
    REQUIRE(w.quiet());
    CHECK(fs::exists(out / "picture.tif"));
}

TEST_CASE("a changed frame is said when a pile is opened, and taken as it is by a click", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    {
        Window w;
        REQUIRE(w.open(folder));
        const Answering dialog(choose({folder / "p.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
        REQUIRE(w.quiet());
    }
    write(folder / "f2.tif", landscape({120, 90}, {}, 77, 0.05), 8);
    fs::remove(folder / "f3.tif");
    Window w;
    w.drop({folder / "p.pile"});
    REQUIRE(wait_for([&] { return w.studio().document().open(); }));
    REQUIRE(w.settle());
    CHECK(w.told().contains(QStringLiteral("1 frame changed")));
    CHECK(w.told().contains(QStringLiteral("1 frame missing")));
    CHECK(merged_ids(w.pile()).size() == 1);
    w.click("take_changed");
    REQUIRE(w.quiet());
    CHECK(merged_ids(w.pile()).size() == 2);
    CHECK_FALSE(w.find<QWidget>("take_changed")->isVisible());
    CHECK(w.find<QWidget>("look_in")->isVisible());
}

TEST_CASE("the picture, the rail and its frames, knots and numbers say what they are and how they stand", "[window]") {
    const Folder folder;
    run_of(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    w.key(Qt::Key_Right);
    w.key(Qt::Key_A);
    auto* picture = QAccessible::queryAccessibleInterface(&w.window.canvas());
    REQUIRE(picture);
    CHECK(picture->role() == QAccessible::Graphic);
    CHECK(picture->text(QAccessible::Value).contains(QLatin1Char('%')));
    auto* rail = QAccessible::queryAccessibleInterface(w.find<QWidget>("time_rail"));
    REQUIRE(rail);
    REQUIRE(rail->childCount() == 3);
    CHECK(rail->child(1)->text(QAccessible::Name).contains(QStringLiteral("Frame 2: f2.tif")));
    CHECK(rail->child(1)->text(QAccessible::Name).contains(QStringLiteral("Set aside")));
    CHECK(rail->child(1)->state().selected);
    CHECK_FALSE(rail->child(0)->state().selected);
    CHECK(rail->indexOfChild(rail->child(2)) == 2);
    const QRect place = rail->child(2)->rect();
    CHECK(rail->childAt(place.center().x(), place.center().y()) == rail->child(2));
    auto* knot = QAccessible::queryAccessibleInterface(w.find<QWidget>("knot_0"));
    CHECK(knot->text(QAccessible::Description).contains(QStringLiteral("1 aside")));
    CHECK(knot->state().checked);
    w.click("knot_1");
    auto* number = QAccessible::queryAccessibleInterface(w.find<QWidget>("look_deep"));
    CHECK(number->text(QAccessible::Name) == QStringLiteral("Deep"));
    REQUIRE(number->valueInterface());
    CHECK(number->valueInterface()->currentValue().toInt() == 0);
    // What has no frame any more says nothing.
    auto* last = rail->child(2);
    w.studio().select(w.pile().frames[2].id);
    w.key(Qt::Key_Delete);
    CHECK(rail->childCount() == 2);
    CHECK_FALSE(last->isValid());
    CHECK(last->text(QAccessible::Name).isEmpty());
}
