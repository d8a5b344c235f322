// The steps that make frames agree, one after the other in one window, then all of it taken back and done again.
#include <QPushButton>
#include <QSlider>
#include <array>
#include <catch2/catch.hpp>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "engine/cover.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

constexpr Size size{480, 320};
constexpr int frames = 4;

// Frames that move and differ in light, with a spot on the sensor.
void take(const Folder& folder) {
    constexpr std::array<double, frames> light{1, 1.2, 0.85, 1.1};
    for (int i = 0; i < frames; ++i) {
        Raster16 scene = landscape(size, Matrix::shift(2.5 * i, -1.5 * i), unsigned(i), 0.003);
        write(folder / ("f" + std::to_string(i + 1) + ".tif"),
              spotted(lit(std::move(scene), light[std::size_t(i)] * 0.5), {300, 200}, 8, 0.8));
    }
}

std::map<std::string, std::string> bytes_of_all(const Folder& folder) {
    std::map<std::string, std::string> out;
    for (const std::string& name : folder.names()) out[name] = bytes_of(folder / name);
    return out;
}

void go_to(Window& w, const char* knot) {
    w.click(knot);
}

struct Stage {
    std::string what;
    Pile pile;
};

// Does the work of all steps and notes what the pile is after each.
std::vector<Stage> work_through(Window& w) {
    std::vector<Stage> stages;
    const auto done = [&](const std::string& what) {
        REQUIRE(w.settle());
        stages.push_back({what, w.pile()});
    };
    done("as taken");

    go_to(w, "knot_1");
    w.click("level_light");
    done("levelled");
    CHECK(w.pile().levelling == Levelling::light);
    w.studio().select(w.pile().frames[1].id);
    QTest::keyClick(w.find<QSlider>("own_level"), Qt::Key_Right);
    done("a level overruled");
    CHECK(w.pile().frames[1].gains->by_person);
    w.click("page_sensor");
    w.click("spots_mark");
    w.stroke({{300, 200}});
    done("a spot marked");
    CHECK(w.pile().spots);

    go_to(w, "knot_2");
    w.click("align_rigid");
    done("aligned");
    CHECK(placement(w.pile(), w.pile().frames[3]).to_canvas({0, 0}).x == Approx(7.5).margin(0.1));
    w.studio().select(w.pile().frames[2].id);
    w.click("page_hand");
    const Point before = placement(w.pile(), w.pile().frames[2]).to_canvas({0, 0});
    QTest::keyClick(&w.window, Qt::Key_Right, Qt::AltModifier);
    done("nudged");
    CHECK(placement(w.pile(), w.pile().frames[2]).to_canvas({0, 0}).x == Approx(before.x + 1));
    w.click("page_zones");
    w.click("sky_brush_keep");
    Brush brush = w.window.canvas().brush();
    brush.size = 200;
    brush.softness = 0;
    w.window.canvas().set_brush(brush);
    w.stroke({{10, 20}, {470, 20}});
    done("a zone painted");
    CHECK(w.pile().zones);
    w.click("page_cover");
    REQUIRE(w.settle());
    w.click("crop_full");
    done("cropped to the cover");
    CHECK(*w.pile().crop == full_cover(w.pile()));

    go_to(w, "knot_3");
    w.click("merge_on_sky");
    w.click("mode_mean");
    done("merged by the mean");
    CHECK(w.pile().methods.sky.mode == Mode::mean);
    return stages;
}

}  // namespace

TEST_CASE("all that was done from levelling to cropping is undone step by step and done again", "[window]") {
    const Folder folder;
    take(folder);
    const auto originals = bytes_of_all(folder);
    Window w;
    REQUIRE(w.open(folder));
    const Result<Raster16> as_taken = render_all(w.pile());
    REQUIRE(as_taken.ok());
    const std::vector<Stage> stages = work_through(w);
    REQUIRE(stages.size() >= 9);
    const Result<Raster16> at_last = render_all(w.pile());
    REQUIRE(at_last.ok());
    CHECK_FALSE(difference(as_taken.value(), at_last.value()).empty());

    app::Document& document = w.studio().document();
    for (std::size_t i = stages.size(); i-- > 1;) {
        INFO("taken back: " << stages[i].what);
        CHECK(w.pile() == stages[i].pile);
        REQUIRE(document.can_undo());
        CHECK_FALSE(document.undo_text().isEmpty());
        w.window.setFocus();
        QTest::keyClick(&w.window, Qt::Key_Z, Qt::ControlModifier);
        CHECK(w.pile() == stages[i - 1].pile);
    }
    CHECK_FALSE(document.can_undo());
    REQUIRE(w.settle());
    const Result<Raster16> again = render_all(w.pile());
    REQUIRE(again.ok());
    CHECK(difference(again.value(), as_taken.value()).empty());

    for (std::size_t i = 1; i < stages.size(); ++i) {
        INFO("done again: " << stages[i].what);
        REQUIRE(document.can_redo());
        document.redo();
        CHECK(w.pile() == stages[i].pile);
    }
    CHECK_FALSE(document.can_redo());
    REQUIRE(w.settle());
    const Result<Raster16> once_more = render_all(w.pile());
    REQUIRE(once_more.ok());
    CHECK(difference(once_more.value(), at_last.value()).empty());
    CHECK(bytes_of_all(folder) == originals);
}

TEST_CASE("what was done from levelling to cropping is in the saved pile, and merges to the same bits", "[window]") {
    const Folder folder, out;
    take(folder);
    Window w;
    REQUIRE(w.open(folder));
    work_through(w);
    const fs::path file = out / "evening.pile";
    REQUIRE(save_pile(w.pile(), file).ok());
    const Result<LoadedPile> loaded = load_pile(file);
    REQUIRE(loaded.ok());
    const Pile& read = loaded.value().pile;
    CHECK(read.levelling == Levelling::light);
    CHECK(read.crop == w.pile().crop);
    CHECK(read.zones == w.pile().zones);
    CHECK(read.methods == w.pile().methods);
    REQUIRE(read.frames.size() == w.pile().frames.size());
    for (std::size_t i = 0; i < read.frames.size(); ++i) {
        CHECK(read.frames[i].gains == w.pile().frames[i].gains);
        CHECK(read.frames[i].places.sky == w.pile().frames[i].places.sky);
    }
    const Result<Raster16> before = render_all(w.pile());
    const Result<Raster16> after = render_all(read);
    REQUIRE((before.ok() && after.ok()));
    CHECK(difference(before.value(), after.value()).empty());
}
