// The Even step, used as a person uses it.
#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QSpinBox>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/canvas/clipping.h"
#include "app/panels/tone_panel.h"
#include "pile/edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Frames of one scene, each with its own gain of linear light.
void write_lit(const Folder& folder, const std::vector<double>& gains) {
    for (std::size_t i = 0; i < gains.size(); ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              lit(landscape({320, 240}, {}, unsigned(i), 0.005), gains[i] * 0.6));
}

void open_even(Window& w, const Folder& folder) {
    REQUIRE(w.open(folder));
    w.click("knot_1");
}

QColor middle_of(Window& w) {
    return w.window.viewer().colour_at(160, 120).value_or(QColor());
}

}  // namespace

TEST_CASE("frames are levelled by a click, a level is overruled by a slider, and all of it undone", "[window]") {
    const Folder folder;
    write_lit(folder, {1, 1.25, 0.8});
    Window w;
    open_even(w, folder);
    w.click("level_light");
    REQUIRE(w.settle());
    REQUIRE(w.pile().levelling == Levelling::light);
    CHECK(w.pile().frames[1].gains->gain[0] == Approx(1 / 1.25).epsilon(0.005));
    CHECK(w.pile().frames[2].gains->gain[1] == Approx(1 / 0.8).epsilon(0.005));
    w.studio().select(w.pile().frames[1].id);
    auto* own = w.find<QSlider>("own_level");
    CHECK(own->isVisible());
    CHECK(own->value() == -32);
    QTest::keyClick(own, Qt::Key_Right);
    CHECK(w.pile().frames[1].gains->by_person);
    CHECK(w.pile().frames[1].gains->gain[0] == Approx(std::exp2(-0.31)).epsilon(0.001));
    w.studio().document().undo();
    w.studio().document().undo();
    CHECK(w.pile().levelling == Levelling::off);
    CHECK_FALSE(w.find<QSlider>("own_level")->isVisible());
}

TEST_CASE("a look is set for all frames or added to the selection, seen at once, copied and taken back", "[window]") {
    const Folder folder;
    write_lit(folder, {1, 1, 1});
    Window w;
    open_even(w, folder);
    w.window.viewer().set_view(app::View::frame);
    REQUIRE(w.settle());
    const QColor before = middle_of(w);
    auto* exposure = w.find<QSlider>("look_exposure_ev");
    for (int i = 0; i < 10; ++i) QTest::keyClick(exposure, Qt::Key_Right);
    REQUIRE(w.settle());
    CHECK(w.pile().look.exposure_ev == Approx(0.5));
    // Ten presses that follow each other are one step.
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().look == Look{});
    CHECK_FALSE(w.studio().document().can_undo());
    w.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(w.settle());
    CHECK(middle_of(w).lightness() > before.lightness() + 5);
    const auto ids = std::vector{w.pile().frames[0].id, w.pile().frames[1].id, w.pile().frames[2].id};
    w.studio().select(ids[0]);
    w.click("look_of_selection");
    CHECK(exposure->value() == 0);
    auto* strength = w.find<QSlider>("look_colour_strength");
    QTest::keyClick(strength, Qt::Key_Left);
    CHECK(w.pile().frames[0].look.colour_strength == -1);
    CHECK(w.pile().frames[1].look == Look{});
    w.studio().select(ids[2], true);
    w.studio().select_these({ids[0], ids[1]});
    w.click("look_copy");
    CHECK(w.pile().frames[1].look.colour_strength == -1);
    CHECK(w.pile().frames[2].look == Look{});
    w.click("look_of_all");
    w.click("look_reset");
    CHECK(w.pile().look == Look{});
    w.studio().document().undo();
    CHECK(w.pile().look.exposure_ev == Approx(0.5));
}

TEST_CASE("the knots of the tone ribbon are dragged, typed, taken back and left", "[window]") {
    const Folder folder;
    write_lit(folder, {1, 1});
    Window w;
    open_even(w, folder);
    auto* ribbon = w.find<app::ToneRibbon>("tone_ribbon");
    using Knot = app::ToneRibbon::Knot;
    const auto drag = [&](Knot knot, QPoint by, bool let_go = true) {
        const QPoint from = ribbon->place_of(knot).toPoint();
        QTest::mousePress(ribbon, Qt::LeftButton, Qt::NoModifier, from);
        for (const int part : {1, 2}) {
            const QPointF at = from + by * part / 2;
            QMouseEvent move(QEvent::MouseMove, at, ribbon->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(ribbon, &move);
        }
        if (let_go) QTest::mouseRelease(ribbon, Qt::LeftButton, Qt::NoModifier, from + by);
    };
    const QPointF before = ribbon->place_of(Knot::middle);
    drag(Knot::middle, {0, -20});
    CHECK(w.pile().look.middle > 10);
    CHECK(ribbon->place_of(Knot::middle).y() < before.y() - 3);
    drag(Knot::deep, {0, 15});
    CHECK(w.pile().look.deep < -10);
    drag(Knot::floor, {20, 0});
    CHECK(w.pile().look.floor > 5);
    drag(Knot::peak, {-20, 0});
    CHECK(w.pile().look.peak > 5);
    drag(Knot::bright, {0, -10});
    CHECK(w.pile().look.bright > 5);
    const Look pulled = w.pile().look;

    // While a knot is in the hand what is clipped is seen, and Escape gives the drag up.
    CHECK_FALSE(w.window.canvas().shows_clipping());
    drag(Knot::middle, {0, 30}, false);
    CHECK(w.window.canvas().shows_clipping());
    CHECK(w.window.viewer().trying());
    w.key(Qt::Key_Escape);
    CHECK_FALSE(w.window.canvas().shows_clipping());
    CHECK_FALSE(w.window.viewer().trying());
    QTest::mouseRelease(ribbon, Qt::LeftButton, Qt::NoModifier, QPoint(5, 5));
    CHECK(w.pile().look == pulled);

    // The numbers below say and set the same.
    auto* number = w.find<QSpinBox>("look_middle");
    CHECK(number->value() == int(pulled.middle));
    w.click(number);
    number->selectAll();
    QTest::keyClicks(number, "-35");
    QTest::keyClick(number, Qt::Key_Return);
    CHECK(w.pile().look.middle == -35);
    QTest::keyClick(number, Qt::Key_Up);
    CHECK(w.pile().look.middle == -34);
    QTest::mouseDClick(ribbon, Qt::LeftButton, Qt::NoModifier, ribbon->place_of(Knot::middle).toPoint());
    CHECK(w.pile().look.middle == 0);
    CHECK(w.pile().look.deep == pulled.deep);
}

TEST_CASE("the cast of light and one range of hues are set on their fields", "[window]") {
    const Folder folder;
    write_lit(folder, {1, 1});
    Window w;
    open_even(w, folder);
    const auto drag = [&](QWidget* pad, QPointF from, QPointF to) {
        w.click("look_of_all");
        QTest::mousePress(pad, Qt::LeftButton, Qt::NoModifier, from.toPoint());
        QMouseEvent move(QEvent::MouseMove, to, pad->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(pad, &move);
        QTest::mouseRelease(pad, Qt::LeftButton, Qt::NoModifier, to.toPoint());
    };
    auto* cast = w.find<app::CastPad>("cast_pad");
    drag(cast, cast->knot(), cast->knot() + QPointF(20, 10));
    CHECK(w.pile().look.warmth > 20);
    CHECK(w.pile().look.green_to_magenta < -10);
    auto* ring = w.find<app::HueRing>("hue_ring");
    const QPointF middle(ring->width() / 2.0, ring->height() / 2.0);
    drag(ring, ring->range_knot(), middle + QPointF(0, -45));
    CHECK(w.pile().look.hue_at == Approx(90).margin(3));
    const QPointF turn = ring->turn_knot();
    drag(ring, turn, turn + QPointF(-15, 2));
    CHECK(w.pile().look.hue_turn > 10);
    w.find<QSpinBox>("look_hue_turn");
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().look.hue_turn == 0);
}

TEST_CASE("what is clipped is hatched in two directions", "[window]") {
    QImage picture(12, 12, QImage::Format_RGB32);
    picture.fill(QColor(100, 100, 100));
    CHECK(app::clipping_of(picture, Qt::red).pixelColor(0, 0).alpha() == 0);
    picture.fill(QColor(255, 20, 20));
    const QImage white = app::clipping_of(picture, Qt::red);
    picture.fill(Qt::black);
    const QImage black = app::clipping_of(picture, Qt::red);
    for (int i = 0; i < 5; ++i) {
        CHECK(white.pixelColor(i, 6 - i).alpha() == 255);
        CHECK(black.pixelColor(i, i).alpha() == 255);
    }
    CHECK(white != black);
    const Folder folder;
    write_lit(folder, {1, 1});
    Window w;
    open_even(w, folder);
    w.click("show_clipping");
    CHECK(w.window.canvas().shows_clipping());
    // It is of this step: the next one has no box to take it away with.
    w.key(Qt::Key_4, Qt::ControlModifier);
    CHECK_FALSE(w.window.canvas().shows_clipping());
    w.key(Qt::Key_6, Qt::ControlModifier);
    w.key(Qt::Key_2, Qt::ControlModifier);
    CHECK(w.find<QCheckBox>("show_clipping")->isChecked());
    CHECK(w.window.canvas().shows_clipping());
}

TEST_CASE("hot pixels are mended and left again by one click", "[window]") {
    const Folder folder;
    for (int i = 0; i < 5; ++i) {
        Raster16 picture = landscape({320, 240}, {}, unsigned(i), 0.004);
        for (int c = 0; c < 3; ++c) picture.at(77, 55, c) = 65535;
        write(folder / ("f" + std::to_string(i + 1) + ".tif"), picture, 16);
    }
    Window w;
    open_even(w, folder);
    w.click("page_sensor");
    auto* hot = w.find<QCheckBox>("hot_pixels");
    w.click(hot);
    REQUIRE(w.settle());
    REQUIRE(w.pile().hot);
    CHECK(*w.pile().hot == HotPixels{{77, 55}});
    CHECK(hot->isChecked());
    w.click(hot);
    CHECK_FALSE(w.pile().hot);
    w.studio().document().undo();
    CHECK(w.pile().hot);
}

TEST_CASE("grey frames have no colour to set", "[window]") {
    const Folder folder;
    for (int i = 0; i < 2; ++i)
        write(folder / ("f" + std::to_string(i) + ".tif"), speckle({120, 90}, 1, unsigned(i)), 16);
    Window w;
    open_even(w, folder);
    CHECK(w.find<QSlider>("look_contrast")->isEnabled());
    CHECK(w.find<QSlider>("look_contrast")->isVisible());
    CHECK_FALSE(w.find<QWidget>("cast_pad")->isVisible());
    CHECK_FALSE(w.find<QSlider>("look_colour_strength")->isVisible());
}

TEST_CASE("a sensor spot is marked by a click, given back by another, and suggested", "[window]") {
    const Folder folder;
    for (int i = 0; i < 6; ++i)
        write(
            folder / ("f" + std::to_string(i + 1) + ".tif"),
            spotted(landscape({320, 240}, Matrix::shift(23.0 * i, 9.0 * i), unsigned(i), 0.004), {200, 100}, 7, 0.75));
    Window w;
    open_even(w, folder);
    w.click("page_sensor");
    w.click("spots_mark");
    CHECK(w.window.viewer().view() == app::View::frame);
    w.slide("spot_size", 20);
    w.stroke({{200, 100}});
    REQUIRE(w.settle());
    REQUIRE(w.pile().spots);
    CHECK(w.pile().spots->front().at.x == Approx(200).margin(1));
    CHECK(w.pile().spots->front().radius_px == Approx(10));
    CHECK(w.pile().spots->front().passes->at(w.pile().spots->front().area.width / 2,
                                             w.pile().spots->front().area.height / 2, 0) < 55000);
    w.stroke({{202, 101}});
    CHECK(w.pile().spots == nullptr);
    w.click("spots_suggest");
    REQUIRE(w.settle());
    REQUIRE(!w.studio().spot_guesses().empty());
    const Point guess = w.studio().spot_guesses().front().at;
    CHECK(std::hypot(guess.x - 200, guess.y - 100) < 4);
    w.window.canvas().setFocus();
    w.walk({202, 101}, {guess.x, guess.y});  // from where the pointer was left
    w.key(Qt::Key_Return);
    REQUIRE(w.settle());
    REQUIRE(w.pile().spots);
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK(w.pile().spots == nullptr);
    w.click("page_light");
    CHECK_FALSE(w.find<QPushButton>("spots_mark")->isChecked());
}

TEST_CASE("suspected spots are listed, shown, mended one by one or together, and given back", "[window]") {
    const Folder folder;
    for (int i = 0; i < 6; ++i) {
        Raster16 scene = landscape({320, 240}, Matrix::shift(23.0 * i, 9.0 * i), unsigned(i), 0.004);
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              spotted(spotted(std::move(scene), {200, 100}, 7, 0.75), {100, 100}, 7, 0.6));
    }
    Window w;
    open_even(w, folder);
    w.click("page_sensor");
    auto* list = w.find<QListWidget>("spots");
    CHECK_FALSE(list->isVisible());
    w.click("spots_suggest");
    REQUIRE(w.settle());
    REQUIRE(list->count() >= 2);
    REQUIRE(list->isVisible());
    const int count = list->count();
    const auto tick = [&](int row) {
        list->scrollToItem(list->item(row));
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {},
                          list->visualItemRect(list->item(row)).topLeft() + QPoint(10, 12));
        REQUIRE(w.settle());
    };
    const auto mended = [&] { return w.pile().spots ? w.pile().spots->size() : 0; };
    // Choosing one brings it before the eyes.
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(0)).center());
    REQUIRE(w.settle());
    CHECK(w.window.viewer().view() == app::View::frame);
    CHECK(w.window.canvas().zoom() >= 1);
    const auto guesses = w.studio().spot_guesses();
    const Point first = std::min_element(guesses.begin(), guesses.end(), [](const auto& a, const auto& b) {
                            return a.at.x < b.at.x;
                        })->at;
    const QPointF seen = w.window.canvas().to_screen({first.x + 0.5, first.y + 0.5});
    CHECK(w.window.canvas().rect().contains(seen.toPoint()));
    CHECK(mended() == 0);
    tick(0);
    REQUIRE(mended() == 1);
    CHECK(std::hypot(w.pile().spots->front().at.x - first.x, w.pile().spots->front().at.y - first.y) < 1);
    CHECK(list->count() == count);
    CHECK(list->item(0)->checkState() == Qt::Checked);
    tick(0);
    CHECK(mended() == 0);
    CHECK(list->count() == count);
    // One after the other without waiting: none is given up for the next.
    for (int row = 0; row < count; ++row)
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {},
                          list->visualItemRect(list->item(row)).topLeft() + QPoint(10, 12));
    REQUIRE(w.settle());
    CHECK(int(mended()) == count);
    while (mended() > 0) w.key(Qt::Key_Z, Qt::ControlModifier);
    w.click("take_all_spots");
    REQUIRE(w.settle());
    CHECK(int(mended()) == count);
    CHECK_FALSE(w.find<QPushButton>("take_all_spots")->isEnabled());
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(mended() == 0);
}

TEST_CASE("darks are subtracted, and one that does not fit is said", "[window]") {
    const Folder folder;
    CaptureData capture;
    capture.exposure_s = 8;
    capture.iso = 400;
    for (int i = 0; i < 3; ++i)
        write(folder / ("f" + std::to_string(i + 1) + ".tif"), landscape({320, 240}, {}, unsigned(i), 0.01), 16, {},
              capture);
    fs::create_directories(folder / "darks");
    Raster16 dark({320, 240}, 3);
    std::fill(dark.data().begin(), dark.data().end(), std::uint16_t(5000));
    capture.exposure_s = 2;
    write(folder / "darks/d1.tif", dark, 16, {}, capture);
    Window w;
    open_even(w, folder);
    w.click("page_sensor");
    auto* darks = w.find<QCheckBox>("darks");
    REQUIRE(darks->isEnabled());
    CHECK(darks->text().contains(QLatin1String("(1)")));
    w.click(darks);
    CHECK(w.pile().darks == Darks::on);
    CHECK(w.find<QLabel>("useless_darks")->text().contains(QLatin1String("exposed for 2 s, the frames for 8 s")));
    w.click("darks_scaled");
    CHECK(w.pile().darks == Darks::scaled);
    CHECK_FALSE(w.find<QLabel>("useless_darks")->isVisible());
    w.studio().document().undo();
    w.studio().document().undo();
    CHECK(w.pile().darks == Darks::off);
}
