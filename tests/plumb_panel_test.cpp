// A point of the picture through all frames, used as a person uses it: from the point to the frame to blame.
#include "app/panels/plumb_panel.h"

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <catch2/catch.hpp>
#include <stdexcept>

#include "app/panels/plumb_chart.h"
#include "app/panels/plumb_patches.h"
#include "app/rail/time_rail.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Dark frames of which the fourth has a lamp in its middle.
struct Lamp : Folder, Window {
    Lamp() {
        for (int i = 0; i < 6; ++i) {
            Raster16 scene({64, 48}, 3);
            std::fill(scene.data().begin(), scene.data().end(), std::uint16_t(257 * (10 + i)));
            if (i == 3)
                for (int y = 20; y < 28; ++y)
                    for (int x = 28; x < 36; ++x)
                        for (int c = 0; c < 3; ++c) scene.at(x, y, c) = std::uint16_t(257 * 200);
            write(static_cast<const Folder&>(*this) / ("dark-" + std::to_string(i) + ".png"), scene, 8);
        }
        if (!open(static_cast<const Folder&>(*this))) throw std::runtime_error("the frames do not open");
        key(Qt::Key_L);
    }
    app::PlumbPanel& panel() { return *find<app::PlumbPanel>("plumb_panel"); }
    QString says(const char* label) { return find<QLabel>(label)->text(); }
    // Clicks on the picture and waits until the point is seen through all frames.
    bool look_at(QPointF place) {
        if (!settle()) return false;
        app::Canvas& canvas = window.canvas();
        const QPointF at = canvas.to_screen(place);
        QTest::mouseClick(&canvas, Qt::LeftButton, Qt::NoModifier, QPoint(int(at.x()), int(at.y())));
        return found();
    }
    bool found() {
        return wait_for([this] { return panel().plumb().has_value(); }) && settle();
    }
    int lamp() { return render_all(pile()).value().at(32, 24, 1) / 257; }
};

}  // namespace

TEST_CASE("from a point to the frame that shows there, and to setting it aside; undone in one step", "[window]") {
    Lamp w;
    CHECK(w.panel().isVisible());
    CHECK_FALSE(w.find<QPushButton>("plumb_aside")->isEnabled());
    REQUIRE(w.look_at({32.5, 24.5}));
    CHECK(w.says("plumb_shows").contains(QStringLiteral("Frame 4 shows here")));
    CHECK(w.says("plumb_chosen").startsWith(QStringLiteral("Frame 4")));
    REQUIRE(w.panel().place());
    CHECK(w.panel().place()->x() == 32);
    CHECK(w.panel().place()->y() == 24);
    CHECK(w.lamp() == 200);
    w.click("plumb_go");
    CHECK(w.window.viewer().view() == app::View::frame);
    CHECK(w.studio().current() == w.pile().frames[3].id);
    w.key(Qt::Key_1);
    w.click("plumb_aside");
    CHECK(w.pile().frames[3].aside);
    REQUIRE(wait_for([&] { return w.says("plumb_shows").contains(QStringLiteral("Frame 6 shows here")); }));
    CHECK(w.lamp() == 15);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(w.pile().frames[3].aside);
    REQUIRE(wait_for([&] { return w.says("plumb_shows").contains(QStringLiteral("Frame 4 shows here")); }));
    // Closed, the mark is gone, and a click looks nowhere; opened again, both are as they were.
    CHECK(w.window.canvas().plumb());
    w.click("plumb");
    CHECK_FALSE(w.panel().isVisible());
    CHECK_FALSE(w.window.canvas().plumb());
    REQUIRE(w.settle());
    w.stroke({{5, 5}});
    CHECK(w.panel().place()->x() == 32);
    w.click("plumb");
    REQUIRE(w.window.canvas().plumb());
    CHECK(w.window.canvas().plumb()->x() == 32);
}

TEST_CASE("the place alone can be left out, as wide as the slider says", "[window]") {
    Lamp w;
    REQUIRE(w.look_at({32.5, 24.5}));
    w.slide("plumb_size", 6);
    w.click("plumb_leave_out");
    CHECK(w.lamp() == 15);
    // The circle is narrower than the lamp.
    CHECK(render_all(w.pile()).value().at(28, 20, 1) == 257 * 200);
    REQUIRE(wait_for([&] { return w.says("plumb_shows").contains(QStringLiteral("Frame 6 shows here")); }));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.lamp() == 200);
    w.slide("plumb_size", 40);
    REQUIRE(wait_for([&] { return w.says("plumb_shows").contains(QStringLiteral("Frame 4 shows here")); }));
    w.click("plumb_leave_out");
    CHECK(render_all(w.pile()).value().at(28, 20, 1) == 257 * 15);
    CHECK(w.pile().frames[2].left_out.empty());
}

TEST_CASE("frames are chosen in the chart by mouse and keys, and among the small pictures", "[window]") {
    Lamp w;
    REQUIRE(w.look_at({5.5, 5.5}));
    CHECK(w.says("plumb_shows").contains(QStringLiteral("Frame 6")));
    auto* chart = w.find<app::PlumbChart>("plumb_chart");
    const auto id = [&](std::size_t at) { return w.pile().frames[at].id; };
    QTest::mouseClick(chart, Qt::LeftButton, Qt::NoModifier, chart->place_of(id(1)).toPoint());
    CHECK(w.studio().current() == id(1));
    CHECK(w.says("plumb_chosen").contains(QStringLiteral("Frame 2")));
    w.tab_to("plumb_chart");
    w.key(Qt::Key_Right);
    CHECK(w.studio().current() == id(2));
    w.key(Qt::Key_Left);
    w.key(Qt::Key_Left);
    w.key(Qt::Key_Left);
    CHECK(w.studio().current() == id(0));
    CHECK_FALSE(w.find<app::PlumbPatches>("plumb_patches")->isVisible());
    w.click("plumb_with_patches");
    auto* patches = w.find<app::PlumbPatches>("plumb_patches");
    REQUIRE(patches->isVisible());
    REQUIRE(w.settle());
    QTest::mouseClick(patches, Qt::LeftButton, Qt::NoModifier, patches->place_of(id(4)).center());
    CHECK(w.studio().current() == id(4));
    // By keys alone: the mark is walked over the picture, Enter is the click.
    w.window.canvas().setFocus();
    w.walk({5.5, 5.5}, {33.5, 23.5});
    w.key(Qt::Key_Return);
    REQUIRE(wait_for([&] { return w.says("plumb_shows").contains(QStringLiteral("Frame 4 shows here")); }));
    // Dragging the picture along is no click.
    const auto before = w.panel().place();
    w.stroke({{10, 10}, {20, 20}});
    CHECK(w.panel().place() == before);
}

TEST_CASE("the window keeps its width when the plumb stands beside two settings that are compared", "[window]") {
    Lamp w;
    REQUIRE(w.look_at({32.5, 24.5}));
    const int width = w.window.width();
    REQUIRE(width <= 1280);
    w.click("knot_3");
    w.click("side_by_side");
    w.pick("second", 4);
    CHECK(w.find<QPushButton>("swap_settings")->isVisible());
    CHECK(w.find<QPushButton>("plumb")->isVisible());
    let_pass();
    CHECK(w.window.width() == width);
    CHECK(w.window.minimumSizeHint().width() <= 1280);
    CHECK(w.find<QPushButton>("play")->isVisible());
    w.click("side_by_side");
    // What was chosen among is gone, and the picture has its room.
    CHECK_FALSE(w.find<QComboBox>("second")->isVisible());
}

TEST_CASE("the plumb knows means, and lets capture data have its room", "[window]") {
    Lamp w;
    w.click("knot_3");
    w.click("mode_mean");
    REQUIRE(w.look_at({32.5, 24.5}));
    CHECK(w.says("plumb_shows").contains(QStringLiteral("all frames together")));
    w.click("capture_data");
    CHECK_FALSE(w.panel().isVisible());
    w.key(Qt::Key_L);
    CHECK(w.panel().isVisible());
    CHECK_FALSE(w.find<QWidget>("capture_panel")->isVisible());
}
