// Edges, places and looks of parts, used as a person uses them.
#include <QColorDialog>
#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <catch2/catch.hpp>
#include <cmath>

#include "app/canvas/viewer.h"
#include "app/looks/words.h"
#include "app/rail/time_rail.h"
#include "engine/render.h"
#include "io/reader.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Grey frames: the first dark, the others with a bright square at (140, 90), each brighter than the one before.
void squares(const Folder& folder, int frames) {
    for (int k = 0; k < frames; ++k) {
        Raster16 picture({300, 200}, 3);
        std::fill(picture.data().begin(), picture.data().end(), std::uint16_t(257 * (30 + k)));
        for (int y = 90; k > 0 && y < 110; ++y)
            for (int x = 140; x < 160; ++x)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = std::uint16_t(257 * (100 + 30 * k));
        write(folder / ("s" + std::to_string(k) + ".png"), picture, 8);
    }
}

// Opens three of them at the step Parts.
void open_parts(Window& w, const Folder& folder) {
    squares(folder, 3);
    REQUIRE(w.open(folder, Outcome::best_of));
    w.click("knot_4");
}

// Paints over the square of a frame.
void take_square(Window& w, std::size_t frame) {
    w.click("page_paint");
    w.slide("brush_softness", 0);
    w.studio().select(w.pile().frames[frame].id);
    w.key(Qt::Key_2);
    w.stroke({{142, 92}, {158, 92}, {158, 108}, {142, 108}, {150, 100}});
    w.key(Qt::Key_1);
    REQUIRE(w.settle());
}

}  // namespace

TEST_CASE("an edge is chosen in the list, its band pulled, undone, and it is in the file", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    REQUIRE(w.pile().parts.size() == 1);
    CHECK_FALSE(w.find<QSlider>("part_band")->isVisible());
    w.pick("part_edge", QStringLiteral("Least seam"));
    CHECK(w.pile().parts[0].edge == Edge::seam);
    REQUIRE(w.find<QSlider>("part_band")->isVisible());
    CHECK(w.find<QSlider>("part_band")->value() == 6);  // a fiftieth of the longer side
    w.slide("part_band", 40);
    CHECK(w.pile().parts[0].band_px == 40);
    REQUIRE(w.settle());
    // All of the square is there, and beside the band all is as it was.
    CHECK(w.result_at(150, 100) == 257 * 130);
    CHECK(w.result_at(20, 20) == 257 * 30);
    w.pick("part_edge", QStringLiteral("Blended"));
    REQUIRE(w.settle());
    // The ground about the square is a little brighter in its frame: nothing of that is seen.
    CHECK(std::abs(int(w.result_at(139, 100)) - 257 * 30) < 80);
    REQUIRE(w.save_as(folder / "a.pile"));
    const Pile read = load_pile(folder / "a.pile").value().pile;
    CHECK(read.parts[0].edge == Edge::blended);
    CHECK(read.parts[0].band_px == 40);
    while (w.pile().parts[0].edge != Edge::painted) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.find<QComboBox>("part_edge")->currentText() == QStringLiteral("Edge as painted"));
    CHECK(w.pile().parts[0].band_px == 0);
}

TEST_CASE("a stroke on a part with a solved edge shows at once and is solved when it ends", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    w.pick("part_edge", QStringLiteral("Least seam"));
    REQUIRE(w.settle());
    w.click("brush_keep");
    const Mask before = w.pile().parts[0].mask;
    w.stroke({{60, 60}, {80, 60}});
    REQUIRE(w.settle());
    CHECK_FALSE(w.pile().parts[0].mask == before);
    CHECK(w.pile().parts[0].edge == Edge::seam);
    CHECK(w.result_at(70, 60) == 257 * 31);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts[0].mask == before);
}

TEST_CASE("a part is dragged, turned by the ring, typed, mirrored and put back", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 2);
    w.click("page_part_place");
    REQUIRE(w.settle());
    // By the hand, away from all that it could be drawn to.
    w.stroke({{150, 100}, {190, 131}});
    REQUIRE(w.pile().parts[0].place.has_value());
    CHECK(w.pile().parts[0].place->moved.x == Approx(40).margin(1.5));
    CHECK(w.pile().parts[0].place->moved.y == Approx(31).margin(1.5));
    REQUIRE(w.settle());
    CHECK(w.result_at(150, 100) <= 257 * 32);  // its ground came along
    CHECK(w.result_at(190, 131) == 257 * 160);
    // By numbers.
    w.enter("part_place_right", -60);
    w.enter("part_place_down", 20);
    w.enter("part_place_scale", 1.5);
    CHECK(w.pile().parts[0].place->scale == Approx(1.5));
    REQUIRE(w.settle());
    CHECK(w.result_at(90, 120) == 257 * 160);
    CHECK(w.result_at(90 + 13, 120) > 257 * 150);
    w.click("part_mirrored");
    CHECK(w.pile().parts[0].place->mirrored);
    CHECK(moved_by(w.pile(), w.pile().parts[0]).right_px == Approx(-60).margin(0.01));
    // By the ring about its middle.
    const double ring = 92 / w.window.canvas().zoom();
    w.stroke({{90 + ring, 120}, {90, 120 + ring}});
    CHECK(std::abs(w.pile().parts[0].place->turn_degrees) == Approx(90).margin(3));
    w.click("part_put_back");
    CHECK_FALSE(w.pile().parts[0].place.has_value());
    REQUIRE(w.settle());
    CHECK(w.result_at(150, 100) == 257 * 160);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts[0].place.has_value());
}

TEST_CASE("a part that was placed is painted where it lies", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 2);
    w.click("page_part_place");
    w.enter("part_place_right", 80);
    w.click("page_paint");
    w.click("brush_give_back");
    w.slide("brush_size", 8);
    const Mask before = w.pile().parts[0].mask;
    w.stroke({{230, 100}});
    REQUIRE(w.settle());
    const Rect changed = w.pile().parts[0].mask.bounds_of_change(before);
    CHECK(std::abs(changed.left + changed.width / 2 - 150) <= 2);
    CHECK(std::abs(changed.top + changed.height / 2 - 100) <= 2);
    CHECK(w.result_at(230, 100) == 257 * 30);
    CHECK(w.result_at(222, 92) == 257 * 160);
}

TEST_CASE("parts lie on a canvas of inches, are drawn to its edges, and the file says how large it is", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 2);
    w.click("page_part_place");
    w.pick("sheet_measure", QStringLiteral("Inches"));
    w.enter("sheet_dpi", 100);
    w.enter("sheet_width", 5);
    w.enter("sheet_height", 4);
    w.slide("sheet_background", 50);
    REQUIRE(w.settle());
    CHECK(canvas_of(w.pile()) == Rect{-100, -100, 500, 400});
    // A colour, given up and taken, undone.
    const Pile grey = w.pile();
    for (const bool take : {false, true}) {
        const Answering answering([take](QWidget& widget) {
            auto* dialog = qobject_cast<QColorDialog*>(&widget);
            if (!dialog) return false;
            dialog->setCurrentColor(QColor(200, 100, 50));
            QTest::keyClick(dialog, take ? Qt::Key_Return : Qt::Key_Escape);
            return true;
        });
        w.click("sheet_colour");
        REQUIRE(answering.came());
        CHECK((w.pile() == grey) == !take);
    }
    REQUIRE(w.settle());
    CHECK(std::abs(int(w.result_at(-50, -50)) - 100 * 257) < 3);
    CHECK(w.pile().canvas.background[0] == Approx(200 / 255.0).margin(1e-4));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile() == grey);
    CHECK(w.find<QLabel>("sheet_size")->text().contains(QStringLiteral("500 x 400")));
    CHECK(std::abs(int(w.result_at(-50, -50)) - 32768) < 140);
    // Nearly to the left edge and the middle down: all the way.
    const Rect box = w.pile().parts[0].mask.bounds();
    const double to_left = -100 - box.left;
    w.stroke({{150, 100}, {150 + to_left + 3, 100 + 2}});
    const PartPlace place = *w.pile().parts[0].place;
    CHECK(place.moved.x == Approx(to_left).margin(1e-6));
    CHECK(std::abs(place.moved.y - (100 - (box.top + box.height / 2.0))) < 1e-6);
    w.click("export");
    w.pick("export_format", QStringLiteral("PNG"));
    REQUIRE(w.export_to(folder / "out.png"));
    CHECK(probe_picture(folder / "out.png").value().size == Size{500, 400});
    const std::string bytes = bytes_of(folder / "out.png");
    const std::size_t at = bytes.find("pHYs");
    REQUIRE(at != std::string::npos);
    int a_metre = 0;
    for (std::size_t i = 0; i < 4; ++i) a_metre = a_metre * 256 + int(std::uint8_t(bytes[at + 4 + i]));
    CHECK(std::abs(a_metre - 3937) <= 1);
    w.click("knot_4");
    w.click("page_part_place");
    w.click("sheet_as_frames");
    CHECK_FALSE(w.pile().canvas.area.has_value());
}

TEST_CASE("a part has a look of its own, tried by the slider and taken back", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    const std::uint16_t before = w.result_at(150, 100), beside = w.result_at(20, 20);
    w.click("page_part_look");
    w.slide("part_look_exposure_ev", w.find<QSlider>("part_look_exposure_ev")->maximum());
    CHECK(w.pile().parts[0].look.exposure_ev > 0.5);
    REQUIRE(w.settle());
    CHECK(w.result_at(150, 100) > before + 257 * 20);
    CHECK(w.result_at(20, 20) == beside);
    w.click("part_look_reset");
    CHECK(w.pile().parts[0].look == Look{});
    CHECK(w.result_at(150, 100) == before);
}

TEST_CASE("ellipses, ramps and what is alike are drawn into a part, kept and given back", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    w.click("page_mask");
    w.studio().select(w.pile().frames[1].id);
    w.key(Qt::Key_2);
    REQUIRE(w.settle());
    w.click("mask_ellipse");
    w.stroke({{40, 40}, {100, 80}});
    REQUIRE(w.pile().parts.size() == 1);
    const auto at = [&](int x, int y) { return int(w.pile().parts[0].mask.at(x, y)); };
    CHECK(at(70, 60) == 255);
    CHECK(at(43, 43) == 0);
    // What is alike hangs together with the place that is clicked: the square alone.
    w.click("mask_like");
    w.stroke({{150, 100}});
    REQUIRE(w.settle());
    CHECK(at(150, 100) == 255);
    CHECK(at(141, 91) == 255);
    CHECK(at(136, 91) == 0);
    // A ramp that gives back: all on its side, half in the middle.
    w.click("mask_give_back");
    w.click("mask_ramp");
    w.stroke({{100, 60}, {40, 60}});
    CHECK(at(150, 100) == 0);
    CHECK(std::abs(at(70, 60) - 128) < 8);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(at(150, 100) == 255);
    CHECK(at(70, 60) == 255);
}

TEST_CASE("all of a mask is grown, shrunk, softened, swapped, copied and cleared, each one step", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    take_square(w, 2);
    REQUIRE(w.pile().parts.size() == 2);
    w.click("page_mask");
    const Mask first = w.pile().parts[1].mask;
    const Rect bounds = first.bounds();
    w.slide("mask_by", 12);
    w.click("mask_grow");
    CHECK(std::abs(w.pile().parts[1].mask.bounds().width - bounds.width - 24) <= 2);
    CHECK(std::abs(w.pile().parts[1].mask.bounds().top - bounds.top + 12) <= 1);
    w.click("mask_shrink");
    CHECK(std::abs(w.pile().parts[1].mask.bounds().width - bounds.width) <= 2);
    w.click("mask_soften");
    CHECK(w.pile().parts[1].mask.at(bounds.left, 100) > 60);
    CHECK(w.pile().parts[1].mask.at(bounds.left, 100) < 190);
    w.click("mask_swap");
    CHECK(w.pile().parts[1].mask.at(5, 5) == 255);
    CHECK(w.pile().parts[1].mask.at(150, 100) == 0);
    for (int i = 0; i < 4; ++i) w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts[1].mask == first);
    w.click("mask_grow");
    w.pick("mask_copy", QString::fromStdString(w.pile().parts[0].name.empty() ? "Part 1" : w.pile().parts[0].name));
    CHECK(w.pile().parts[0].mask == w.pile().parts[1].mask);
    w.click("mask_clear");
    CHECK(w.pile().parts[1].mask.empty());
    CHECK(w.pile().parts.size() == 2);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(w.pile().parts[1].mask.empty());
}

TEST_CASE("parts are ordered by dragging in the list", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    take_square(w, 2);
    REQUIRE(w.result_at(150, 100) == 257 * 160);
    auto* list = w.find<QListWidget>("parts_list");
    const int upper = w.pile().parts[1].id;
    // As the list itself does when a row is let go below the other one.
    CHECK(list->dragDropMode() == QAbstractItemView::InternalMove);
    REQUIRE(list->model()->moveRow({}, 0, {}, 2));
    let_pass();
    CHECK(w.pile().parts[0].id == upper);
    CHECK(w.result_at(150, 100) == 257 * 130);
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().parts[1].id == upper);
}

TEST_CASE("the picture is checked before it is exported: what a border cuts through is shown with a click",
          "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    w.click("page_paint");
    w.slide("brush_softness", 0);
    w.slide("brush_size", 25);
    w.studio().select(w.pile().frames[2].id);
    w.key(Qt::Key_2);
    w.stroke({{140, 100}});
    w.key(Qt::Key_1);
    REQUIRE(w.settle());
    w.click("export");
    w.click("export_check");
    REQUIRE(w.settle());
    auto* flaws = w.find<QListWidget>("export_flaws");
    REQUIRE(flaws->isVisible());
    REQUIRE(flaws->count() >= 1);
    CHECK(flaws->item(0)->text().contains(QStringLiteral("cuts through")));
    for (int i = 0; i < 4; ++i) w.key(Qt::Key_Plus);
    w.click(flaws->viewport()->parentWidget());
    QTest::mouseClick(flaws->viewport(), Qt::LeftButton, Qt::NoModifier,
                      flaws->visualItemRect(flaws->item(0)).center());
    let_pass();
    const QPointF middle = w.middle_of_canvas();
    CHECK(std::abs(middle.x() - 146) < 12);
    CHECK(std::abs(middle.y() - 100) < 12);
    // Another picture is not checked yet.
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(flaws->isVisible());
    w.click("export_check");
    REQUIRE(w.settle());
    CHECK_FALSE(flaws->isVisible());
    CHECK(w.find<QLabel>("export_checked")->text().contains(QStringLiteral("Nothing was found")));
}

TEST_CASE("parts alone on a sheet: all frames set aside, and nothing is missed", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 2);
    w.click("knot_3");
    w.click("mode_lighten");
    REQUIRE(w.settle());
    for (int i = 0; i < 3; ++i) {
        w.studio().select(w.pile().frames[std::size_t(i)].id);
        w.window.canvas().setFocus();
        w.key(Qt::Key_A);
    }
    REQUIRE(merged_ids(w.pile()).empty());
    REQUIRE(w.settle());
    CHECK(w.result_at(20, 20) == 0);
    CHECK(w.result_at(150, 100) == 257 * 160);
    w.click("export");
    w.pick("export_format", QStringLiteral("8-bit PNG"));
    REQUIRE(w.export_to(folder / "alone.png"));
}

TEST_CASE("a part is outlined where its row or its slat is pointed at, and the picture marks the slat", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    auto* list = w.find<QListWidget>("parts_list");
    auto* rail = w.window.findChild<app::TimeRail*>();
    const app::Canvas& canvas = w.window.canvas();
    w.click(list->viewport()->parentWidget());
    QTest::mouseMove(list->viewport(), list->visualItemRect(list->item(0)).center());
    let_pass();
    REQUIRE(canvas.outlined().size() == 1);
    const Rect bounds = w.pile().parts[0].mask.bounds();
    const QRectF seen = canvas.outlined()[0].boundingRect();
    CHECK(std::abs(seen.left() - bounds.left) < 3);
    CHECK(std::abs(seen.bottom() - bounds.bottom()) < 3);
    QEvent leave(QEvent::Leave);
    QApplication::sendEvent(list->viewport(), &leave);
    CHECK(canvas.outlined().empty());
    QTest::mouseMove(rail, rail->slat_of(w.pile().frames[1].id).center().toPoint());
    let_pass();
    CHECK(canvas.outlined().size() == 1);
    QTest::mouseMove(rail, rail->slat_of(w.pile().frames[2].id).center().toPoint());
    let_pass();
    CHECK(canvas.outlined().empty());
    w.move_over_canvas({150, 100});
    CHECK(rail->pointed_at() == w.pile().frames[1].id);
    w.move_over_canvas({20, 20});
    CHECK(rail->pointed_at() == 0);
    // The tag below the slat hides the frame's part, and shows it again.
    const QPointF tag(rail->slat_of(w.pile().frames[1].id).center().x(),
                      rail->slat_of(w.pile().frames[1].id).bottom() + 9);
    QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, tag.toPoint());
    let_pass();
    CHECK_FALSE(w.pile().parts[0].on);
    QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, tag.toPoint());
    let_pass();
    CHECK(w.pile().parts[0].on);
    // Not while another step is open.
    w.click("knot_3");
    w.move_over_canvas({150, 100});
    CHECK(rail->pointed_at() == 0);
}

TEST_CASE("what one part hides of another stands in the list, and is hatched where the row is pointed at", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 1);
    auto* list = w.find<QListWidget>("parts_list");
    CHECK_FALSE(w.find<QLabel>("part_hidden")->isVisible());
    take_square(w, 2);
    REQUIRE(w.pile().parts.size() == 2);
    // The lower of the two.
    QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier, list->visualItemRect(list->item(1)).center());
    let_pass();
    REQUIRE(w.find<QLabel>("part_hidden")->isVisible());
    const QString upper = app::name_of_part(w.pile(), w.pile().parts[1]);
    CHECK(w.find<QLabel>("part_hidden")->text() == QStringLiteral("100% of it lies under %1.").arg(upper));
    CHECK(list->item(1)->toolTip().contains(upper));
    w.key(Qt::Key_1);
    QTest::mouseMove(list->viewport(), list->visualItemRect(list->item(0)).center());
    let_pass();
    CHECK(w.window.canvas().outlined().size() == 1);
    CHECK(w.window.canvas().hatched().empty());
    QTest::mouseMove(list->viewport(), list->visualItemRect(list->item(1)).center());
    let_pass();
    REQUIRE(w.window.canvas().hatched().size() == 1);
    const Rect bounds = w.pile().parts[0].mask.bounds();
    CHECK(std::abs(w.window.canvas().hatched()[0].boundingRect().width() - bounds.width) < 4);
    // Laid over the other, it hides that one.
    w.click("part_up");
    CHECK_FALSE(w.find<QLabel>("part_hidden")->isVisible());
}

TEST_CASE("what is alike in a part that was placed goes along with it, and a place is taken beside it", "[window]") {
    const Folder folder;
    Window w;
    open_parts(w, folder);
    take_square(w, 2);
    const Mask before = w.pile().parts[0].mask;
    w.click("page_part_place");
    w.enter("part_place_right", 60);
    w.click("page_mask");
    w.click("mask_give_back");
    w.click("mask_like");
    // The square, where the part lies now.
    w.stroke({{210, 100}});
    REQUIRE(w.settle());
    CHECK(before.at(150, 100) == 255);
    CHECK(w.pile().parts[0].mask.at(150, 100) == 0);
    CHECK(w.pile().parts[0].mask.at(137, 100) == before.at(137, 100));
    // Taken from the same frame: a part of its own, because this one shows elsewhere.
    const Mask placed = w.pile().parts[0].mask;
    w.click("page_paint");
    auto* rail = w.window.findChild<app::TimeRail*>();
    w.window.canvas().setFocus();
    w.move_over_canvas({150, 100});
    QTest::keyPress(w.focus(), Qt::Key_T);
    QTest::mouseClick(rail, Qt::LeftButton, Qt::NoModifier, rail->slat_of(w.pile().frames[2].id).center().toPoint());
    REQUIRE(w.settle());
    QTest::keyRelease(w.focus(), Qt::Key_T);
    REQUIRE(w.pile().parts.size() == 2);
    CHECK(w.pile().parts[0].mask == placed);
    CHECK(w.pile().parts[1].mask.at(150, 100) == 255);
    CHECK(w.result_at(150, 100) == 257 * 160);
}
