#include <QListWidget>
#include <QPointingDevice>
#include <QSlider>
#include <QTabletEvent>
#include <catch2/catch.hpp>

#include "app/canvas/mask_hatch.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void flats(const Folder& folder, int count) {
    for (int i = 0; i < count; ++i) {
        Raster16 flat({300, 200}, 3);
        std::fill(flat.data().begin(), flat.data().end(), std::uint16_t(257 * (40 + 50 * i)));
        write(folder / ("f" + std::to_string(i + 1) + ".png"), flat, 8);
    }
}

void paint_mode(Window& w) {
    w.click("knot_4");
    w.slide("brush_softness", 0);
    w.slide("brush_size", 60);
}

// Opens so many flat frames and goes to the last of them, with the brush in hand.
void brush_on_last(Window& w, const Folder& folder, int count) {
    flats(folder, count);
    REQUIRE(w.open(folder, Outcome::best_of));
    paint_mode(w);
    w.studio().select(w.pile().frames.back().id);
    w.key(Qt::Key_2);
}

}  // namespace

TEST_CASE("painting on a frame makes its part, painting again adds to it, giving back takes away", "[window]") {
    const Folder folder;
    Window w;
    brush_on_last(w, folder, 3);
    w.stroke({{100, 100}});
    w.stroke({{200, 100}});
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(w.pile().parts[0].mask.at(100, 100) == 255);
    CHECK(w.pile().parts[0].mask.at(200, 100) == 255);
    w.key(Qt::Key_K);
    w.stroke({{100, 100}});
    CHECK(w.pile().parts[0].mask.at(100, 100) == 0);
    CHECK(w.pile().parts[0].mask.at(200, 100) == 255);
    w.key(Qt::Key_K);
    w.studio().select(w.pile().frames[1].id);
    w.stroke({{50, 50}});
    CHECK(w.pile().parts.size() == 2);
    CHECK(w.pile().parts[1].frame == w.pile().frames[1].id);
    const Raster16 picture = render_all(w.pile()).value();
    CHECK(picture.at(200, 100, 0) == 257 * 140);
    CHECK(picture.at(50, 50, 0) == 257 * 90);
    CHECK(picture.at(100, 100, 0) == 257 * 40);
}

TEST_CASE("a pen paints as hard as it is pressed, its other end gives back, and a mouse paints in full after it",
          "[window]") {
    const Folder folder;
    Window w;
    brush_on_last(w, folder, 3);
    app::Canvas& canvas = w.window.canvas();
    const auto device = [](QPointingDevice::PointerType type) {
        return QPointingDevice(QStringLiteral("pen"), 7, QInputDevice::DeviceType::Stylus, type,
                               QInputDevice::Capability::Position | QInputDevice::Capability::Pressure, 1, 3);
    };
    const QPointingDevice pen = device(QPointingDevice::PointerType::Pen);
    const QPointingDevice eraser = device(QPointingDevice::PointerType::Eraser);
    // Each goes to the canvas first, and then again as of a mouse, as the toolkit does it with what is not taken.
    const auto goes = [&](const QPointingDevice& with, QEvent::Type type, QPoint at, double pressure) {
        const bool down = type != QEvent::TabletRelease;
        QTabletEvent event(type, &with, at, canvas.mapToGlobal(at), pressure, 0, 0, 0, 0, 0, Qt::NoModifier,
                           Qt::LeftButton, down ? Qt::LeftButton : Qt::NoButton);
        event.setAccepted(true);
        QApplication::sendEvent(&canvas, &event);
        REQUIRE_FALSE(event.isAccepted());
        if (type == QEvent::TabletPress) QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, at);
        if (type == QEvent::TabletMove) w.move_over_canvas(canvas.to_canvas(at));
        if (!down) QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, at);
    };
    const auto dab = [&](const QPointingDevice& with, QPointF at, double pressure) {
        const QPoint place = canvas.to_screen(at).toPoint();
        goes(with, QEvent::TabletPress, place, pressure);
        goes(with, QEvent::TabletRelease, place, 0);
    };
    dab(pen, {100, 100}, 0.4);
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(int(w.pile().parts[0].mask.at(100, 100)) == 102);
    dab(pen, {200, 100}, 1);
    CHECK(int(w.pile().parts[0].mask.at(200, 100)) == 255);
    dab(eraser, {200, 100}, 0.5);
    CHECK(int(w.pile().parts[0].mask.at(200, 100)) == 127);
    w.stroke({{200, 100}});
    CHECK(int(w.pile().parts[0].mask.at(200, 100)) == 255);
}

TEST_CASE("parts are painted by keys alone: a dab, and a stroke while Enter is held", "[window]") {
    const Folder folder;
    Window w;
    brush_on_last(w, folder, 2);
    app::Canvas& canvas = w.window.canvas();
    canvas.setFocus();
    w.key(Qt::Key_Up, Qt::ControlModifier);  // puts the mark into the middle
    w.walk(w.middle_of_canvas(), {60, 100});
    w.key(Qt::Key_Return);
    REQUIRE(w.pile().parts.size() == 1);
    CHECK(w.pile().parts[0].mask.at(60, 100) == 255);
    CHECK(w.pile().parts[0].mask.at(200, 100) == 0);
    w.walk({60, 100}, {150, 40});
    QTest::keyPress(&canvas, Qt::Key_Return);
    w.walk({150, 40}, {250, 40});
    CHECK(w.pile().parts[0].mask.at(200, 40) == 0);
    QTest::keyRelease(&canvas, Qt::Key_Return);
    CHECK(w.pile().parts[0].mask.at(150, 40) == 255);
    CHECK(w.pile().parts[0].mask.at(200, 40) == 255);
    CHECK(w.pile().parts[0].mask.at(250, 40) == 255);
    CHECK(w.pile().parts[0].mask.at(150, 100) == 0);
    // What is being drawn is not lost when another control takes the keys.
    w.walk({250, 40}, {250, 160});
    QTest::keyPress(&canvas, Qt::Key_Return);
    w.find<QSlider>("brush_size")->setFocus();
    QApplication::processEvents();
    CHECK(w.pile().parts[0].mask.at(250, 160) == 255);
    w.studio().document().undo();
    CHECK(w.pile().parts[0].mask.at(250, 160) == 0);
}

TEST_CASE("in the result, painting works on the chosen part and is seen while it is drawn", "[window]") {
    const Folder folder;
    flats(folder, 2);
    Window w;
    REQUIRE(w.open(folder, Outcome::best_of));
    paint_mode(w);
    w.stroke({{60, 60}});
    CHECK(w.pile().parts.empty());
    w.studio().select(w.pile().frames[1].id);
    w.key(Qt::Key_2);
    w.stroke({{60, 60}});
    REQUIRE(w.pile().parts.size() == 1);
    w.key(Qt::Key_1);
    REQUIRE(w.settle());
    app::Canvas& canvas = w.window.canvas();
    const QPoint at = canvas.to_screen({200.5, 120.5}).toPoint();
    QTest::mousePress(&canvas, Qt::LeftButton, Qt::NoModifier, at);
    REQUIRE(wait_for([&] { return w.window.viewer().colour_at(200, 120)->red() == 90; }, 5000));
    CHECK(w.pile().parts[0].mask.at(200, 120) == 0);
    QTest::mouseRelease(&canvas, Qt::LeftButton, Qt::NoModifier, at);
    CHECK(w.pile().parts[0].mask.at(200, 120) == 255);
    CHECK(w.pile().parts.size() == 1);
}

TEST_CASE("parts are shown, hidden, moved and removed from their list", "[window]") {
    const Folder folder;
    flats(folder, 3);
    Window w;
    REQUIRE(w.open(folder, Outcome::best_of));
    paint_mode(w);
    w.key(Qt::Key_2);
    for (const std::size_t i : {1U, 2U}) {
        w.studio().select(w.pile().frames[i].id);
        w.stroke({{150, 100}});
    }
    REQUIRE(w.pile().parts.size() == 2);
    auto* list = w.find<QListWidget>("parts_list");
    REQUIRE(list->count() == 2);
    CHECK(render_all(w.pile()).value().at(150, 100, 0) == 257 * 140);
    list->item(0)->setCheckState(Qt::Unchecked);
    CHECK_FALSE(w.pile().parts[1].on);
    CHECK(render_all(w.pile()).value().at(150, 100, 0) == 257 * 90);
    list->item(1)->setText(QStringLiteral("gull"));
    CHECK(w.pile().parts[0].name == "gull");
    list->setCurrentRow(1);
    w.click("part_up");
    CHECK(w.pile().parts[1].name == "gull");
    w.slide("part_strength", 50);
    CHECK(w.pile().parts[1].strength == 0.5);
    w.click("part_remove");
    CHECK(w.pile().parts.size() == 1);
}

TEST_CASE("the hatch marks what is kept, with an edge, and nothing else") {
    Mask mask({100, 100});
    mask.edit({20, 20, 40, 40}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    const QImage hatch = app::hatch_of(mask, {0, 0, 100, 100}, QTransform());
    int edge = 0, inside = 0, outside = 0;
    for (int y = 0; y < 100; ++y)
        for (int x = 0; x < 100; ++x) {
            const int alpha = qAlpha(hatch.pixel(x, y));
            const bool in = x >= 20 && y >= 20 && x < 60 && y < 60;
            const bool rim = in && (x == 20 || y == 20 || x == 59 || y == 59);
            if (rim) edge += alpha > 200;
            if (in && !rim) inside += alpha > 0;
            if (!in) outside += alpha > 0;
        }
    CHECK(edge == 4 * 39);
    CHECK(outside == 0);
    // Lines, not a wash.
    CHECK(inside > 200);
    CHECK(inside < 38 * 38 / 2);
}
