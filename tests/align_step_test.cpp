// The Align step, used as a person uses it.
#include <QCheckBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollBar>
#include <QSpinBox>
#include <QTreeWidget>
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <optional>

#include "app/looks/theme.h"
#include "engine/cover.h"
#include "pile/edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Three frames that move, the Align step open.
void begin(Window& w, const Folder& folder) {
    write_moving(folder, 3, {480, 320}, {1.5, -1});
    REQUIRE(w.open(folder));
    w.click("knot_2");
}

// Frames that take the models a while, the Align step open.
void begin_with_models(Window& w, const Folder& folder) {
    for (int i = 0; i < 6; ++i)
        write(folder / ("s-" + std::to_string(i) + ".png"), speckle_8({900, 700}, 3, unsigned(i)), 8);
    REQUIRE(w.open(folder));
    w.click("knot_2");
}

// The view of frame i: it moves two pixels to the right and one up from frame to frame.
Raster16 moving_view(const Raster16& scene, Size size, int i) {
    Raster16 out(size, scene.channels());
    for (int y = 0; y < size.height; ++y)
        std::copy_n(scene.row(y + scene.height() - size.height - i) + std::ptrdiff_t(2 * i) * scene.channels(),
                    out.row_samples(), out.row(y));
    return out;
}

// So large and so many that they can be looked at while they are aligned.
constexpr int many = 40;
constexpr Size large{1400, 1000};
const Raster16& large_scene() {
    static const Raster16 scene = landscape({large.width + 2 * many, large.height + many}, Matrix());
    return scene;
}
bool bring_large(Window& w, const Folder& folder) {
    for (int i = 0; i < many; ++i)
        write(folder / ("f" + std::to_string(100 + i) + ".jpg"), moving_view(large_scene(), large, i), 8);
    return w.bring(folder, Outcome::quiet) && w.studio().placing().busy();
}

bool all_aligned(Window& w) {
    return std::all_of(w.pile().frames.begin(), w.pile().frames.end(),
                       [](const Frame& frame) { return frame.places[Zone::sky] && frame.places[Zone::sky]->aligned; });
}

Point shift_of(Window& w, int id) {
    return placement(w.pile(), *find_frame(w.pile(), id)).to_canvas({0, 0});
}

}  // namespace

TEST_CASE("small pictures of the models are left when the step is, and found when it is looked at again", "[window]") {
    const Folder folder;
    Window w;
    begin_with_models(w, folder);
    CHECK(w.studio().previews().lane().busy());
    w.click("knot_3");
    CHECK_FALSE(w.studio().previews().lane().busy());
    CHECK(w.studio().previews().of(Model::flex) == nullptr);
    w.click("knot_2");
    CHECK(wait_for([&] { return w.studio().previews().of(Model::shift) != nullptr; }, 60000));
    // Every model that can be tried has one, and so has none of them.
    for (const char* name : {"align_none", "align_shift", "align_flex"}) {
        INFO(name);
        auto* miniature = w.find<QWidget>(name);
        CHECK(wait_for(
            [&] {
                const QImage seen = miniature->grab().toImage();
                const int x = seen.width() / 2;
                return seen.pixel(x, 20) != seen.pixel(x + 7, 26);
            },
            60000));
    }
}

TEST_CASE("small pictures of the models rest while frames are gone through, and come afterwards", "[window]") {
    const Folder folder;
    Window w;
    begin_with_models(w, folder);
    app::ModelPreviews& previews = w.studio().previews();
    REQUIRE(previews.lane().busy());
    w.window.canvas().setFocus();
    for (int i = 0; i < 4; ++i) {
        w.key(Qt::Key_Right);
        CHECK_FALSE(previews.lane().busy());
    }
    REQUIRE(previews.of(Model::flex) == nullptr);
    CHECK(wait_for([&] { return previews.lane().busy(); }));
    CHECK(wait_for([&] { return previews.of(Model::shift) && previews.of(Model::flex); }, 60000));
}

TEST_CASE("a frame is moved by keys and buttons in steps, refined from there, and all of it undone", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    const int second = w.pile().frames[1].id;
    w.studio().select(second);
    w.click("page_hand");
    CHECK(w.window.viewer().view() == app::View::difference);
    QTest::keyClick(&w.window, Qt::Key_Right, Qt::AltModifier);
    CHECK(shift_of(w, second).x == Approx(1));
    CHECK(find_frame(w.pile(), second)->places.sky->by_hand);
    w.click("pace_0");
    QTest::keyClick(&w.window, Qt::Key_Up, Qt::AltModifier);
    CHECK(shift_of(w, second).y == Approx(-0.1));
    w.click("pace_2");
    w.click("nudge_down");
    CHECK(shift_of(w, second).y == Approx(9.9));
    w.studio().document().undo();
    CHECK(shift_of(w, second).y == Approx(-0.1));
    w.click("pace_1");
    w.click("turn_right");
    CHECK(std::abs(find_frame(w.pile(), second)->places.sky->to_reference.m()[1]) > 1e-5);
    w.click("refine");
    REQUIRE(w.settle());
    CHECK(shift_of(w, second).x == Approx(1.5).margin(0.05));
    CHECK(shift_of(w, second).y == Approx(-1).margin(0.05));
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK(w.pile().methods.sky.model == Model::none);
}

TEST_CASE("what was placed by hand stays when the others are aligned", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    const int third = w.pile().frames[2].id;
    w.studio().select(third);
    w.click("page_hand");
    w.click("nudge_left");
    w.click("page_place");
    w.click("align_shift");
    REQUIRE(w.settle());
    CHECK(w.pile().methods.sky.model == Model::shift);
    CHECK(shift_of(w, third).x == Approx(-1));
    CHECK(shift_of(w, w.pile().frames[1].id).x == Approx(1.5).margin(0.1));
}

TEST_CASE("a frame that did not align says so, is left out, and is merged when the person insists", "[window]") {
    const Folder folder;
    write(folder / "f9.tif", landscape({480, 320}, Matrix::shift(9000, 7000), 9, 0.01), 8);
    Window w;
    begin(w, folder);
    w.click("align_rigid");
    REQUIRE(w.settle());
    const int stranger = w.pile().frames[3].id;
    CHECK(merged_ids(w.pile()).size() == 3);
    auto* insist = w.find<QCheckBox>("insist");
    w.studio().select(w.pile().frames[1].id);
    CHECK_FALSE(insist->isVisible());
    w.studio().select(stranger);
    REQUIRE(insist->isVisible());
    QTest::mouseClick(insist, Qt::LeftButton, Qt::NoModifier, {8, insist->height() / 2});
    CHECK(merged_ids(w.pile()).size() == 4);
    w.studio().document().undo();
    CHECK(merged_ids(w.pile()).size() == 3);
}

TEST_CASE("a frame is placed by typed numbers and by dragging it, its ring and its knot", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    const int second = w.pile().frames[1].id;
    w.studio().select(second);
    w.click("page_hand");
    REQUIRE(w.settle());
    auto* right = w.find<QDoubleSpinBox>("place_right");
    right->setFocus();
    right->selectAll();
    QTest::keyClicks(right, "2.5");
    QTest::keyClick(right, Qt::Key_Return);
    const auto place = [&] { return find_frame(w.pile(), second)->places.sky->to_reference; };
    CHECK(place().m()[2] == Approx(2.5));
    CHECK(place().m()[5] == Approx(0).margin(1e-9));
    w.enter("place_turn", 1);
    CHECK(place().m()[3] == Approx(std::sin(3.14159265 / 180)).epsilon(0.001));
    for (const char* name : {"place_right", "place_down", "place_turn", "place_scale"}) {
        INFO(name);
        const auto* box = w.find<QDoubleSpinBox>(name);
        const auto* line = box->findChild<QLineEdit*>();
        REQUIRE(line);
        CHECK(line->fontMetrics().horizontalAdvance(box->text()) < line->width() - 2);
    }
    const Point middle = place()({239.5, 159.5});
    CHECK(middle.x == Approx(242).margin(1e-6));
    w.enter("place_scale", 1.01);
    CHECK(std::hypot(place().m()[0], place().m()[3]) == Approx(1.01));

    // Dragged by ten pixels of the picture.
    const app::Canvas& canvas = w.window.canvas();
    const Point before = place()({239.5, 159.5});
    const auto drag = [&](QPointF from, QPointF to) {
        w.stroke({from, (from + to) / 2, to});
        CHECK(find_frame(w.pile(), second)->places.sky->by_hand);
    };
    drag({30, 30}, {40, 25});
    CHECK(place()({239.5, 159.5}).x == Approx(before.x + 10).margin(1));
    CHECK(place()({239.5, 159.5}).y == Approx(before.y - 5).margin(1));
    w.studio().document().undo();
    CHECK(place()({239.5, 159.5}).x == Approx(before.x));
    // The ring lies about the middle, 92 pixels of the screen away; its knot up to the right.
    const double ring = 92 / canvas.zoom();
    const double turn = std::atan2(place().m()[3], place().m()[0]);
    drag({239.5 - ring, 159.5}, {239.5, 159.5 - ring});
    CHECK(std::abs(std::atan2(place().m()[3], place().m()[0]) - turn - 3.14159265 / 2) < 0.05);
    w.studio().document().undo();
    const double knot = ring * std::sqrt(0.5);
    drag({239.5 + knot, 159.5 - knot}, {239.5 + 1.5 * knot, 159.5 - 1.5 * knot});
    CHECK(std::hypot(place().m()[0], place().m()[3]) == Approx(1.01 * 1.5).epsilon(0.05));
    w.studio().document().undo();

    // The pivot can be moved: turning holds the picture still there.
    w.stroke({{239.5, 159.5}, {300, 210}});
    const Matrix unturned = place();
    w.click("turn_right");
    const Matrix change = place() * inverse(unturned);
    CHECK(std::abs(change.m()[3]) > 1e-5);
    const Point held = change({299.5, 209.5});
    CHECK(std::hypot(held.x - 299.5, held.y - 209.5) < 1e-3);
    w.studio().document().undo();

    w.click("flicker");
    CHECK(canvas.flickers());
    CHECK(w.window.comparison().on());
    w.click("page_place");
    CHECK_FALSE(canvas.flickers());
    CHECK_FALSE(w.window.comparison().on());
}

TEST_CASE("the pole is shown where the sky turns, told in numbers, and the pivot of the hand snaps to it", "[window]") {
    const Folder folder;
    practised(folder, "lighthouse", 6);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_2");
    w.click("align_stars");
    REQUIRE(w.settle());
    REQUIRE(w.pile().methods.sky.model == Model::stars);
    const std::optional<Point> pole = pole_in(w.pile());
    REQUIRE(pole);
    const auto told = w.window.findChildren<QLabel*>();
    CHECK(std::any_of(told.begin(), told.end(), [&](const QLabel* label) {
        return label->isVisible() &&
               label->text().contains(
                   QStringLiteral("Pole of the sky at %1, %2").arg(pole->x, 0, 'f', 1).arg(pole->y, 0, 'f', 1));
    }));

    // A ring in the colour of the lamp, which is not there in other steps.
    app::Canvas& canvas = w.window.canvas();
    const QPointF pole_on_canvas(pole->x + 0.5, pole->y + 0.5);
    const auto amber_on_ring = [&] {
        const QImage seen = canvas.grab().toImage();
        const QPointF middle = canvas.to_screen(pole_on_canvas) * seen.devicePixelRatio();
        const QColor amber = app::theme().amber;
        int found = 0;
        for (int degree = 0; degree < 360; degree += 3) {
            const double angle = degree * 3.14159265 / 180;
            const QPoint at =
                (middle + 11 * seen.devicePixelRatio() * QPointF(std::cos(angle), std::sin(angle))).toPoint();
            if (!seen.rect().contains(at)) continue;
            const QColor colour = seen.pixelColor(at);
            found += std::abs(colour.red() - amber.red()) + std::abs(colour.green() - amber.green()) +
                                 std::abs(colour.blue() - amber.blue()) <
                             120
                         ? 1
                         : 0;
        }
        return found;
    };
    CHECK(amber_on_ring() > 70);
    w.click("knot_3");
    REQUIRE(w.settle());
    CHECK(amber_on_ring() < 20);

    // By hand a frame turns about the pole. Away from it, the pivot stays where it was put; near it, it jumps there.
    w.click("knot_2");
    w.studio().select(w.pile().frames.back().id == w.pile().reference ? w.pile().frames.front().id
                                                                      : w.pile().frames.back().id);
    w.click("page_hand");
    REQUIRE(w.settle());
    const auto still_after_a_turn = [&](QPointF at) {
        const auto place = [&] { return placement(w.pile(), *find_frame(w.pile(), w.studio().current())); };
        const Placement before = place();
        w.click("turn_right");
        const Point on_frame = before.to_frame({at.x() - 0.5, at.y() - 0.5});
        const Point after = place().to_canvas(on_frame);
        w.studio().document().undo();
        return std::hypot(after.x - (at.x() - 0.5), after.y - (at.y() - 0.5));
    };
    CHECK(still_after_a_turn(pole_on_canvas) < 0.01);
    const double near = 9 / canvas.zoom();
    const QPointF far_off = pole_on_canvas + QPointF(60, 45) / canvas.zoom();
    w.stroke({pole_on_canvas, far_off});
    CHECK(still_after_a_turn(pole_on_canvas) > 0.02);
    w.stroke({far_off, pole_on_canvas + QPointF(near, 0)});
    CHECK(still_after_a_turn(pole_on_canvas) < 0.01);
}

TEST_CASE("where aligning may look is painted, and holds back what moves there", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    w.click("trust");
    CHECK(w.window.canvas().painting());
    Brush brush = w.window.canvas().brush();
    brush.size = 120;
    w.window.canvas().set_brush(brush);
    w.stroke({{80, 100}, {200, 100}, {200, 220}});
    REQUIRE_FALSE(w.pile().trust.empty());
    CHECK(w.pile().trust.at(200, 160) == 255);
    CHECK(w.pile().trust.at(400, 160) == 0);
    CHECK(w.pile().parts.empty());
    w.click("align_shift");
    REQUIRE(w.settle());
    CHECK(shift_of(w, w.pile().frames[1].id).x == Approx(1.5).margin(0.05));
    w.click("trust_everywhere");
    CHECK(w.pile().trust.empty());
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK(w.pile().trust.empty());
    w.click("knot_3");
    CHECK_FALSE(w.window.canvas().painting());
}

TEST_CASE("the table shows how every frame lies, and choosing a row chooses the frame", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    w.click("align_rigid");
    REQUIRE(w.settle());
    w.click("align_table_shown");
    auto* table = w.find<QTreeWidget>("align_table");
    REQUIRE(table->isVisible());
    REQUIRE(table->topLevelItemCount() == 3);
    CHECK(table->topLevelItem(0)->text(7) == QLatin1String("reference"));
    CHECK(table->topLevelItem(2)->text(1).toDouble() == Approx(3).margin(0.05));
    CHECK(table->topLevelItem(2)->text(2).toDouble() == Approx(-2).margin(0.05));
    table->setCurrentItem(table->topLevelItem(1));
    CHECK(w.studio().current() == w.pile().frames[1].id);
    table->sortByColumn(1, Qt::DescendingOrder);
    CHECK(table->topLevelItem(0)->text(0) == QLatin1String("3"));
}

TEST_CASE("the table shows whole lines under every model, keys go through it, and frames that are lost say so",
          "[window]") {
    const Folder folder;
    write_moving(folder, 4, {480, 320}, {1.5, -1});
    test::write(folder / "f5.tif", test::landscape({480, 320}, Matrix::shift(4000, 3000), 9), 8);
    Window w;
    REQUIRE(w.open(folder));
    w.click("knot_2");
    w.click("align_table_shown");
    auto* table = w.find<QTreeWidget>("align_table");
    constexpr int scale = 4;
    constexpr int state = 7;
    struct Shown {
        const char* button;
        bool scaled;
    };
    for (const Shown& shown : {Shown{"align_shift", false}, Shown{"align_rigid", false},
                               Shown{"align_similarity", true}, Shown{"align_perspective", true}}) {
        INFO(shown.button);
        w.click(shown.button);
        REQUIRE(w.settle());
        REQUIRE(table->topLevelItemCount() == 5);
        CHECK(table->isColumnHidden(scale) != shown.scaled);
        CHECK_FALSE(table->horizontalScrollBar()->isVisible());
        CHECK(w.window.width() == 1280);  // there is room for it
        for (int c = 0; c < table->columnCount(); ++c) {
            INFO(c);
            // With what stands in it: nothing is cut off.
            for (int row = 0; row < table->topLevelItemCount() && !table->isColumnHidden(c); ++row)
                CHECK(table->sizeHintForIndex(table->model()->index(row, c)).width() <= table->columnWidth(c));
        }
        CHECK(table->topLevelItem(4)->text(state) == QLatin1String("lost"));
        CHECK(table->topLevelItem(4)->text(1).isEmpty());
        CHECK(table->topLevelItem(3)->text(state).isEmpty());
    }
    // From the second line down by keys: line and frame go together.
    table->setCurrentItem(table->topLevelItem(1));
    table->setFocus();
    QTest::keyClick(table, Qt::Key_Down);
    CHECK(w.studio().current() == w.pile().frames[2].id);
    QTest::keyClick(table, Qt::Key_Down, Qt::ShiftModifier);
    CHECK(w.studio().selected().size() == 2);
    w.click("align_table_shown");
    CHECK_FALSE(table->isVisible());
}

TEST_CASE("zones are painted, aligned and merged apart, and undone", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    w.click("page_zones");
    // The brush is in the hand only when it was taken.
    CHECK_FALSE(w.window.canvas().painting());
    w.click("sky_brush_keep");
    CHECK(w.window.canvas().painting());
    Brush brush = w.window.canvas().brush();
    brush.size = 300;
    brush.softness = 0;
    w.window.canvas().set_brush(brush);
    w.stroke({{10, 20}, {470, 20}});
    REQUIRE(w.pile().zones);
    CHECK(w.pile().zones->sky.at(240, 100) == 255);
    CHECK(w.pile().zones->sky.at(240, 250) == 0);
    w.click("page_place");
    w.click("align_on_sky");
    w.click("align_shift");
    REQUIRE(w.settle());
    CHECK(w.pile().methods.sky.model == Model::shift);
    CHECK(w.pile().methods.land.model == Model::none);
    w.click("align_on_land");
    w.click("align_rigid");
    REQUIRE(w.settle());
    CHECK(w.pile().methods.sky.model == Model::shift);
    CHECK(w.pile().methods.land.model == Model::rigid);
    CHECK(w.pile().frames[2].places.land->to_reference.m()[2] == Approx(3).margin(0.05));
    w.click("knot_3");
    const Mode sky = w.pile().methods.sky.mode;
    w.click("mode_minimum");
    CHECK(w.pile().methods.land.mode == Mode::minimum);
    CHECK(w.pile().methods.sky.mode == sky);
    w.click("merge_on_sky");
    w.click("mode_mean");
    CHECK(w.pile().methods.sky.mode == Mode::mean);
    CHECK(w.pile().methods.land.mode == Mode::minimum);
    w.click("knot_2");
    w.click("page_zones");
    w.click("zones_snap");
    REQUIRE(w.settle());
    CHECK(w.studio().document().undo_text() == QLatin1String("Snap sky and land to edges"));
    w.click("zones_remove");
    CHECK_FALSE(w.pile().zones);
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK_FALSE(w.pile().zones);
    CHECK(w.pile().methods.sky.model == Model::none);
}

TEST_CASE("the cover is seen, and the crop is dragged, typed and taken back", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    w.click("align_shift");
    REQUIRE(w.settle());
    const Rect full = full_cover(w.pile());
    w.click("page_cover");
    REQUIRE(w.settle());
    CHECK(w.window.viewer().view() == app::View::cover);
    CHECK(w.window.viewer().area() == whole(w.pile().size));
    // Corners that the last frame does not reach are grey, the middle is the picture.
    const auto corner = w.window.viewer().colour_at(0, 319);
    REQUIRE(corner);
    CHECK(corner->red() == corner->blue());
    w.stroke({{double(full.right()), 160}, {400, 160}, {380, 160}});
    REQUIRE(w.pile().crop);
    CHECK(std::abs(w.pile().crop->right() - 380) <= 2);
    CHECK(w.pile().crop->top == full.top);
    // Its inside moves all of it, never out of the canvas.
    const Rect dragged = *w.pile().crop;
    w.stroke({{200, 160}, {206, 150}, {206, 60}});
    CHECK(w.pile().crop->size() == dragged.size());
    CHECK(w.pile().crop->top == 0);
    CHECK(w.pile().crop->left > dragged.left);
    // By keys alone: a press in its middle, held while the mark moves.
    const Rect moved = *w.pile().crop;
    app::Canvas& canvas = w.window.canvas();
    canvas.setFocus();
    const QPointF middle(moved.left + moved.width / 2.0, moved.top + moved.height / 2.0);
    w.walk({206, 60}, middle);
    QTest::keyPress(&canvas, Qt::Key_Return);
    w.walk(middle, middle + QPointF(-4, 8));
    QTest::keyRelease(&canvas, Qt::Key_Return);
    CHECK(w.pile().crop->size() == moved.size());
    CHECK(std::abs(w.pile().crop->left - (moved.left - 4)) <= 2);
    // The canvas ends below it.
    CHECK(w.pile().crop->bottom() == w.pile().size.height);
    w.enter("crop_left", 50);
    CHECK(w.pile().crop->left == 50);
    CHECK(output_area(w.pile()) == *w.pile().crop);
    w.click("crop_full");
    CHECK(*w.pile().crop == full);
    w.click("page_place");
    CHECK(w.window.viewer().view() == app::View::result);
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK_FALSE(w.pile().crop);
}

TEST_CASE("frames are in view while they are aligned on opening; what is done meanwhile stays, and is not asked about",
          "[window]") {
    const Folder folder;
    Window w;
    REQUIRE(bring_large(w, folder));
    CHECK(w.pile().methods.sky.model == Model::none);
    w.key(Qt::Key_Right);
    w.key(Qt::Key_A);
    REQUIRE(w.pile().frames[1].aside);
    REQUIRE(w.studio().placing().busy());
    w.click("export");
    w.click("export_now");
    CHECK(w.told().contains(QStringLiteral("still being aligned")));
    REQUIRE(w.settle());
    CHECK(w.pile().methods.sky.model == Model::rigid);
    CHECK(w.pile().frames[1].aside);
    CHECK(all_aligned(w));
    CHECK(std::abs(shift_of(w, w.pile().frames[2].id).x - 4) < 0.2);
    CHECK(w.studio().document().edited());
    w.click("undo");
    CHECK_FALSE(w.pile().frames[1].aside);
    CHECK(all_aligned(w));
    CHECK_FALSE(w.studio().document().can_undo());
    CHECK_FALSE(w.studio().document().edited());
}

TEST_CASE("who takes another reference under a crop is told how far the picture moved, and may undo it", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    w.click("align_shift");
    REQUIRE(w.settle());
    w.click("knot_0");
    w.studio().select(w.pile().frames[2].id);
    w.click("as_reference");
    CHECK_FALSE(w.told().contains(QStringLiteral("lies")));
    w.key(Qt::Key_Z, Qt::ControlModifier);
    w.click("knot_2");
    w.click("page_cover");
    w.enter("crop_left", 50);
    REQUIRE(w.pile().crop);
    const Rect crop = *w.pile().crop;
    w.click("knot_0");
    w.click("as_reference");
    CHECK(w.told().contains(QStringLiteral("lies 3.6 px elsewhere")));
    CHECK(*w.pile().crop == crop);
    const int now = w.pile().reference;
    w.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(w.pile().reference != now);
}

TEST_CASE("a pile that is saved while its frames are aligned is still to be saved", "[window]") {
    const Folder folder;
    Window w;
    REQUIRE(bring_large(w, folder));
    {
        const Answering dialog(choose({folder / "early.pile"}));
        w.key(Qt::Key_S, Qt::ControlModifier);
        REQUIRE(dialog.came());
    }
    REQUIRE(wait_for([&] { return !w.studio().writing(); }));
    REQUIRE(w.settle());
    CHECK(all_aligned(w));
    CHECK(w.studio().document().edited());
}

TEST_CASE("aligning on opening is stopped, or gives way to another model, and the frames stay open", "[window]") {
    const Folder folder;
    Window w;
    REQUIRE(bring_large(w, folder));
    SECTION("stopped") {
        REQUIRE(wait_for([&] { return w.seen<QPushButton>("stop") != nullptr; }));
        w.click(w.seen<QPushButton>("stop"));
        CHECK_FALSE(w.studio().placing().busy());
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == Model::none);
        CHECK(w.pile().frames.size() == many);
        CHECK(w.export_to(folder / "lies.tif"));
    }
    SECTION("another model") {
        w.click("knot_2");
        w.click("align_shift");
        CHECK_FALSE(w.studio().placing().busy());
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == Model::shift);
        CHECK(all_aligned(w));
        w.click("undo");
        CHECK(w.pile().methods.sky.model == Model::none);
    }
    SECTION("another outcome") {
        w.studio().choose_outcome(Outcome::clear);
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == Model::none);
        CHECK(w.pile().methods.sky.mode == Mode::median);
    }
    SECTION("another reference") {
        w.key(Qt::Key_Right);
        w.click("as_reference");
        REQUIRE(w.pile().reference == w.pile().frames[1].id);
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == Model::rigid);
        CHECK(w.pile().reference == w.pile().frames[1].id);
        CHECK(all_aligned(w));
        CHECK(std::abs(shift_of(w, w.pile().frames[2].id).x - 2) < 0.2);
    }
    SECTION("the reference removed, and the next one, too") {
        w.key(Qt::Key_Delete);
        REQUIRE(wait_for([&] { return w.studio().finding().busy(); }));
        w.key(Qt::Key_Delete);
        REQUIRE(w.pile().frames.size() == many - 2);
        REQUIRE(w.settle());
        CHECK(w.pile().methods.sky.model == Model::rigid);
        CHECK(w.pile().reference == w.pile().frames[0].id);
        CHECK(all_aligned(w));
        CHECK(std::abs(shift_of(w, w.pile().frames[1].id).x - 2) < 0.2);
    }
    SECTION("frames that come") {
        write(folder / "late.jpg", moving_view(large_scene(), large, many), 8);
        w.drop({folder / "late.jpg"});
        REQUIRE(w.settle());
        CHECK(w.pile().frames.size() == many + 1);
        CHECK(all_aligned(w));
    }
}
