// The Merge step used as a person uses it: how frames are chosen among, and trails that fade.
#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QSlider>
#include <catch2/catch.hpp>
#include <random>
#include <stdexcept>

#include "app/panels/taper_curve.h"
#include "app/rail/time_rail.h"
#include "pile/edits.h"
#include "pile/streak_edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// A light that wanders over a dark scene, one step a frame.
void wandering(const Folder& folder, int frames) {
    for (int i = 0; i < frames; ++i) {
        Raster16 scene({64, 48}, 3);
        std::fill(scene.data().begin(), scene.data().end(), std::uint16_t(257 * 10));
        for (int y = 20; y < 28; ++y)
            for (int x = 6 * i; x < 6 * i + 6; ++x)
                for (int c = 0; c < 3; ++c) scene.at(x, y, c) = std::uint16_t(257 * 200);
        write(folder / ("light-" + std::to_string(i) + ".png"), scene, 8);
    }
}

// The window with such a run, and the Merge step open at a page.
struct Merging : Folder, Window {
    Merging(int frames, const char* page) {
        wandering(*this, frames);
        if (!open(static_cast<const Folder&>(*this))) throw std::runtime_error("the frames do not open");
        click("knot_3");
        click(page);
    }
};

// Brightness of the result where the light was in a frame.
int seen_at(Window& w, int frame) {
    return test::render_all(w.pile()).value().at(6 * frame + 3, 24, 1) / 257;
}

}  // namespace

TEST_CASE("trails fade at the end that is clicked, over what the slider says, and all of it is undone", "[window]") {
    Merging w(9, "page_trails");
    CHECK_FALSE(w.find<QSlider>("taper_over")->isVisible());
    CHECK(seen_at(w, 0) == 200);
    w.click("taper_old");
    CHECK(w.find<QSlider>("taper_over")->isVisible());
    CHECK(seen_at(w, 0) == 10);
    CHECK(seen_at(w, 8) == 200);
    w.slide("taper_over", 100);
    CHECK(w.pile().methods.sky.taper.over == 1);
    for (int frame = 1; frame < 9; ++frame) CHECK(seen_at(w, frame) > seen_at(w, frame - 1));
    w.click("taper_both");
    CHECK(seen_at(w, 8) < 10);
    CHECK(seen_at(w, 4) > seen_at(w, 1));
    w.click("taper_new");
    CHECK(seen_at(w, 0) == 200);
    CHECK(seen_at(w, 8) == 10);
    w.click("taper_none");
    CHECK(seen_at(w, 8) == 200);
    for (int i = 0; i < 5; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().methods.sky.taper == Taper{});
}

TEST_CASE("the taper's curve is pulled by its knot, by mouse and keys, and Escape gives it up", "[window]") {
    Merging w(9, "page_trails");
    w.click("taper_old");
    auto* curve = w.find<app::TaperCurve>("taper_curve");
    const auto knot = [&] { return w.pile().methods.sky.taper.knot; };
    const QPoint from = curve->place_of_knot().toPoint();
    const QPointF before = w.find<app::TimeRail>("time_rail")->wedge()->place_of(app::TaperWedge::Handle::old_knot);
    QTest::mousePress(curve, Qt::LeftButton, Qt::NoModifier, from);
    QTest::mouseMove(curve, from + QPoint(10, 12));
    let_pass();
    CHECK(knot() == Point{0.5, 0.5});
    // The wedge over the rail follows.
    auto& rail = *w.find<app::TimeRail>("time_rail");
    CHECK(rail.wedge()->place_of(app::TaperWedge::Handle::old_knot).y() > before.y() + 3);
    w.key(Qt::Key_Escape);
    CHECK(rail.wedge()->place_of(app::TaperWedge::Handle::old_knot) == before);
    CHECK(curve->place_of_knot().toPoint() == from);
    QTest::mouseRelease(curve, Qt::LeftButton, Qt::NoModifier, from + QPoint(10, 12));
    CHECK(knot() == Point{0.5, 0.5});

    const int straight = seen_at(w, 1);
    QTest::mousePress(curve, Qt::LeftButton, Qt::NoModifier, from);
    QTest::mouseMove(curve, from + QPoint(10, 12));
    QTest::mouseRelease(curve, Qt::LeftButton, Qt::NoModifier, from + QPoint(10, 12));
    CHECK(knot().x > 0.55);
    CHECK(knot().y < 0.4);
    CHECK(seen_at(w, 1) < straight);
    w.tab_to("taper_curve");
    w.key(Qt::Key_Home);
    CHECK(knot() == Point{0.5, 0.5});
    w.key(Qt::Key_Up);
    CHECK(knot().y == Approx(0.55));
    CHECK(seen_at(w, 1) > straight);
    QTest::mouseDClick(curve, Qt::LeftButton, Qt::NoModifier, from);
    CHECK(knot() == Point{0.5, 0.5});
}

TEST_CASE("where strengths do not count, the trails page says so, and what was set comes back with the mode",
          "[window]") {
    Merging w(4, "page_trails");
    w.click("taper_old");
    w.click("page_mode");
    w.click("mode_median");
    w.click("page_trails");
    CHECK_FALSE(w.find<QPushButton>("taper_new")->isEnabled());
    CHECK_FALSE(w.find<QSlider>("taper_over")->isVisible());
    w.click("page_mode");
    w.click("mode_add");
    w.click("page_trails");
    CHECK(w.find<QPushButton>("taper_old")->isChecked());
    CHECK(w.find<QSlider>("taper_over")->isVisible());
}

TEST_CASE("a head stands out by a tick, apart from the tail, grown by a slider, live and undone", "[window]") {
    Merging w(9, "page_trails");
    w.click("taper_old");
    CHECK_FALSE(w.find<QSlider>("head_frames")->isVisible());
    w.click("head");
    auto& rail = *w.find<app::TimeRail>("time_rail");
    const auto place = [&](OfTrail part) { return rail.wedge()->place_of(part); };
    CHECK(place(OfTrail::apart).isEmpty());
    w.slide("head_frames", 2);
    w.slide("head_apart", 3);
    CHECK(w.pile().methods.sky.head.frames == 2);
    CHECK(place(OfTrail::apart).width() > 10);
    CHECK(place(OfTrail::apart).right() <= place(OfTrail::head).left() + 1);
    for (const int frame : {4, 5, 6}) CHECK(seen_at(w, frame) <= 10);
    for (const int frame : {7, 8}) CHECK(seen_at(w, frame) == 200);
    const auto beside = [&] { return test::render_all(w.pile()).value().at(6 * 8 + 3, 30, 1) / 257; };
    CHECK(beside() == 10);
    CHECK_FALSE(w.find<QCheckBox>("head_bright")->isEnabled());
    w.slide("head_radius", 12);
    CHECK(w.pile().methods.sky.head.softening.radius_px == 6);
    CHECK(beside() > 30);
    CHECK(w.find<QCheckBox>("head_bright")->isEnabled());
    w.click("head_bright");
    CHECK_FALSE(w.pile().methods.sky.head.softening.as_bright);
    // The new end fades: the head is at the old one.
    w.click("taper_new");
    CHECK(place(OfTrail::head).left() < place(OfTrail::tail).left());
    CHECK(seen_at(w, 0) > 100);
    CHECK(seen_at(w, 3) <= 10);
    // Without a taper the wedge stays, for the head.
    w.click("taper_none");
    CHECK(rail.wedge().has_value());
    w.click("head");
    CHECK_FALSE(rail.wedge().has_value());
    CHECK(seen_at(w, 5) == 200);
    for (int i = 0; i < 9; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().methods.sky.head == Head{});
}

TEST_CASE("a head that is pulled is seen on the picture and the rail before it is let go, and Escape gives it up",
          "[window]") {
    Merging w(9, "page_trails");
    w.click("head");
    REQUIRE(w.settle());
    auto& rail = *w.find<app::TimeRail>("time_rail");
    auto* slider = w.find<QSlider>("head_apart");
    const Head before = w.pile().methods.sky.head;
    const auto handle = [&](int value) {
        return QPoint(10 + (slider->width() - 20) * value / slider->maximum(), slider->height() / 2);
    };
    QTest::mousePress(slider, Qt::LeftButton, Qt::NoModifier, handle(0));
    QTest::mouseMove(slider, handle(8));
    let_pass();
    CHECK(w.window.viewer().trying());
    CHECK(rail.wedge()->place_of(OfTrail::apart).width() > 20);
    CHECK(w.pile().methods.sky.head == before);
    w.key(Qt::Key_Escape);
    QTest::mouseRelease(slider, Qt::LeftButton, Qt::NoModifier, handle(8));
    CHECK(w.pile().methods.sky.head == before);
    CHECK(rail.wedge()->place_of(OfTrail::apart).isEmpty());
}

TEST_CASE("added light nears white softly on request", "[window]") {
    // A light that stands still for three frames adds up beyond white.
    Folder lamps;
    for (int i = 0; i < 3; ++i) {
        Raster16 scene({64, 48}, 3);
        std::fill(scene.data().begin(), scene.data().end(), std::uint16_t(257 * 220));
        scene.at(0, 0, 0) = std::uint16_t(257 * i);  // no file is another's copy
        write(lamps / ("lamp-" + std::to_string(i) + ".png"), scene, 8);
    }
    Window w;
    REQUIRE(w.open(lamps));
    w.click("knot_3");
    CHECK_FALSE(w.find<QCheckBox>("soft_white")->isVisible());
    w.click("mode_add");
    CHECK(test::render_all(w.pile()).value().at(3, 3, 1) == 65535);
    w.click("soft_white");
    CHECK(w.pile().methods.sky.soft_white);
    const int soft = test::render_all(w.pile()).value().at(3, 3, 1) / 257;
    CHECK(soft > 220);
    CHECK(soft < 255);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(w.pile().methods.sky.soft_white);
}

TEST_CASE("two settings of the merge stand side by side: one held, the other changed, swapped, undone", "[window]") {
    Merging w(5, "page_mode");
    w.click("side_by_side");
    w.pick("second", 4);
    REQUIRE(w.settle());
    app::Comparison& pair = w.window.comparison();
    const auto left = [&] { return w.window.viewer().colour_at(3, 24)->green(); };
    const auto right = [&] { return pair.viewer().colour_at(3, 24)->green(); };
    const auto seen = [&] {
        return w.settle() && wait_for([&] { return !pair.viewer().busy() && pair.viewer().seen(); });
    };
    REQUIRE(seen());
    CHECK(pair.name() == QStringLiteral("Held settings"));
    CHECK(left() == 200);
    CHECK(right() == 200);
    w.click("mode_minimum");
    REQUIRE(seen());
    CHECK(left() == 10);
    CHECK(right() == 200);
    w.click("swap_settings");
    REQUIRE(seen());
    CHECK(w.pile().methods.sky.mode == Mode::lighten);
    CHECK(left() == 200);
    CHECK(right() == 10);
    // What else changes is seen on both sides.
    w.key(Qt::Key_Home);
    w.key(Qt::Key_A);
    REQUIRE(seen());
    CHECK(right() == 10);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    // Undone, the picture has its own again; what is held stays held.
    w.key(Qt::Key_Z, Qt::ControlModifier);
    REQUIRE(seen());
    CHECK(w.pile().methods.sky.mode == Mode::minimum);
    CHECK(right() == 10);
    w.click("hold");
    w.click("mode_maximum");
    REQUIRE(seen());
    CHECK(left() == 200);
    CHECK(right() == 10);
}

TEST_CASE("the noise of the result is told beside that of one frame, and seen beside it pixel by pixel", "[window]") {
    Folder folder;
    std::mt19937 dice(7);
    std::normal_distribution<double> grain(0, 1200);
    for (int i = 0; i < 4; ++i) {
        Raster16 scene({640, 400}, 3);
        for (std::uint16_t& v : scene.data()) v = std::uint16_t(std::clamp(24000 + grain(dice), 0.0, 65535.0));
        write(folder / ("grain-" + std::to_string(i) + ".tif"), scene, 16);
    }
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_3");
    w.click("mode_mean");
    auto* facts = w.find<QLabel>("noise_facts");
    w.click("noise_measure");
    REQUIRE(wait_for([&] { return facts->text().contains(QStringLiteral("EV less noise")); }));
    // Four frames: half the noise.
    const double gain = facts->text().section(QLatin1Char(' '), 0, 0).toDouble();
    CHECK(gain == Approx(1).margin(0.1));
    CHECK(facts->text().contains(QStringLiteral("At 37% brightness")));
    // Of another picture it tells nothing.
    w.click("mode_maximum");
    CHECK_FALSE(facts->isVisible());
    w.click("noise_beside");
    CHECK(w.window.comparison().on());
    CHECK(w.window.comparison().second() == app::Second::reference);
    CHECK(w.window.canvas().zoom() == 1);
}

TEST_CASE("whole pixels are chosen by a tick, where a mode chooses, and saved with the pile", "[window]") {
    Merging w(3, "page_mode");
    auto* pixels = w.find<QCheckBox>("whole_pixels");
    w.click(pixels);
    CHECK(w.pile().methods.sky.by == By::pixel);
    w.click("mode_mean");
    CHECK_FALSE(pixels->isVisible());
    w.click("mode_maximum");
    CHECK(pixels->isVisible());
    CHECK(pixels->isChecked());
    const Folder out;
    REQUIRE(w.save_as(out / "p.pile"));
    const Pile before = w.pile();
    Window again;
    again.drop({out / "p.pile"});
    REQUIRE(wait_for([&] { return again.studio().document().open(); }));
    CHECK(again.pile().methods == before.methods);
}

TEST_CASE("the taper lies over the rail as a wedge and is pulled there, live, by its corner and its knot", "[window]") {
    Merging w(9, "page_trails");
    auto& rail = *w.find<app::TimeRail>("time_rail");
    CHECK_FALSE(rail.wedge().has_value());
    const int without = rail.height();
    w.click("taper_old");
    REQUIRE(rail.wedge().has_value());
    CHECK(rail.height() > without);
    using Handle = app::TaperWedge::Handle;
    const auto place = [&](Handle handle) { return rail.wedge()->place_of(handle).toPoint(); };
    const auto taper = [&] { return w.pile().methods.sky.taper; };
    // To the middle of frame 7 of 9: three quarters of the run.
    const QPoint to(int(rail.place_of_number(7).center().x()), place(Handle::old_corner).y());
    QTest::mousePress(&rail, Qt::LeftButton, Qt::NoModifier, place(Handle::old_corner));
    QTest::mouseMove(&rail, to);
    CHECK(w.window.viewer().trying());
    CHECK(taper().over == 0.4);
    CHECK(w.find<QSlider>("taper_over")->value() > 70);
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.window.viewer().trying());
    QTest::mouseRelease(&rail, Qt::LeftButton, Qt::NoModifier, to);
    CHECK(taper().over == 0.4);

    QTest::mousePress(&rail, Qt::LeftButton, Qt::NoModifier, place(Handle::old_corner));
    QTest::mouseMove(&rail, to);
    QTest::mouseRelease(&rail, Qt::LeftButton, Qt::NoModifier, to);
    CHECK(taper().over == Approx(0.75).margin(0.02));
    const QPoint knot = place(Handle::old_knot);
    QTest::mousePress(&rail, Qt::LeftButton, Qt::NoModifier, knot);
    QTest::mouseMove(&rail, knot + QPoint(0, 8));
    QTest::mouseRelease(&rail, Qt::LeftButton, Qt::NoModifier, knot + QPoint(0, 8));
    CHECK(taper().knot.y < 0.4);
    CHECK(taper().over == Approx(0.75).margin(0.02));
    // A double-click on the knot makes the line straight, and sets no frame aside, as one on a slat does.
    QTest::mouseDClick(&rail, Qt::LeftButton, Qt::NoModifier, place(Handle::old_knot));
    CHECK(taper().knot == Point{0.5, 0.5});
    QTest::mouseDClick(&rail, Qt::LeftButton, Qt::NoModifier, place(Handle::old_corner));
    CHECK(merged_ids(w.pile()).size() == 9);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(taper().knot.y < 0.4);
    // No frame was chosen by it, and both pulls are undone one by one.
    CHECK(w.studio().selected().size() == 1);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(taper().knot == Point{0.5, 0.5});
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(taper().over == 0.4);
    w.click("knot_0");
    CHECK_FALSE(rail.wedge().has_value());
}

namespace {

// A short night at a size at which its pauses show.
struct Night : Folder, Window {
    explicit Night(int frames) {
        practised(*this, "lighthouse", frames);
        fs::remove_all(*this / "darks");
        fs::remove_all(*this / "foreground");
        if (!open(static_cast<const Folder&>(*this))) throw std::runtime_error("the frames do not open");
        click("knot_3");
        click("page_trails");
    }
};

std::size_t kept_pixels(const Mask& mask) {
    std::size_t out = 0;
    for (int y = 0; y < mask.size().height; ++y)
        for (int x = 0; x < mask.size().width; ++x) out += mask.at(x, y) >= 128;
    return out;
}

}  // namespace

TEST_CASE("breaks are knitted by a tick, up to the pause that the slider says, and what was added is shown",
          "[window]") {
    Night w(7);
    auto* knit = w.find<QCheckBox>("knit");
    CHECK_FALSE(w.find<QSlider>("knit_longest")->isVisible());
    const Raster16 open = test::render_all(w.pile()).value();
    w.click(knit);
    REQUIRE(wait_for([&] { return w.pile().knit.on; }, 60000));
    REQUIRE(w.settle());
    CHECK(knit->isChecked());
    CHECK(w.find<QLabel>("knit_facts")->text().contains(QStringLiteral("6 of 6")));
    CHECK(test::difference(test::render_all(w.pile()).value(), open) != "");
    // The hatch is on the picture alone, and goes again.
    const QImage before = w.window.viewer().overview().image;
    w.click("knit_show");
    REQUIRE(w.settle());
    CHECK(w.window.viewer().overview().image != before);
    w.click("knit_show");
    REQUIRE(w.settle());
    CHECK(w.window.viewer().overview().image == before);
    w.slide("knit_longest", 10);
    CHECK(w.pile().knit.longest_s < 10);
    CHECK(w.find<QLabel>("knit_facts")->text().contains(QStringLiteral("0 of 6")));
    CHECK(test::difference(test::render_all(w.pile()).value(), open) == "");
    // In the median there are no trails; what was set comes back with the mode.
    w.click("page_mode");
    w.click("mode_median");
    w.click("page_trails");
    CHECK_FALSE(w.find<QSlider>("knit_longest")->isVisible());
    w.click("page_mode");
    w.click("mode_maximum");
    w.click("page_trails");
    CHECK(w.find<QSlider>("knit_longest")->isVisible());
    while (w.pile().knit.on) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(knit->isChecked());
}

TEST_CASE("a lantern and beetles that glow are knitted along their own ways, without any star", "[window]") {
    Folder folder;
    practised(folder, "fireflies", 6);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_3");
    w.click("page_trails");
    const Raster16 before = test::render_all(w.pile()).value();
    w.click("knit");
    REQUIRE(wait_for([&] { return w.pile().knit.on; }, 60000));
    CHECK(w.find<QLabel>("knit_facts")->text().contains(QStringLiteral("5 of 5")));
    CHECK_FALSE(test::difference(test::render_all(w.pile()).value(), before).empty());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(test::difference(test::render_all(w.pile()).value(), before).empty());
}

TEST_CASE("where no stars move, knitting says so and stays off", "[window]") {
    Merging w(5, "page_trails");
    w.click("knit");
    REQUIRE(w.quiet());
    let_pass();
    CHECK_FALSE(w.pile().knit.on);
    CHECK_FALSE(w.find<QCheckBox>("knit")->isChecked());
    CHECK(w.told().contains(QStringLiteral("stars")));
}

TEST_CASE("what is painted, ringed or banded on a frame takes no part, for all frames that are selected", "[window]") {
    Merging w(6, "page_leave_out");
    const auto frame = [&](int i) -> const Frame& { return w.pile().frames[std::size_t(i)]; };
    // In the result there is no frame to leave out of.
    w.click("left_out_brush_keep");
    w.stroke({{20, 20}});
    CHECK(w.told().contains(QStringLiteral("Switch to Frame")));
    CHECK(frame(0).left_out.empty());

    w.studio().select(frame(2).id);
    w.click("view_1");
    REQUIRE(w.settle());
    CHECK(seen_at(w, 2) == 200);
    w.slide("left_out_brush_size", 30);
    w.stroke({{10, 24}, {20, 24}});
    CHECK_FALSE(frame(2).left_out.empty());
    CHECK(frame(1).left_out.empty());
    CHECK(seen_at(w, 2) == 10);
    CHECK(seen_at(w, 1) == 200);
    w.click("left_out_brush_give_back");
    w.stroke({{10, 24}, {20, 24}});
    CHECK(frame(2).left_out.empty());
    CHECK(seen_at(w, 2) == 200);

    // A range: the frames that are selected.
    w.studio().select(frame(4).id, true);
    CHECK(w.studio().selected().size() == 3);
    w.click("left_out_ellipse");
    CHECK_FALSE(w.find<QPushButton>("left_out_brush_keep")->isChecked());
    w.stroke({{10, 16}, {45, 33}});
    for (const int i : {2, 3, 4}) CHECK(kept_pixels(frame(i).left_out) > 300);
    CHECK(frame(5).left_out.empty());
    CHECK(seen_at(w, 3) == 10);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(frame(3).left_out.empty());

    w.click("left_out_band");
    CHECK_FALSE(w.find<QPushButton>("left_out_ellipse")->isChecked());
    w.stroke({{20, 24}, {60, 24}});
    const std::size_t banded = kept_pixels(frame(4).left_out);
    CHECK(banded > 40);
    CHECK(seen_at(w, 4) == 10);
    // The list shows the frames; a tick taken away takes all of one in again.
    auto* list = w.find<QListWidget>("left_out_frames");
    REQUIRE(list->count() == 3);
    CHECK(list->item(0)->text().contains(QStringLiteral("3")));
    const QRect row = list->visualItemRect(list->item(2));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, row.center());
    let_pass();
    CHECK(w.studio().current() == frame(4).id);
    QTest::keyClick(list, Qt::Key_Space);
    let_pass();
    CHECK(frame(4).left_out.empty());
    CHECK(seen_at(w, 4) == 200);
    CHECK(list->count() == 2);
    // Escape puts the tool down; leaving the page does, too.
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.find<QPushButton>("left_out_band")->isChecked());
    w.click("left_out_ellipse");
    w.click("page_mode");
    CHECK_FALSE(w.window.canvas().has_tool());

    const Folder out;
    REQUIRE(w.save_as(out / "p.pile"));
    Window again;
    again.drop({out / "p.pile"});
    REQUIRE(wait_for([&] { return again.studio().document().open(); }));
    CHECK(again.pile().frames[3].left_out == frame(3).left_out);
}

TEST_CASE("where nobody takes part the place is told", "[window]") {
    Merging w(3, "page_leave_out");
    w.click("view_1");
    w.key(Qt::Key_A, Qt::ControlModifier);
    CHECK(w.studio().selected().size() == 3);
    CHECK_FALSE(w.find<QLabel>("left_out_nobody")->isVisible());
    w.click("left_out_ellipse");
    w.stroke({{30, 10}, {50, 30}});
    CHECK(w.find<QLabel>("left_out_nobody")->isVisible());
    CHECK(w.find<QLabel>("left_out_nobody")->text().contains(QStringLiteral("40")));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(w.find<QLabel>("left_out_nobody")->isVisible());
}

TEST_CASE("streaks are found by a click, marked, left out one by one or by kind, and taken in again", "[window]") {
    Folder folder;
    practised(folder, "night-watch", 6);
    Window w;
    REQUIRE(w.open(folder));
    const auto streaks = [&] { return all_streaks(w.pile()); };
    const auto left_out = [&](const StreakAt& at) { return find_streak(w.pile(), at)->left_out; };
    w.click("knot_3");
    w.click("page_leave_out");
    CHECK(w.find<QListWidget>("streaks")->isHidden());
    CHECK_FALSE(w.find<QComboBox>("streak_kind")->isVisible());
    w.click("streaks_find");
    REQUIRE(wait_for([&] { return !streaks().empty(); }, 60000));
    let_pass();
    auto* list = w.find<QListWidget>("streaks");
    const int found = list->count();
    REQUIRE(found >= 4);
    CHECK(list->item(0)->text().contains(QStringLiteral("meteor")));
    CHECK(w.window.canvas().marked().size() == std::size_t(found));
    CHECK_FALSE(w.find<QPushButton>("streaks_aircraft")->isVisible());
    // Choosing one goes to its frame, and only its own are marked there.
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, list->visualItemRect(list->item(1)).center());
    let_pass();
    const StreakAt second = streaks()[1];
    CHECK(w.studio().current() == second.frame);
    CHECK(w.window.viewer().view() == app::View::frame);
    CHECK(w.window.canvas().marked().size() == 1);
    QTest::keyClick(list, Qt::Key_Space);
    let_pass();
    CHECK(left_out(second));
    CHECK_FALSE(find_frame(w.pile(), second.frame)->silence.empty());
    CHECK(list->item(1)->checkState() == Qt::Checked);
    CHECK(list->item(0)->checkState() == Qt::Unchecked);
    w.click("streaks_meteor");
    for (const StreakAt& at : streaks()) CHECK(left_out(at));
    for (int i = 0; i < found; ++i) CHECK(list->item(i)->checkState() == Qt::Checked);
    w.click("streaks_meteor");
    for (const Frame& frame : w.pile().frames) CHECK(frame.silence.empty());
    for (int i = 0; i < 3; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(int(streaks().size()) == found);
    for (const StreakAt& at : streaks()) CHECK_FALSE(left_out(at));
    // The marks are of this page, and come back with it.
    w.click("knot_2");
    CHECK(w.window.canvas().marked().empty());
    w.click("knot_3");
    CHECK_FALSE(w.window.canvas().marked().empty());
    w.click("page_mode");
    CHECK(w.window.canvas().marked().empty());
    // They are saved with the pile; finding them was one step.
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(streaks().empty());
    w.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    const Folder out;
    REQUIRE(w.save_as(out / "n.pile"));
    Window again;
    again.drop({out / "n.pile"});
    REQUIRE(wait_for([&] { return again.studio().document().open(); }));
    for (const StreakAt& at : streaks()) CHECK(*find_streak(again.pile(), at) == *find_streak(w.pile(), at));
}

TEST_CASE("a missed streak is drawn with two clicks, pulled by its ends and its side, and told what it is",
          "[window]") {
    Merging w(5, "page_leave_out");
    app::Canvas& canvas = w.window.canvas();
    const auto at = [&](double x, double y) { return canvas.to_screen({x + 0.5, y + 0.5}).toPoint(); };
    const auto click = [&](double x, double y) {
        QTest::mouseClick(&canvas, Qt::LeftButton, Qt::NoModifier, at(x, y));
        let_pass();
    };
    const int third = w.pile().frames[2].id;
    w.studio().select(third);
    const auto streak = [&] { return find_streak(w.pile(), {third, 0}); };
    w.click("streaks_draw");
    CHECK(w.window.viewer().view() == app::View::frame);
    click(10, 10);
    CHECK(streak() == nullptr);
    click(10, 10);  // twice in one place is no line
    CHECK(streak() == nullptr);
    click(60, 30);
    REQUIRE(streak());
    CHECK(streak()->left_out);
    CHECK(streak()->by_hand);
    CHECK(std::hypot(streak()->line.to.x - 60, streak()->line.to.y - 30) < 1);
    CHECK_FALSE(w.find<QPushButton>("streaks_draw")->isChecked());
    CHECK(w.find<QListWidget>("streaks")->count() == 1);
    CHECK(w.window.canvas().marked().size() == 1);
    CHECK(find_frame(w.pile(), third)->silence.at(35, 20) == 255);
    // The ends are pulled; Escape gives a drag up.
    const auto pull = [&](QPoint from, QPoint to, bool give_up = false) {
        QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, from);
        QTest::mouseMove(&canvas, (from + to) / 2);
        QTest::mouseMove(&canvas, to);
        if (give_up) QTest::keyClick(&canvas, Qt::Key_Escape);
        QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, to);
        let_pass();
    };
    pull(at(60, 30), at(50, 44), true);
    CHECK(std::abs(streak()->line.to.x - 60) < 1);
    pull(at(60, 30), at(50, 44));
    CHECK(std::hypot(streak()->line.to.x - 50, streak()->line.to.y - 44) < 1.5);
    CHECK(std::hypot(streak()->line.from.x - 10, streak()->line.from.y - 10) < 1.5);
    // The side, beside the middle: half a band and at least some pixels of the screen away.
    const double before = streak()->line.width_px;
    const QPointF a = canvas.to_screen({10.5, 10.5}), b = canvas.to_screen({50.5, 44.5});
    const QPointF across = QPointF(-(b - a).y(), (b - a).x()) / std::hypot((b - a).x(), (b - a).y());
    const QPointF side = (a + b) / 2 + across * std::max(12.0, band_of(streak()->line).width / 2 * canvas.zoom());
    pull(side.toPoint(), (side + across * 5 * canvas.zoom()).toPoint());
    CHECK(std::abs(streak()->line.width_px - before - 5) < 1);
    // Typed, and named.
    auto* width = w.find<QDoubleSpinBox>("streak_width");
    width->setFocus();
    width->selectAll();
    QTest::keyClicks(width, QStringLiteral("6"));
    QTest::keyClick(width, Qt::Key_Return);
    CHECK(streak()->line.width_px == 6);
    auto* kind = w.find<QComboBox>("streak_kind");
    kind->setFocus();
    QTest::keyClick(kind, Qt::Key_Home);
    let_pass();
    CHECK(streak()->kind == StreakKind::aircraft);
    CHECK(w.find<QPushButton>("streaks_aircraft")->isVisible());
    // Taken in again by its kind, chosen on the picture, forgotten, and all undone.
    w.click("streaks_aircraft");
    CHECK_FALSE(streak()->left_out);
    CHECK(find_frame(w.pile(), third)->silence.empty());
    w.click("streak_remove");
    CHECK(streak() == nullptr);
    CHECK_FALSE(w.find<QPushButton>("streak_remove")->isVisible());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    REQUIRE(streak());
    CHECK_FALSE(w.find<QPushButton>("streak_remove")->isVisible());
    click(30, 27);
    CHECK(w.find<QPushButton>("streak_remove")->isVisible());
    while (w.studio().document().can_undo()) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(all_streaks(w.pile()).empty());
    // Escape leaves the drawing, first click and all; the brush and the shapes take its place.
    w.click("streaks_draw");
    click(10, 10);
    QTest::keyClick(&canvas, Qt::Key_Escape);
    CHECK_FALSE(w.find<QPushButton>("streaks_draw")->isChecked());
    click(60, 30);
    CHECK(all_streaks(w.pile()).empty());
    w.click("streaks_draw");
    w.click("left_out_ellipse");
    CHECK_FALSE(w.find<QPushButton>("streaks_draw")->isChecked());
    w.click("streaks_draw");
    CHECK_FALSE(w.find<QPushButton>("left_out_ellipse")->isChecked());
    w.click("left_out_brush_keep");
    CHECK_FALSE(w.find<QPushButton>("streaks_draw")->isChecked());
    w.click("left_out_brush_keep");
    // By keys: the mark is walked, and Enter clicks.
    w.click("streaks_draw");
    canvas.setFocus();
    w.walk({10, 10}, {10, 12});
    QTest::keyClick(&canvas, Qt::Key_Return);
    w.walk({10, 12}, {40, 40});
    QTest::keyClick(&canvas, Qt::Key_Return);
    CHECK(all_streaks(w.pile()).size() == 1);
}

TEST_CASE("origins tell the frame under the pointer, and a click or Enter goes to it", "[window]") {
    Merging w(6, "page_mode");
    w.click("mode_maximum");
    w.key(Qt::Key_5);
    REQUIRE(w.settle());
    CHECK(w.window.viewer().view() == app::View::origins);
    app::Canvas& canvas = w.window.canvas();
    const auto over = [&](int frame) { return QPointF(6 * frame + 3.5, 24.5); };
    w.move_over_canvas(over(3));
    CHECK(canvas.readout().contains(QStringLiteral("from frame 4")));
    QTest::mouseClick(&canvas, Qt::LeftButton, Qt::NoModifier, canvas.to_screen(over(3)).toPoint());
    let_pass();
    CHECK(w.studio().current() == w.pile().frames[3].id);
    // What comes from it has a colour of its own, the rest is grey.
    REQUIRE(w.settle());
    const auto colour = w.window.viewer().colour_at(6 * 3 + 3, 24);
    REQUIRE(colour);
    CHECK(colour->saturation() > 60);
    CHECK(w.window.viewer().colour_at(6 * 1 + 3, 24)->saturation() < 10);
    CHECK(w.window.viewer().view() == app::View::origins);
    // The frame under the pointer is marked on the rail; choosing one there is seen here; a drag moves the picture
    // alone.
    auto& rail = *w.find<app::TimeRail>("time_rail");
    w.move_over_canvas(over(1));
    CHECK(rail.pointed_at() == w.pile().frames[1].id);
    const QPoint slat = rail.slat_of(w.pile().frames[2].id).center().toPoint();
    QTest::mouseClick(&rail, Qt::LeftButton, Qt::NoModifier, slat);
    CHECK(w.studio().current() == w.pile().frames[2].id);
    CHECK(w.window.viewer().view() == app::View::origins);
    REQUIRE(w.settle());
    w.stroke({over(4), over(4) + QPointF(6, 6)});
    CHECK(w.studio().current() == w.pile().frames[2].id);
    canvas.fit();
    w.move_over_canvas(over(3));
    // By keys: the mark is walked there.
    canvas.setFocus();
    w.walk(over(3), over(5));
    w.key(Qt::Key_Return);
    CHECK(w.studio().current() == w.pile().frames[5].id);
    // A median of six lies between two; means come from all.
    w.click("mode_median");
    REQUIRE(w.settle());
    w.move_over_canvas({60.5, 4.5});
    CHECK(canvas.readout().contains(QStringLiteral("frame")));
    w.click("mode_mean");
    REQUIRE(w.settle());
    w.move_over_canvas(over(2));
    CHECK(canvas.readout().contains(QStringLiteral("all frames together")));
    w.click("view_0");
    CHECK_FALSE(w.window.viewer().origin_at(5, 24).has_value());
}
