// Bends, and places in the numbers that a person knows; piles that hold them.
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "align/moved.h"
#include "image/placement.h"
#include "kernels/source_map.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

SharedFlex waves(double amount, double step = 40, int columns = 12, int rows = 10) {
    std::vector<float> across, down;
    for (int j = 0; j < rows; ++j)
        for (int i = 0; i < columns; ++i) {
            across.push_back(float(amount * std::sin(0.9 * i + 0.4 * j)));
            down.push_back(float(amount * std::cos(0.7 * j - 0.3 * i)));
        }
    return std::make_shared<const Flex>(Flex::Grid{{-20, -15}, step, columns, rows}, across, down);
}

double apart(Point a, Point b) {
    return std::hypot(a.x - b.x, a.y - b.y);
}

}  // namespace

TEST_CASE("a bend goes through its nodes, is smooth between them and stays as it is beyond") {
    const SharedFlex flex = waves(3);
    const Flex::Grid& grid = flex->grid();
    for (int j = 0; j < grid.rows; ++j)
        for (int i = 0; i < grid.columns; ++i) {
            const Point d = flex->at({grid.first.x + i * grid.step, grid.first.y + j * grid.step});
            const auto node = std::size_t(j) * std::size_t(grid.columns) + std::size_t(i);
            CHECK(d.x == Approx(double(flex->across()[node])).margin(1e-6));
            CHECK(d.y == Approx(double(flex->down()[node])).margin(1e-6));
        }
    for (double x = 0; x < 380; x += 0.5) CHECK(apart(flex->at({x, 100}), flex->at({x + 0.5, 100})) < 0.08);
    CHECK(apart(flex->at({-500, 60}), flex->at({grid.first.x, 60})) < 1e-9);
    CHECK(flex->largest() <= 3 * std::sqrt(2.0));
    // Constant shifts are constant everywhere.
    const Flex even({{0, 0}, 10, 4, 4}, std::vector<float>(16, 1.5F), std::vector<float>(16, -2));
    CHECK(apart(even.at({17.3, 4.2}), {1.5, -2}) < 1e-6);
}

TEST_CASE("a bend has no shift of its own for what is no place") {
    const Flex flex({{0, 0}, 10, 2, 2}, {1, 2, 3, 4}, {5, 6, 7, 8});
    const double none = std::nan("");
    CHECK(flex.at({none, none}) == flex.at({0, 0}));
    CHECK(flex.at({none, 10}) == flex.at({0, 10}));
    CHECK(flex.at({-1e300, 1e300}) == flex.at({0, 10}));
}

TEST_CASE("bends are alike by their values, and their fingerprints tell them apart") {
    CHECK(same(waves(2), waves(2)));
    CHECK_FALSE(same(waves(2), waves(2.001)));
    CHECK_FALSE(same(waves(2), nullptr));
    CHECK(same(nullptr, nullptr));
    CHECK(waves(2)->fingerprint() == waves(2)->fingerprint());
    CHECK(waves(2)->fingerprint() != waves(2.001)->fingerprint());
    CHECK(waves(2)->fingerprint() != waves(2, 41)->fingerprint());
}

TEST_CASE("a bent placement leads there and back, at every level alike") {
    for (const std::optional<Lens>& lens :
         {std::optional<Lens>(), std::optional(Lens{{199.5, 149.5}, 300, -0.06, 0})}) {
        const Placement place{Matrix::rigid(0.05, {200, 150}, 4, -6), lens, {0.4, -0.2}, waves(3)};
        CHECK_FALSE(place.is_identity());
        CHECK_FALSE(place.is_affine());
        for (double y = 5; y < 300; y += 37)
            for (double x = 5; x < 400; x += 43) {
                CHECK(apart(place.to_frame(place.to_canvas({x, y})), {x, y}) < 1e-6);
                const Point fine = place.to_canvas({2 * x + 0.5, 2 * y + 0.5});
                const Point coarse = at_level(place, 1).to_canvas({x, y});
                CHECK(coarse.x == Approx((fine.x + 0.5) / 2 - 0.5).margin(1e-6));
                CHECK(coarse.y == Approx((fine.y + 0.5) / 2 - 0.5).margin(1e-6));
            }
    }
    CHECK(same(from_level(at_level(waves(4), 2), 2), waves(4)));
    CHECK_FALSE(Placement({}, {}, {}, waves(0.5)).is_identity());
}

TEST_CASE("the way to the source follows a bend closely between its knots") {
    const Size size{400, 300};
    const Placement place{Matrix::rigid(0.01, {200, 150}, 2, 1), {}, {}, waves(2)};
    const kernels::SourceMap map(place, size);
    kernels::RowPlaces places(map, {0, size.width});
    double worst = 0;
    for (int y = 0; y < size.height; y += 7) {
        places.go_to(y);
        for (int x = 0; x < size.width; x += 5)
            worst = std::max(worst, apart(places.at(x), place.to_frame({double(x), double(y)})));
    }
    CHECK(worst < 0.15);
}

TEST_CASE("a frame's place is told in shift, turn and scale, and led to other numbers") {
    const Size size{301, 201};
    Alignment place;
    place.to_reference = Matrix::shift(3, -2) * turned_and_scaled(0.1, 1.2, {150, 100});
    const MovedBy now = moved_by(place, size);
    CHECK(now.right_px == Approx(3));
    CHECK(now.down_px == Approx(-2));
    CHECK(now.turn_degrees == Approx(0.1 * 180 / 3.14159265358979));
    CHECK(now.scale == Approx(1.2));
    for (const MovedBy& then : {MovedBy{-7, 4, 12, 0.9}, MovedBy{3, -2, 0, 1}, MovedBy{0, 0, now.turn_degrees, 1.2}}) {
        Alignment led = place;
        led.to_reference = change_between(now, then, size) * led.to_reference;
        const MovedBy reached = moved_by(led, size);
        CHECK(reached.right_px == Approx(then.right_px).margin(1e-9));
        CHECK(reached.down_px == Approx(then.down_px).margin(1e-9));
        CHECK(reached.turn_degrees == Approx(then.turn_degrees).margin(1e-9));
        CHECK(reached.scale == Approx(then.scale));
    }
    CHECK(turned_and_scaled(0.4, 2, {30, 40})({30, 40}).x == Approx(30));
}

TEST_CASE("a bend is carried over to another reference, and moved by hand with its frame") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {320, 240}, 8);
    Alignment second, third;
    second.to_reference = Matrix::rigid(0.01, {160, 120}, 3, 1);
    second.flex = waves(2);
    third.to_reference = Matrix::shift(-4, 2);
    third.flex = waves(1.5, 50);
    pile = with_alignments(pile, Model::flex, 1, {{1, {}}, {2, second}, {3, third}});
    const Pile other = with_reference(pile, 2);
    CHECK(placement(other, other.frames[1]).is_identity());
    for (const int k : {0, 2})
        for (double y = 30; y < 220; y += 40)
            for (double x = 30; x < 300; x += 45) {
                // The same two places of the frames still lie on each other.
                const Point shared = placement(pile, pile.frames[1]).to_canvas({x, y});
                const Point before = placement(pile, pile.frames[std::size_t(k)]).to_frame(shared);
                const Point after = placement(other, other.frames[std::size_t(k)]).to_frame({x, y});
                CHECK(apart(before, after) < 0.2);
            }
    const Pile moved = with_moved_by_hand(pile, 3, Matrix::shift(5, -3));
    for (double y = 40; y < 200; y += 50) {
        const Point before = placement(pile, pile.frames[2]).to_canvas({150, y});
        const Point after = placement(moved, moved.frames[2]).to_canvas({150, y});
        CHECK(after.x - before.x == Approx(5).margin(0.05));
        CHECK(after.y - before.y == Approx(-3).margin(0.05));
    }
}

TEST_CASE("a place that cannot be does not get into a pile") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {40, 30}, 8);
    const int id = pile.frames[1].id;
    const auto set = [&](const Alignment& place) { return *with_alignment(pile, id, place).frames[1].places.sky; };
    Alignment good;
    good.to_reference = Matrix::rigid(0.2, {200, 150}, 10, 5);
    good.flex = waves(3);
    CHECK(set(good) == good);
    const double no_number = std::nan("");
    const double endless = std::numeric_limits<double>::infinity();
    for (const double bad : {no_number, endless, -endless, 1e300}) {
        Alignment far = good;
        far.sensor = {bad, 0};
        CHECK_FALSE(set(far).aligned);
        far = good;
        far.to_reference = Matrix::shift(0, bad);
        CHECK_FALSE(set(far).aligned);
        far = good;
        far.lens = Lens{{20, 15}, 30, bad, 0};
        CHECK_FALSE(set(far).aligned);
    }
    Alignment flat = good;
    flat.to_reference = Matrix({1, 0, 0, 1, 0, 0, 0, 0, 1});
    CHECK_FALSE(set(flat).aligned);
    Alignment torn = good;
    torn.flex = std::make_shared<const Flex>(Flex::Grid{{0, 0}, 50, 2, 2}, std::vector<float>{0, 1, 2, std::nanf("")},
                                             std::vector<float>{0, 0, 0, 0});
    CHECK_FALSE(set(torn).aligned);
    Alignment odd = good;
    odd.confidence = no_number;
    odd.residual_px = endless;
    CHECK(set(odd).aligned);
    CHECK(set(odd).confidence == 0);
    CHECK(set(odd).residual_px == 0);
    // Nor by hand.
    const Pile placed = with_alignments(pile, Model::rigid, pile.frames[0].id, {{id, good}});
    CHECK(with_moved_by_hand(placed, id, Matrix::shift(no_number, 0)) == placed);
}

TEST_CASE("a matrix has 1 as its last element, however it is made") {
    const Matrix twice({2, 0, 4, 0, 2, 6, 0, 0, 2});
    CHECK(twice == Matrix::shift(2, 3));
    const Matrix tilted({1.01, 0.02, 5, -0.01, 0.99, -7, 1e-4, -2e-4, 1});
    for (const Matrix& m : {inverse(tilted), tilted * tilted, at_level(tilted, 3), from_level(tilted, 2),
                            inverse(tilted) * Matrix::rigid(0.4, {10, 20}, 3, 4) * tilted})
        CHECK(m.m()[8] == 1);
    CHECK(rms_distance(inverse(inverse(tilted)), tilted, {3000, 2000}) < 1e-6);
    CHECK_FALSE(Matrix({1, 0, 0, 0, 1, 0, 0, 0, 0}).finite());
}

TEST_CASE("what lies behind the camera of a frame is not reached by it, and takes no part") {
    // The frame looks far to the side: a part of the canvas is behind it.
    const double f = 60;
    const Size size{100, 80};
    const Matrix to_pixels({f, 0, 49.5, 0, f, 39.5, 0, 0, 1});
    for (const double angle : {0.5, 1.2, 1.6, 2.2, 3.0}) {
        INFO(angle);
        const Matrix turn({std::cos(angle), 0, std::sin(angle), 0, 1, 0, -std::sin(angle), 0, std::cos(angle)});
        const Matrix to_canvas = to_pixels * turn * inverse(to_pixels);
        if (!to_canvas.finite() || !inverse(to_canvas).finite()) continue;
        const kernels::SourceMap map(Placement(to_canvas), size);
        kernels::RowPlaces places(map, {0, size.width});
        for (int y = 0; y < size.height; ++y) {
            places.go_to(y);
            const kernels::Span covered = places.covered({0, size.width});
            for (int x = covered.begin; x < covered.end; ++x) {
                // The direction of the pixel, turned back into the frame's camera, lies before it.
                const double u = (x - 49.5) / f;
                const double before = std::sin(angle) * u + std::cos(angle);
                if (before < 0.02) FAIL("pixel " << x << " " << y << " is behind");
            }
            if (!covered.empty()) {
                const kernels::Reach reach = places.rows(covered);
                CHECK(reach.first > -200000000);
                CHECK(reach.last < 200000000);
            }
        }
    }
}
