// Finishing in the window: tone, curve, colours, places, detail, crop, and finish files.
#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSlider>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/panels/colour_pads.h"
#include "app/panels/curve_pad.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_edits.h"
#include "pile/finish_file.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void some_frames(const Folder& folder) {
    write_moving(folder, 2, {320, 240}, {0, 0});
}

void open_finish(Window& w) {
    w.key(Qt::Key_6, Qt::ControlModifier);
    let_pass();
}

// The green of what the window shows at a place.
int shown_at(Window& w, int x, int y) {
    REQUIRE(w.settle());
    const auto colour = w.window.viewer().colour_at(x, y);
    REQUIRE(colour.has_value());
    return colour->green();
}

}  // namespace

TEST_CASE("tone of the picture shows at once, and undo takes them back", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    const int before = shown_at(w, 100, 100);
    const std::uint16_t exact = w.result_at(100, 100);
    open_finish(w);
    w.slide("finish_look_exposure_ev", -20);
    CHECK(w.pile().finish.look.exposure_ev == Approx(-1));
    CHECK(shown_at(w, 100, 100) < before - 20);
    CHECK(w.result_at(100, 100) < exact);
    // The frames' own look is another thing.
    CHECK(w.pile().look == Look{});
    CHECK(w.find<QWidget>("knot_5")->accessibleDescription().contains(QStringLiteral("tone")));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish.look == Look{});
    CHECK(shown_at(w, 100, 100) == before);
    CHECK(w.result_at(100, 100) == exact);
}

TEST_CASE("a curve is pulled by the mouse and by keys, of brightness and of one channel", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    const int before = shown_at(w, 100, 100);
    open_finish(w);
    w.click("page_finish_curve");
    auto* pad = w.find<app::CurvePad>("curve_pad");
    const QPoint middle = pad->place_of({0.5, 0.5}).toPoint();
    QTest::mousePress(pad, Qt::LeftButton, Qt::NoModifier, middle);
    const QPointF up = pad->place_of({0.5, 0.8});
    QMouseEvent move(QEvent::MouseMove, up, pad->mapToGlobal(up), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(pad, &move);
    CHECK(w.window.viewer().trying());
    CHECK(w.pile().finish.curves == Curves{});
    QTest::mouseRelease(pad, Qt::LeftButton, Qt::NoModifier, up.toPoint());
    REQUIRE(w.pile().finish.curves.brightness.points.size() == 1);
    CHECK(w.pile().finish.curves.brightness.points[0].y == Approx(0.8).margin(0.02));
    CHECK(shown_at(w, 100, 100) > before + 10);
    // Away from the line a click means nothing.
    QTest::mouseClick(pad, Qt::LeftButton, Qt::NoModifier, pad->place_of({0.9, 0.1}).toPoint());
    CHECK(w.pile().finish.curves.brightness.points.size() == 1);
    // Blue by keys alone.
    w.click("curve_blue");
    w.tab_to("curve_pad");
    w.key(Qt::Key_Insert);
    w.key(Qt::Key_Down, Qt::ShiftModifier);
    REQUIRE(w.pile().finish.curves.blue.points.size() == 1);
    CHECK(w.pile().finish.curves.blue.points[0].y == Approx(0.45));
    CHECK(w.pile().finish.curves.brightness.points.size() == 1);
    w.key(Qt::Key_Delete);
    CHECK(w.pile().finish.curves.blue.points.empty());
    // The key has a use of its own there: no frame is gone, with a point chosen or without.
    w.key(Qt::Key_Delete);
    CHECK(w.pile().frames.size() == 2);
    w.click("curve_brightness");
    w.click("curve_reset");
    CHECK(w.pile().finish.curves == Curves{});
    // Escape gives up a drag.
    QTest::mousePress(pad, Qt::LeftButton, Qt::NoModifier, middle);
    QApplication::sendEvent(pad, &move);
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.window.viewer().trying());
    QTest::mouseRelease(pad, Qt::LeftButton, Qt::NoModifier, middle);
    CHECK(w.pile().finish.curves == Curves{});
}

TEST_CASE("ranges of colours are added, changed and removed; dark and bright tones get their colours", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    open_finish(w);
    w.click("page_finish_colour");
    CHECK_FALSE(w.find<QSlider>("range_strength")->isVisible());
    w.click("range_add");
    // A drag on the ring is given up by Escape, and nothing comes of letting go.
    auto* ring = w.find<app::HueRing>("range_ring");
    const Finish before = w.pile().finish;
    QTest::mousePress(ring, Qt::LeftButton, Qt::NoModifier, ring->range_knot().toPoint());
    const QPointF away(ring->width() / 2.0, 4);
    QMouseEvent turn(QEvent::MouseMove, away, ring->mapToGlobal(away), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(ring, &turn);
    CHECK(w.window.viewer().trying());
    w.key(Qt::Key_Escape);
    QTest::mouseRelease(ring, Qt::LeftButton, Qt::NoModifier, away.toPoint());
    CHECK_FALSE(w.window.viewer().trying());
    CHECK(w.pile().finish == before);
    w.slide("range_strength", -60);
    w.click("range_add");
    w.slide("range_brightness", 50);
    REQUIRE(w.pile().finish.colours.size() == 2);
    CHECK(w.pile().finish.colours[0].strength == -60);
    CHECK(w.pile().finish.colours[1].brightness == 50);
    CHECK(w.pile().finish.colours[0].hue_at != w.pile().finish.colours[1].hue_at);
    w.pick("range_which", 0);
    CHECK(w.find<QSlider>("range_strength")->value() == -60);
    w.click("range_remove");
    REQUIRE(w.pile().finish.colours.size() == 1);
    CHECK(w.pile().finish.colours[0].brightness == 50);
    w.slide("tint_dark", 40);
    w.slide("tint_dark_hue", 240);
    CHECK(w.pile().finish.tints.dark_strength == 40);
    CHECK(w.pile().finish.tints.dark_hue == 240);
    for (int i = 0; i < 7; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish == Finish{});
}

TEST_CASE("places: a ramp drawn and pulled, an ellipse, a brush, what is alike; order, copy, off", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    open_finish(w);
    w.click("page_finish_places");
    w.click("place_ramp");
    w.stroke({{160, 40}, {160, 100}, {160, 200}});
    REQUIRE(w.pile().finish.places.size() == 1);
    CHECK_FALSE(w.find<QPushButton>("place_ramp")->isChecked());
    const FinishPlace ramp = w.pile().finish.places[0];
    REQUIRE(ramp.shape.has_value());
    CHECK(ramp.shape->from.y == Approx(39.5).margin(1));
    const std::uint16_t top = w.result_at(100, 10), bottom = w.result_at(100, 230);
    w.slide("place_look_exposure_ev", -40);
    CHECK(w.result_at(100, 10) < top / 2 + 6000);
    CHECK(w.result_at(100, 230) == bottom);
    // By its knot it is pulled upwards: the middle becomes as it was.
    const std::uint16_t middle = w.result_at(100, 120);
    w.stroke({{160, 200}, {160, 150}, {160, 60}});
    CHECK(w.pile().finish.places[0].shape->to.y == Approx(59.5).margin(1.5));
    CHECK(w.result_at(100, 120) > middle);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish.places[0].shape == ramp.shape);

    w.click("place_ellipse");
    w.stroke({{200, 100}, {240, 140}, {280, 180}});
    REQUIRE(w.pile().finish.places.size() == 2);
    w.click("place_area");
    w.slide("place_soft", 0);
    CHECK(w.pile().finish.places[1].soft == 0);
    // Painting makes a mask of it.
    w.click("place_paint_keep");
    w.stroke({{40, 120}, {60, 120}});
    CHECK_FALSE(w.pile().finish.places[1].shape.has_value());
    CHECK(w.pile().finish.places[1].mask.at(50, 120) > 200);
    CHECK(w.pile().finish.places[1].mask.at(240, 140) == 255);
    // Each place has steps of its own in the history, though one slider sets both.
    auto* all = w.find<QListWidget>("places_list");
    const int ellipse = w.pile().finish.places[1].id;
    w.slide("place_strength", 60);
    QTest::mouseClick(all->viewport(), Qt::LeftButton, Qt::NoModifier, all->visualItemRect(all->item(0)).center());
    let_pass();
    w.slide("place_strength", 30);
    CHECK(w.pile().finish.places[0].strength == Approx(0.3));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish.places[0].strength == 1);
    CHECK(w.pile().finish.places[1].strength == Approx(0.6));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish.places[1].strength == 1);
    QTest::mouseClick(all->viewport(), Qt::LeftButton, Qt::NoModifier, all->visualItemRect(all->item(1)).center());
    let_pass();
    REQUIRE(w.pile().finish.places[1].id == ellipse);
    w.click("place_copy");
    REQUIRE(w.pile().finish.places.size() == 3);
    const int copy = w.pile().finish.places[2].id;
    w.click("place_earlier");
    w.click("place_earlier");
    CHECK(w.pile().finish.places[0].id == copy);
    // A name counts letter by letter, and is one step.
    auto* name = w.find<QLineEdit>("place_name");
    w.click(name);
    QTest::keyClicks(name, QStringLiteral("Pier"));
    CHECK(w.pile().finish.places[0].name == "Pier");
    CHECK(all->item(0)->text() == QStringLiteral("Pier"));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish.places[0].name.empty());
    w.find<QListWidget>("places_list")->setFocus();
    w.key(Qt::Key_Delete);
    CHECK(w.pile().finish.places.size() == 2);
    CHECK(w.pile().frames.size() == 2);
    // The tick takes a place out of the picture.
    auto* list = w.find<QListWidget>("places_list");
    const QRect row = list->visualItemRect(list->item(0));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, {row.left() + 14, row.center().y()});
    let_pass();
    CHECK_FALSE(w.pile().finish.places[0].on);
    CHECK(w.result_at(100, 10) == top);

    w.click("place_brush");
    REQUIRE(w.pile().finish.places.size() == 3);
    CHECK(w.window.canvas().painting());
    w.stroke({{100, 60}, {140, 60}});
    CHECK(w.pile().finish.places[2].mask.at(120, 60) > 200);
    CHECK_FALSE(w.find<QSlider>("place_reach")->isVisible());
    w.click("place_like");
    w.slide("place_reach", 20);
    w.click("place_everywhere");
    w.stroke({{20, 220}});
    REQUIRE(w.quiet());
    REQUIRE(w.pile().finish.places.size() == 4);
    CHECK(w.pile().finish.places[3].mask.at(20, 220) > 128);
    // No sky and no land where there are no zones.
    CHECK_FALSE(w.find<QPushButton>("place_sky")->isVisible());
}

TEST_CASE("detail and edges are set, seen before and after, and taken away together", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    const int corner = shown_at(w, 2, 2);
    open_finish(w);
    w.click("page_finish_detail");
    w.slide("detail_sharpen", 120);
    w.slide("detail_local", 40);
    w.slide("detail_smooth", 30);
    w.slide("shade_stops", -20);
    CHECK(w.pile().finish.detail.sharpen == 120);
    CHECK(w.pile().finish.detail.local == 40);
    CHECK(w.pile().finish.edges.stops == Approx(-2));
    const int dark = shown_at(w, 2, 2);
    CHECK(dark < corner - 20);
    // While the key is held, and while the button is.
    w.window.canvas().setFocus();
    QTest::keyPress(w.focus(), Qt::Key_U);
    CHECK(shown_at(w, 2, 2) == corner);
    QTest::keyRelease(w.focus(), Qt::Key_U);
    CHECK(shown_at(w, 2, 2) == dark);
    auto* before = w.find<QPushButton>("finish_before");
    QTest::mousePress(before, Qt::LeftButton);
    CHECK(shown_at(w, 2, 2) == corner);
    QTest::mouseRelease(before, Qt::LeftButton);
    CHECK(shown_at(w, 2, 2) == dark);
    // Beside each other.
    w.click("side_by_side");
    w.pick("second", QStringLiteral("Before finishing"));
    REQUIRE(w.settle());
    app::Viewer& second = w.window.comparison().viewer();
    REQUIRE(wait_for([&] { return second.seen_finely() && !second.busy(); }));
    CHECK(second.colour_at(2, 2)->green() == corner);
    CHECK(shown_at(w, 2, 2) == dark);
    w.click("finish_none");
    CHECK(w.pile().finish == Finish{});
    CHECK_FALSE(before->isEnabled());
}

TEST_CASE("spots and lines are mended by a click and a stroke, moved, switched off and removed", "[window]") {
    const Folder folder;
    // A black spot, and a black wire beside it.
    Raster16 picture = landscape({320, 240}, Matrix());
    for (int y = 0; y < 240; ++y)
        for (int x = 0; x < 320; ++x)
            if (std::hypot(x - 100, y - 100) < 5 || (std::abs(x - 220) < 2 && y > 20 && y < 200))
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 0;
    for (const char* name : {"f1.tif", "f2.tif"}) write(folder / name, picture, 16);
    Window w;
    REQUIRE(w.open(folder));
    open_finish(w);
    w.click("page_finish_mend");
    CHECK(w.result_at(100, 100) == 0);
    w.slide("mend_size", 18);
    w.stroke({{100, 100}});
    REQUIRE(w.quiet());
    REQUIRE(w.pile().finish.mended.size() == 1);
    const std::uint16_t around = w.result_at(115, 100);
    CHECK(w.result_at(100, 100) > around / 2);
    CHECK(w.pile().finish.mended[0].width_px == Approx(18).margin(1));
    w.slide("mend_size", 8);
    w.stroke({{220, 30}, {220, 80}, {220, 130}, {220, 190}});
    REQUIRE(w.pile().finish.mended.size() == 2);
    CHECK(w.pile().finish.mended[1].way.size() > 3);
    CHECK(w.result_at(220, 100) > w.result_at(230, 100) / 2);
    // Pulled away, the spot is there again; undone, it is gone.
    w.stroke({{100, 100}, {120, 110}, {140, 120}});
    CHECK(w.pile().finish.mended[0].way[0].x == Approx(140).margin(2));
    CHECK(w.result_at(100, 100) == 0);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.result_at(100, 100) > around / 2);
    // Mended from elsewhere: its dashed circle is pulled.
    const Mended before = w.pile().finish.mended[0];
    const QPointF source(before.way[0].x + before.from.x, before.way[0].y + before.from.y);
    w.stroke({source, source + QPointF(3, 3), source + QPointF(6, 6)});
    CHECK(w.pile().finish.mended[0].from.x == Approx(before.from.x + 6).margin(1.5));
    CHECK(w.pile().finish.mended[0].way == before.way);
    auto* list = w.find<QListWidget>("mended_list");
    const QRect row = list->visualItemRect(list->item(0));
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, {row.left() + 14, row.center().y()});
    let_pass();
    CHECK(w.result_at(100, 100) == 0);
    w.slide("mend_width", 30);
    CHECK(w.pile().finish.mended[0].width_px == 30);
    list->setFocus();
    w.key(Qt::Key_Delete);
    REQUIRE(w.pile().finish.mended.size() == 1);
    CHECK(w.pile().finish.mended[0].way.size() > 1);
    CHECK(w.pile().frames.size() == 2);
}

TEST_CASE("the crop keeps a ratio while it is pulled and typed, and is the one of Align", "[window]") {
    const Folder folder;
    some_frames(folder);
    Window w;
    REQUIRE(w.open(folder));
    open_finish(w);
    w.click("page_finish_crop");
    CHECK(w.window.viewer().view() == app::View::cover);
    w.pick("finish_crop_ratio", QStringLiteral("1:1"));
    CHECK(w.pile().crop == Rect{40, 0, 240, 240});
    // The right edge pulled to the left: the height follows about its middle.
    w.stroke({{280, 120}, {240, 120}, {200, 120}});
    REQUIRE(w.pile().crop.has_value());
    CHECK(w.pile().crop->width == Approx(160).margin(2));
    CHECK(w.pile().crop->height == w.pile().crop->width);
    CHECK(w.pile().crop->left == 40);
    w.enter("finish_crop_width", 100);
    CHECK(w.pile().crop->height == 100);
    // One of one's own, turned upright, and known the next time.
    auto* ratio = w.find<QComboBox>("finish_crop_ratio");
    w.click(ratio->lineEdit());
    ratio->lineEdit()->selectAll();
    QTest::keyClicks(ratio->lineEdit(), QStringLiteral("65:24"));
    QTest::keyClick(ratio->lineEdit(), Qt::Key_Return);
    CHECK(double(w.pile().crop->width) / w.pile().crop->height == Approx(65.0 / 24).epsilon(0.03));
    w.click("finish_crop_turn");
    CHECK(double(w.pile().crop->height) / w.pile().crop->width == Approx(65.0 / 24).epsilon(0.06));
    CHECK(ratio->findText(QStringLiteral("65:24")) >= 0);
    ratio->lineEdit()->selectAll();
    QTest::keyClicks(ratio->lineEdit(), QStringLiteral("wide"));
    QTest::keyClick(ratio->lineEdit(), Qt::Key_Return);
    CHECK(w.told().contains(QStringLiteral("wide is no ratio")));
    CHECK(ratio->currentText() == QStringLiteral("65:24"));
    const Rect crop = *w.pile().crop;
    w.key(Qt::Key_3, Qt::ControlModifier);
    w.click("page_cover");
    CHECK(w.find<QSpinBox>("crop_left")->value() == crop.left);
    CHECK(w.find<QSpinBox>("crop_height")->value() == crop.height);
    w.enter("crop_left", crop.left + 4);
    open_finish(w);
    CHECK(w.find<QSpinBox>("finish_crop_left")->value() == crop.left + 4);
}

TEST_CASE("a finish is saved, taken into another pile and undone; what is none is told", "[window]") {
    const Folder folder, other;
    some_frames(folder);
    write_moving(other, 2, {200, 160}, {0, 0});
    const fs::path file = other / "evening.finish";
    {
        Window w;
        REQUIRE(w.open(folder));
        open_finish(w);
        CHECK_FALSE(w.find<QPushButton>("finish_save")->isEnabled());
        w.slide("finish_look_contrast", 30);
        {
            const Answering dialog(choose({file}));
            w.click("finish_save");
            REQUIRE(dialog.came());
        }
        REQUIRE(w.quiet());
        REQUIRE(fs::exists(file));
        CHECK(load_finish(file, {320, 240}).value().finish == w.pile().finish);
        REQUIRE(w.save_as(folder / "first.pile"));
    }
    Window w;
    REQUIRE(w.open(other));
    CHECK(w.pile().finish == Finish{});
    open_finish(w);
    {
        const Answering dialog(choose({file}));
        w.click("finish_take");
        REQUIRE(dialog.came());
    }
    REQUIRE(w.quiet());
    CHECK(w.pile().finish.look.contrast == 30);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().finish == Finish{});
    {
        const Answering dialog(choose({folder / "first.pile"}));
        w.click("finish_take");
        REQUIRE(dialog.came());
    }
    REQUIRE(w.quiet());
    CHECK(w.pile().finish.look.contrast == 30);
    {
        const Answering dialog(choose({folder / "f1.tif"}));
        w.click("finish_take");
        REQUIRE(dialog.came());
    }
    REQUIRE(w.quiet());
    CHECK(w.told().contains(QStringLiteral("f1.tif is not a finish file")));
    CHECK(w.pile().finish.look.contrast == 30);
}
