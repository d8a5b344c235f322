#include <catch2/catch.hpp>

#include "app/rail/time_rail.h"
#include "support/window.h"

using namespace bp;
using namespace bp::test;

namespace {

void run_of(const Folder& folder, const std::vector<std::pair<double, double>>& begins_and_lengths) {
    int i = 0;
    for (const auto& [begin, length] : begins_and_lengths) {
        CaptureData capture;
        capture.captured = 1789251245.0 + begin;
        capture.exposure_s = length;
        ++i;
        write(folder / ("f" + std::to_string(i) + ".png"), speckle_8({40, 30}, 3, unsigned(i)), 8, {}, capture);
    }
}

struct Rail {
    Window w;
    app::TimeRail* rail = w.find<app::TimeRail>("time_rail");
    QRectF slat(std::size_t i) { return rail->slat_of(w.pile().frames[i].id); }
    QPoint middle(std::size_t i) { return slat(i).center().toPoint(); }
};

}  // namespace

TEST_CASE("slats stand at their times, as wide as their exposures, so pauses are gaps", "[window]") {
    const Folder folder;
    run_of(folder, {{0, 25}, {30, 25}, {60, 25}, {100, 15}});
    Rail r;
    REQUIRE(r.w.open(folder));
    const double unit = r.slat(1).left() - r.slat(0).left();
    CHECK(r.slat(0).width() == Approx(unit * 25 / 30).epsilon(0.02));
    CHECK(r.slat(2).left() - r.slat(1).left() == Approx(unit).epsilon(0.01));
    CHECK(r.slat(3).left() - r.slat(2).left() == Approx(unit * 40 / 30).epsilon(0.01));
    CHECK(r.slat(3).width() < r.slat(2).width());
    CHECK(r.slat(3).right() <= r.rail->width());
}

TEST_CASE("a click chooses, shift extends, control toggles, a double click sets aside, a drag scrubs", "[window]") {
    const Folder folder;
    run_of(folder, {{0, 25}, {30, 25}, {60, 25}, {90, 25}, {120, 25}});
    Rail r;
    REQUIRE(r.w.open(folder));
    const auto id = [&](std::size_t i) { return r.w.pile().frames[i].id; };
    QTest::mouseClick(r.rail, Qt::LeftButton, Qt::NoModifier, r.middle(1));
    CHECK(r.w.studio().current() == id(1));
    CHECK(r.w.window.viewer().view() == app::View::frame);
    QTest::mouseClick(r.rail, Qt::LeftButton, Qt::ShiftModifier, r.middle(3));
    CHECK(r.w.studio().selected() == std::vector<int>{id(1), id(2), id(3)});
    r.w.key(Qt::Key_A);
    CHECK(merged_ids(r.w.pile()) == std::vector<int>{id(0), id(4)});
    r.w.key(Qt::Key_A);
    CHECK(merged_ids(r.w.pile()).size() == 5);
    QTest::mouseClick(r.rail, Qt::LeftButton, Qt::ControlModifier, r.middle(2));
    CHECK(r.w.studio().selected().size() == 2);
    QTest::mouseClick(r.rail, Qt::LeftButton, Qt::NoModifier, r.middle(4));
    QTest::mouseDClick(r.rail, Qt::LeftButton, Qt::NoModifier, r.middle(4));
    CHECK(r.w.pile().frames[4].aside);
    QTest::mousePress(r.rail, Qt::LeftButton, Qt::NoModifier, r.middle(0));
    for (const std::size_t i : {1U, 2U, 3U}) {
        const QPointF p = r.middle(i);
        QMouseEvent move(QEvent::MouseMove, p, r.rail->mapToGlobal(p), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(r.rail, &move);
        CHECK(r.w.studio().current() == id(i));
    }
    QTest::mouseRelease(r.rail, Qt::LeftButton);
}

TEST_CASE("the rail works by keyboard", "[window]") {
    const Folder folder;
    run_of(folder, {{0, 25}, {30, 25}, {60, 25}, {90, 25}});
    Rail r;
    REQUIRE(r.w.open(folder));
    r.rail->setFocus();
    QTest::keyClick(r.rail, Qt::Key_End);
    CHECK(r.w.studio().current() == r.w.pile().frames[3].id);
    QTest::keyClick(r.rail, Qt::Key_Home, Qt::ShiftModifier);
    CHECK(r.w.studio().selected().size() == 4);
    CHECK(r.w.studio().current() == r.w.pile().frames[0].id);
    QTest::keyClick(r.rail, Qt::Key_Right);
    CHECK(r.w.studio().current() == r.w.pile().frames[1].id);
    CHECK(r.w.studio().selected().size() == 1);
    QTest::keyClick(r.rail, Qt::Key_PageDown, Qt::ShiftModifier);
    CHECK(r.w.studio().selected().size() == 3);
}

TEST_CASE("frames without times stand evenly, and a long pause is shortened", "[window]") {
    const Folder folder;
    for (int i = 0; i < 4; ++i)
        write(folder / ("f" + std::to_string(i) + ".png"), speckle_8({40, 30}, 3, unsigned(i)), 8);
    {
        Rail r;
        REQUIRE(r.w.open(folder));
        const double step = r.slat(1).left() - r.slat(0).left();
        CHECK(r.slat(3).left() - r.slat(2).left() == Approx(step));
    }
    const Folder long_pause;
    run_of(long_pause, {{0, 25}, {30, 25}, {60, 25}, {90, 25}, {90000, 25}});
    Rail r;
    REQUIRE(r.w.open(long_pause));
    const double step = r.slat(1).left() - r.slat(0).left();
    CHECK(r.slat(4).left() - r.slat(3).left() > 2 * step);
    CHECK(r.slat(4).left() - r.slat(3).left() < 5 * step);
}
