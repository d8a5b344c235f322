#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "app/looks/theme.h"
#include "app/rail/time_rail.h"
#include "pile/edits.h"
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

namespace {

// What an eye sees of a picture: in light, by the colours it can tell (Machado, Oliveira and Fernandes, "A
// physiologically-based model for simulation of color vision deficiency", 2009, table of full severity), or by
// brightness alone.
using Eye = std::array<std::array<double, 3>, 3>;
const std::map<std::string, Eye> eyes{
    {"grey", {{{0.2126, 0.7152, 0.0722}, {0.2126, 0.7152, 0.0722}, {0.2126, 0.7152, 0.0722}}}},
    {"no red", {{{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}}}},
    {"no green", {{{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}}}},
    {"no blue", {{{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}}}};

QImage seen_by(const Eye& eye, QImage picture) {
    const auto light = [](int v) { return std::pow(v / 255.0, 2.2); };
    const auto sample = [](double v) { return int(std::lround(255 * std::pow(std::clamp(v, 0.0, 1.0), 1 / 2.2))); };
    picture = picture.convertToFormat(QImage::Format_RGB32);
    for (int y = 0; y < picture.height(); ++y)
        for (int x = 0; x < picture.width(); ++x) {
            const QRgb c = picture.pixel(x, y);
            std::array<double, 3> in{light(qRed(c)), light(qGreen(c)), light(qBlue(c))}, out{};
            for (std::size_t i = 0; i < 3; ++i)
                for (std::size_t j = 0; j < 3; ++j) out[i] += eye[i][j] * in[j];
            picture.setPixel(x, y, qRgb(sample(out[0]), sample(out[1]), sample(out[2])));
        }
    return picture;
}

// Pixels that differ clearly.
int apart(const QImage& a, const QImage& b) {
    constexpr int clear = 24;
    int out = 0;
    for (int y = 0; y < std::min(a.height(), b.height()); ++y)
        for (int x = 0; x < std::min(a.width(), b.width()); ++x) {
            const QRgb p = a.pixel(x, y), q = b.pixel(x, y);
            const int most =
                std::max({std::abs(qRed(p) - qRed(q)), std::abs(qGreen(p) - qGreen(q)), std::abs(qBlue(p) - qBlue(q))});
            out += most > clear ? 1 : 0;
        }
    return out;
}

}  // namespace

TEST_CASE("what the rail marks on a frame is told apart by shape: in grey and without a colour, in both themes",
          "[window]") {
    const Folder folder;
    for (int i = 1; i <= 8; ++i) {
        CaptureData capture;
        capture.captured = 1789251245.0 + 30.0 * i;
        capture.exposure_s = 20;
        write(folder / ("f" + std::to_string(i) + ".png"), speckle_8({40, 30}, 3, 5), 8, {}, capture);
    }
    Rail r;
    REQUIRE(r.w.open(folder));
    // The first is what the window begins with; the second is plain.
    Pile pile = r.w.pile();
    const auto of = [&](std::size_t i) { return std::vector<int>{pile.frames[i].id}; };
    pile = with_aside(std::move(pile), of(2), true);
    pile = with_problem(std::move(pile), pile.frames[3].id, Saying(std::string("gone")));
    pile = with_role(std::move(pile), of(4), Role::dark);
    pile = with_role(std::move(pile), of(5), Role::foreground);
    pile = with_reference(std::move(pile), pile.frames[6].id);
    r.w.studio().document().edit(pile, "States");
    REQUIRE(r.w.settle());
    // The reference carries its cross once there is something that was measured against it.
    REQUIRE(wait_for([&] { return r.w.window.surveyor().complete(); }));
    for (const app::ThemeName theme : {app::ThemeName::dusk, app::ThemeName::noon}) {
        app::apply_theme(*qApp, theme);
        let_pass();
        const QImage rail = r.rail->grab().toImage();
        for (const auto& [name, eye] : eyes) {
            const QImage seen = seen_by(eye, rail);
            std::vector<QImage> slats;
            for (const std::size_t i : {1, 0, 2, 3, 4, 5, 6}) {
                const QRectF place = r.slat(i).adjusted(-3, -14, 3, 16);
                slats.push_back(seen.copy(place.toRect()));
            }
            // Two plain ones are alike: what follows can fail.
            const QImage plain = seen.copy(r.slat(7).adjusted(-3, -14, 3, 16).toRect());
            CHECK(apart(slats[0], plain) < 12);
            for (std::size_t a = 0; a < slats.size(); ++a)
                for (std::size_t b = a + 1; b < slats.size(); ++b) {
                    INFO(name << ", " << int(theme) << ": " << a << " and " << b);
                    CHECK(apart(slats[a], slats[b]) >= 12);
                }
        }
    }
    app::apply_theme(*qApp, app::ThemeName::dusk);
}
