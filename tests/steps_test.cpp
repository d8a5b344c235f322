// The steps, the bars and the words, used as a person uses them.
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QSlider>
#include <QThread>
#include <QToolButton>
#include <atomic>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/looks/theme.h"
#include "app/looks/words.h"
#include "app/panels/miniatures.h"
#include "app/rail/rail_traces.h"
#include "pile/edits.h"
#include "pile/outcomes.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void shifted(const Folder& folder, int count) {
    write_moving(folder, count, {320, 240}, {2.5, -1});
}

void open_step(Window& w, int index) {
    QTest::mouseClick(w.find<QWidget>(("knot_" + std::to_string(index)).c_str()), Qt::LeftButton);
}

}  // namespace

TEST_CASE("the role of the selected frames is chosen in the Frames step", "[window]") {
    const Folder folder;
    shifted(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    auto* role = w.find<QComboBox>("role");
    const int first = w.pile().frames[0].id;
    const int second = w.pile().frames[1].id;
    w.studio().select(second);
    CHECK(role->currentData().toInt() == int(Role::scene));
    w.pick("role", role->findData(int(Role::foreground)));
    CHECK(w.pile().frames[1].role == Role::foreground);
    CHECK(merged_ids(w.pile()).size() == 2);
    w.studio().select(first);
    CHECK(role->currentData().toInt() == int(Role::scene));
    w.studio().document().undo();
    CHECK(w.pile().frames[1].role == Role::scene);
}

TEST_CASE("set aside and take back share one button that says which", "[window]") {
    const Folder folder;
    shifted(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    auto* button = w.find<QPushButton>("set_aside");
    const QString before = button->text();
    QTest::mouseClick(button, Qt::LeftButton);
    CHECK(merged_ids(w.pile()).size() == 2);
    CHECK(button->text() != before);
    QTest::mouseClick(button, Qt::LeftButton);
    CHECK(merged_ids(w.pile()).size() == 3);
    CHECK(button->text() == before);
}

TEST_CASE("the Merge step offers what the mode uses, and nothing else", "[window]") {
    const Folder folder;
    shifted(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    open_step(w, 3);
    auto* strength = w.find<QSlider>("strength");
    auto* linear = w.find<QCheckBox>("linear_light");
    auto* base = w.find<QPushButton>("make_base");
    CHECK(strength->isVisible());
    w.click("mode_median");
    CHECK_FALSE(strength->isVisible());
    CHECK_FALSE(linear->isVisible());
    CHECK_FALSE(base->isVisible());
    w.click("mode_mean");
    CHECK(linear->isVisible());
    CHECK(linear->isChecked());
    w.click(linear);
    CHECK(w.pile().light == Light::encoded);
    w.click("mode_one");
    CHECK(base->isVisible());
    w.studio().select(w.pile().frames[2].id);
    QTest::mouseClick(base, Qt::LeftButton);
    CHECK(w.pile().base == w.pile().frames[2].id);
    CHECK_FALSE(base->isEnabled());
    w.click("mode_lighten");
    w.slide("strength", 40);
    CHECK(w.pile().frames[2].strength == Approx(0.4));
    CHECK(w.pile().frames[0].strength == 1);
}

TEST_CASE("the modes are chosen among live pictures of what they give", "[window]") {
    const Folder folder;
    for (int i = 0; i < 3; ++i) {
        Raster16 flat({64, 48}, 3);
        std::fill(flat.data().begin(), flat.data().end(), std::uint16_t(257 * (20 + 100 * i)));
        write(folder / ("f" + std::to_string(i) + ".png"), flat, 8);
    }
    Window w;
    REQUIRE(w.open(folder));
    open_step(w, 3);
    auto* maximum = w.find<app::Miniature>("mode_maximum");
    auto* minimum = w.find<app::Miniature>("mode_minimum");
    const auto middle = [](app::Miniature* m) { return m->grab().toImage().pixelColor(m->width() / 2, 24).red(); };
    REQUIRE(wait_for([&] { return middle(maximum) == 220 && middle(minimum) == 20; }, 8000));
    const int brightest[] = {w.pile().frames[2].id};
    w.studio().document().edit(with_aside(w.pile(), brightest, true), QStringLiteral("aside"));
    CHECK(w.window.steps().rendering());
    REQUIRE(wait_for([&] { return middle(maximum) == 120; }, 8000));
    // Another frame that is looked at, or another one of them that is chosen, changes none of them.
    REQUIRE(w.quiet());
    const int before = w.studio().current();
    QTest::keyClick(&w.window.canvas(), Qt::Key_Right);
    CHECK(w.studio().current() != before);
    CHECK_FALSE(w.window.steps().rendering());
    QTest::keyClick(maximum, Qt::Key_Space);
    CHECK(w.pile().methods.sky.mode == Mode::maximum);
    CHECK_FALSE(w.window.steps().rendering());
}

TEST_CASE("a step that is not open catches up when it is opened, and its line says at once what it does", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    open_step(w, 3);
    REQUIRE(w.quiet());
    auto* median = w.find<app::Miniature>("mode_median");
    auto* lighten = w.find<app::Miniature>("mode_lighten");
    QTest::keyClick(median, Qt::Key_Space);
    CHECK(w.pile().methods.sky.mode == Mode::median);
    CHECK(median->isChecked());
    const QString as_median = w.find<QWidget>("knot_3")->accessibleDescription();
    open_step(w, 6);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().methods.sky.mode == Mode::lighten);
    CHECK(w.find<QWidget>("knot_3")->accessibleDescription() != as_median);
    open_step(w, 3);
    CHECK(lighten->isChecked());
    CHECK_FALSE(median->isChecked());
}

TEST_CASE("the Align step aligns to any frame and crops to what is shared", "[window]") {
    const Folder folder;
    shifted(folder, 3);
    Window w;
    REQUIRE(w.open(folder));
    open_step(w, 2);
    w.click("align_shift");
    REQUIRE(w.quiet());
    CHECK(w.pile().reference == w.pile().frames[0].id);
    const Rect cropped = w.window.viewer().area();
    CHECK(cropped.width < 320);
    w.click("page_cover");
    w.click("full_cover");
    CHECK(w.pile().cover == Cover::any);
    CHECK(w.window.viewer().area() == Rect{0, 0, 320, 240});
    w.click("page_place");
    w.studio().select(w.pile().frames[2].id);
    w.click("make_reference");
    REQUIRE(w.quiet());
    CHECK(w.pile().reference == w.pile().frames[2].id);
    CHECK(w.pile().frames[2].places.sky->to_reference.is_identity());
    CHECK(w.pile().frames[0].places.sky->to_reference.m()[2] == Approx(-5).margin(0.1));
    w.click("align_none");
    CHECK(w.pile().methods.sky.model == Model::none);
    w.studio().document().undo();
    CHECK(w.pile().methods.sky.model == Model::shift);
}

TEST_CASE("a frame that cannot be aligned is told and not merged", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    write(folder / "f3.tif", landscape({320, 240}, Matrix::shift(9000, 4000)), 8);
    Window w;
    REQUIRE(w.open(folder, Outcome::quiet));
    CHECK(w.pile().methods.sky.model == Model::rigid);
    CHECK(merged_ids(w.pile()).size() == 2);
    CHECK_FALSE(w.pile().frames[2].places.sky->aligned);
}

TEST_CASE("the Export step keeps the format in the pile and reports what it wrote", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    open_step(w, 6);
    auto* quality = w.find<QSlider>("export_quality");
    CHECK_FALSE(quality->isVisible());
    w.pick("export_format", QStringLiteral("JPEG"));
    CHECK(w.pile().exporting.ending == ".jpg");
    CHECK(quality->isVisible());
    w.slide("export_quality", 70);
    CHECK(w.pile().exporting.quality == 70);
    REQUIRE(w.export_to(folder / "out.jpg"));
    CHECK(w.find<QLabel>("export_report")->text().contains(QStringLiteral("320 x 240")));
    w.studio().export_to(QString::fromStdString((folder / "f1.tif").string()), w.pile().exporting);
    REQUIRE(w.quiet());
    CHECK(w.told().contains(QStringLiteral("Originals are never written over")));
    w.pick("export_format", 1);
    CHECK(w.pile().exporting.bits == 16);
    CHECK(w.pile().exporting.ending == ".png");
}

TEST_CASE("one step is open at a time, by click or by key, and painting belongs to Parts", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    for (int i = 0; i < 7; ++i) {
        w.key(Qt::Key(Qt::Key_1 + i), Qt::ControlModifier);
        CHECK(w.window.steps().open_step() == i);
        CHECK(w.window.canvas().painting() == (i == 4));
    }
    QTest::keyClick(w.find<QWidget>("knot_2"), Qt::Key_Space);
    CHECK(w.window.steps().open_step() == 2);
}

TEST_CASE("all steps are in view whatever page is open; what does not fit scrolls within its step", "[window]") {
    const Folder folder;
    write_moving(folder, 6, {320, 240}, {2, -1});
    for (const QSize size : {QSize(1280, 800), QSize(1024, 700)}) {
        Window w;
        w.window.resize(size);
        let_pass();
        REQUIRE(w.open(folder));
        auto* line = w.find<QScrollArea>("step_line");
        int scrolled = 0;
        on_every_page(w, [&] {
            let_pass();
            for (int step = 0; step < 7; ++step) {
                auto* knot = w.find<QWidget>(("knot_" + std::to_string(step)).c_str());
                const int top = knot->mapTo(line->viewport(), QPoint(0, 0)).y();
                INFO(size.height() << ": step " << step << " at " << top);
                CHECK(top >= 0);
                CHECK(top + knot->height() <= line->viewport()->height());
                auto* room = w.find<QScrollArea>(("step_room_" + std::to_string(step)).c_str());
                if (room->isVisible() && room->verticalScrollBar()->maximum() > 0) ++scrolled;
            }
        });
        // Else nothing was tried.
        CHECK(scrolled > 0);
        // The wheel goes down within the step, over a value, too, that has not the focus.
        w.click("knot_5");
        auto* room = w.find<QScrollArea>("step_room_5");
        REQUIRE(room->verticalScrollBar()->maximum() > 0);
        QSlider* value = nullptr;
        for (auto* slider : room->findChildren<QSlider*>())
            if (slider->isVisible() && !value) value = slider;
        REQUIRE(value);
        const int before = value->value();
        QWheelEvent wheel(QPointF(5, 5), value->mapToGlobal(QPointF(5, 5)), {}, {0, -240}, Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(value, &wheel);
        CHECK(room->verticalScrollBar()->value() > 0);
        CHECK(value->value() == before);
    }
}

TEST_CASE("the top bar says the pile's name and state, and what undo would undo", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    CHECK(w.find<QLabel>("pile_name")->text() == QString::fromStdString(folder.path().filename().string()));
    w.studio().document().edit(with_mode(w.pile(), Mode::median), QStringLiteral("Merge: median"));
    CHECK(w.find<QToolButton>("undo")->toolTip().contains(QStringLiteral("median")));
    CHECK(w.window.windowTitle().contains(QStringLiteral("Bright Pile")));
    REQUIRE(w.save_as(folder / "mine.pile"));
    CHECK(w.find<QLabel>("pile_name")->text() == QStringLiteral("mine.pile"));
    CHECK_FALSE(w.studio().document().edited());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.studio().document().edited());
}

TEST_CASE("closing the pile goes back to the start, with all outcomes and demo scenes", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    auto* start = w.find<QWidget>("start_screen");
    CHECK(start->isVisible());
    for (int i = 0; i < 6; ++i) CHECK(w.find<QWidget>(("outcome_" + std::to_string(i)).c_str())->isVisible());
    for (const char* scene : {"lighthouse", "quay", "shelf", "heron", "harbour-cats"})
        CHECK(w.find<QWidget>((std::string("demo_") + scene).c_str())->isVisible());
    REQUIRE(w.open(folder));
    CHECK_FALSE(start->isVisible());
    w.click("home");
    CHECK(start->isVisible());
    CHECK_FALSE(w.studio().document().open());
}

TEST_CASE("long work shows what it does and a button that stops it", "[window]") {
    const Folder folder;
    shifted(folder, 2);
    Window w;
    REQUIRE(w.open(folder));
    std::atomic<bool> stopped{false};
    w.studio().finding().run<int>(
        [&](Job& job) {
            job.begin("Waiting for the tide", 100);
            job.advance(30);
            while (!job.stopped()) QThread::msleep(2);
            stopped = true;
            return 0;
        },
        [](int) {});
    REQUIRE(wait_for([&] { return w.seen<QPushButton>("stop") != nullptr; }));
    CHECK(w.seen<QLabel>("job_words")->text().contains(QStringLiteral("Waiting for the tide")));
    CHECK(w.seen<QProgressBar>("job_progress")->value() == 300);
    w.click(w.seen<QPushButton>("stop"));
    REQUIRE(wait_for([&] { return stopped.load(); }, 5000));
    CHECK_FALSE(w.studio().busy());
}

TEST_CASE("everything that can be chosen has a word and says what it does") {
    for (const ModeEntry& entry : modes()) {
        CHECK_FALSE(app::word(entry.mode).isEmpty());
        CHECK(app::what_it_does(entry.mode).size() > 15);
    }
    for (const ModelEntry& entry : models()) CHECK(app::what_it_does(entry.model).size() > 15);
    for (const OutcomeEntry& entry : outcomes()) {
        CHECK_FALSE(app::word(entry.outcome).isEmpty());
        CHECK_FALSE(QImage(app::picture_of(entry.outcome)).isNull());
    }
    CHECK(app::exposure_in_words(25) == QStringLiteral("25 s"));
    CHECK(app::exposure_in_words(1.0 / 320) == QStringLiteral("1/320 s"));
    CHECK(app::duration_in_words(0.2) == QStringLiteral("1 s"));
    CHECK(app::duration_in_words(600) == QStringLiteral("10 min"));
    CHECK(app::duration_in_words(7140) == QStringLiteral("119 min"));
    CHECK(app::duration_in_words(7200) == QStringLiteral("2 h"));
    CHECK(app::duration_in_words(25236) == QStringLiteral("7 h 1 min"));
    CHECK(app::duration_in_words(200000) == QStringLiteral("56 h"));
    CHECK(app::reason_in_words({Oddity::late, 180}) == QStringLiteral("180 s late"));
    CHECK(app::reason_in_words({Oddity::late, 25236}) == QStringLiteral("7 h 1 min late"));
    CHECK(app::time_in_words(1789251245.25) == QStringLiteral("22:14:05"));
}

TEST_CASE("frames are counted by what becomes of them") {
    Pile pile;
    for (int i = 1; i <= 6; ++i) {
        Frame f;
        f.id = i;
        f.file = std::make_shared<FrameFile>();
        pile.frames.push_back(f);
    }
    CHECK(app::frames_in_words(pile) == QStringLiteral("6 in"));
    const int two[] = {2}, three[] = {3};
    pile = with_role(with_aside(std::move(pile), two, true), three, Role::dark);
    pile.frames[5].problem = "broken";
    CHECK(app::frames_in_words(pile) == QStringLiteral("3 in, 1 aside, 1 dark, 1 of no use"));
}

TEST_CASE("text can be read on its ground in both themes") {
    const auto contrast = [](const QColor& a, const QColor& b) {
        const auto light = [](const QColor& c) {
            const auto part = [](double v) { return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
            return 0.2126 * part(c.redF()) + 0.7152 * part(c.greenF()) + 0.0722 * part(c.blueF());
        };
        const double x = light(a), y = light(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    };
    for (const app::ThemeName name : {app::ThemeName::noon, app::ThemeName::dusk}) {
        app::apply_theme(*qApp, name);
        const app::Theme& t = app::theme();
        CHECK(contrast(t.text, t.ground) > 10);
        CHECK(contrast(t.quiet, t.ground) > 4.5);
        CHECK(contrast(t.coral, t.ground) > 3.8);
        CHECK(contrast(t.on_amber, t.amber) > 3.5);
        // The surround of the picture is neutral.
        CHECK(std::abs(t.surround.red() - t.surround.blue()) <= 3);
    }
}
