// The Align step, used as a person uses it.
#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <catch2/catch.hpp>
#include <cmath>

#include "pile/edits.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

// Three frames that move, the Align step open.
void begin(Window& w, const Folder& folder) {
    write_moving(folder, 3, {480, 320}, {1.5, -1});
    REQUIRE(w.open(folder));
    QTest::mouseClick(w.find<QWidget>("knot_2"), Qt::LeftButton);
}

Point shift_of(Window& w, int id) {
    return placement(w.pile(), *find_frame(w.pile(), id)).to_canvas({0, 0});
}

}  // namespace

TEST_CASE("a frame is moved by keys and buttons in steps, refined from there, and all of it undone", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    const int second = w.pile().frames[1].id;
    w.studio().select(second);
    w.window.viewer().set_view(app::View::difference);
    QTest::keyClick(&w.window, Qt::Key_Right, Qt::AltModifier);
    CHECK(shift_of(w, second).x == Approx(1));
    CHECK(find_frame(w.pile(), second)->alignment->by_hand);
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
    CHECK(std::abs(find_frame(w.pile(), second)->alignment->to_reference.m[1]) > 1e-5);
    w.click("refine");
    REQUIRE(w.settle());
    CHECK(shift_of(w, second).x == Approx(1.5).margin(0.05));
    CHECK(shift_of(w, second).y == Approx(-1).margin(0.05));
    while (w.studio().document().can_undo()) w.studio().document().undo();
    CHECK(w.pile().model == Model::none);
}

TEST_CASE("what was placed by hand stays when the others are aligned", "[window]") {
    const Folder folder;
    Window w;
    begin(w, folder);
    const int third = w.pile().frames[2].id;
    w.studio().select(third);
    w.click("nudge_left");
    w.click("align_shift");
    REQUIRE(w.settle());
    CHECK(w.pile().model == Model::shift);
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
