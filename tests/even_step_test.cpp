// The Even step, used as a person uses it.
#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/clipping.h"
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
    QTest::mouseClick(w.find<QWidget>("knot_1"), Qt::LeftButton);
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
    CHECK(w.pile().frames[1].level->gain[0] == Approx(1 / 1.25).epsilon(0.005));
    CHECK(w.pile().frames[2].level->gain[1] == Approx(1 / 0.8).epsilon(0.005));
    w.studio().select(w.pile().frames[1].id);
    auto* own = w.find<QSlider>("own_level");
    CHECK(own->isVisible());
    CHECK(own->value() == -32);
    QTest::keyClick(own, Qt::Key_Right);
    CHECK(w.pile().frames[1].level->by_person);
    CHECK(w.pile().frames[1].level->gain[0] == Approx(std::exp2(-0.31)).epsilon(0.001));
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
    CHECK(middle_of(w).lightness() > before.lightness() + 5);
    const auto ids = std::vector{w.pile().frames[0].id, w.pile().frames[1].id, w.pile().frames[2].id};
    w.studio().select(ids[0]);
    w.click("look_of_selection");
    CHECK(exposure->value() == 0);
    auto* saturation = w.find<QSlider>("look_saturation");
    QTest::keyClick(saturation, Qt::Key_Left);
    CHECK(w.pile().frames[0].look.saturation == -1);
    CHECK(w.pile().frames[1].look == Look{});
    w.studio().select(ids[2], true);
    w.studio().select_these({ids[0], ids[1]});
    w.click("look_copy");
    CHECK(w.pile().frames[1].look.saturation == -1);
    CHECK(w.pile().frames[2].look == Look{});
    w.click("look_of_all");
    w.click("look_reset");
    CHECK(w.pile().look == Look{});
    w.studio().document().undo();
    CHECK(w.pile().look.exposure_ev == Approx(0.5));
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
    w.find<QCheckBox>("show_clipping")->setChecked(true);
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
    hot->click();
    REQUIRE(w.settle());
    REQUIRE(w.pile().hot);
    CHECK(*w.pile().hot == HotPixels{{77, 55}});
    CHECK(hot->isChecked());
    hot->click();
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
    CHECK_FALSE(w.find<QSlider>("look_tint")->isEnabled());
    CHECK_FALSE(w.find<QSlider>("look_saturation")->isEnabled());
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
    w.find<QPushButton>("spots_mark")->click();
    CHECK(w.window.viewer().view() == app::View::frame);
    w.find<QSlider>("spot_size")->setValue(20);
    w.stroke({{200, 100}});
    REQUIRE(w.settle());
    REQUIRE(w.pile().spots);
    CHECK(w.pile().spots->front().at.x == Approx(200).margin(1));
    CHECK(w.pile().spots->front().radius_px == Approx(10));
    CHECK(w.pile().spots->front().passes->at(w.pile().spots->front().area.width / 2,
                                             w.pile().spots->front().area.height / 2, 0) < 55000);
    w.stroke({{202, 101}});
    CHECK(w.pile().spots == nullptr);
    w.find<QPushButton>("spots_suggest")->click();
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
    darks->click();
    CHECK(w.pile().darks == Darks::on);
    CHECK(w.find<QLabel>("useless_darks")->text().contains(QLatin1String("exposed for 2 s, the frames for 8 s")));
    w.find<QCheckBox>("darks_scaled")->click();
    CHECK(w.pile().darks == Darks::scaled);
    CHECK_FALSE(w.find<QLabel>("useless_darks")->isVisible());
    w.studio().document().undo();
    w.studio().document().undo();
    CHECK(w.pile().darks == Darks::off);
}
