// The turning sky, against truth.
#include "align/sky.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

#include "align/pole.h"
#include "base/parallel.h"
#include "engine/aligning.h"
#include "engine/open.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

using Vec = std::array<double, 3>;

constexpr double turn_per_second = 2 * std::numbers::pi / 86164.0905;

Vec turned_about(const Vec& v, const Vec& axis, double angle) {
    const double c = std::cos(angle);
    const double s = std::sin(angle);
    const double along = (axis[0] * v[0] + axis[1] * v[1] + axis[2] * v[2]) * (1 - c);
    return {v[0] * c + (axis[1] * v[2] - axis[2] * v[1]) * s + axis[0] * along,
            v[1] * c + (axis[2] * v[0] - axis[0] * v[2]) * s + axis[1] * along,
            v[2] * c + (axis[0] * v[1] - axis[1] * v[0]) * s + axis[2] * along};
}

// A sky of random stars, seen through a lens, by a camera on a tripod. None of it is the practice camera's.
struct Sky {
    Size size{1500, 1000};
    double focal = 1100;
    double k1 = -0.08;
    Vec axis{0.1, -0.3, 0.95};
    double noise = 0.08;  // pixels
    std::vector<Vec> stars;
    std::mt19937 dice{7};

    explicit Sky(int count = 3000) {
        std::normal_distribution<double> any;
        for (int i = 0; i < count; ++i) {
            const Vec v{any(dice), any(dice), any(dice)};
            const double length = std::hypot(v[0], v[1], v[2]);
            stars.push_back({v[0] / length, v[1] / length, v[2] / length});
        }
        const double length = std::hypot(axis[0], axis[1], axis[2]);
        for (double& a : axis) a /= length;
    }

    void point_axis(Vec to) {
        const double length = std::hypot(to[0], to[1], to[2]);
        axis = {to[0] / length, to[1] / length, to[2] / length};
    }

    Lens lens() const { return {{(size.width - 1) / 2.0, (size.height - 1) / 2.0}, focal, k1, 0}; }

    std::optional<Point> seen(const Vec& star, double time_s) const {
        const Vec v = turned_about(star, axis, time_s * turn_per_second);
        if (v[2] < 0.3) return std::nullopt;
        const Lens l = lens();
        return l.seen({l.middle.x + focal * v[0] / v[2], l.middle.y + focal * v[1] / v[2]});
    }

    // The upper four fifths are sky; a tenth of what is found is no star.
    SkyFrame frame(double time_s, std::size_t most = 300, Point knock = {}) {
        std::normal_distribution<double> wrong(0, noise);
        std::uniform_real_distribution<double> anywhere(0, 1);
        SkyFrame out;
        out.time_s = 1.7e9 + time_s;
        for (std::size_t i = 0; i < stars.size() && out.stars.size() < most; ++i) {
            const auto p = seen(stars[i], time_s);
            if (!p || p->x < 8 || p->y < 8 || p->x > size.width - 9 || p->y > 0.8 * size.height) continue;
            if (anywhere(dice) < 0.1)
                out.stars.push_back({{anywhere(dice) * size.width, anywhere(dice) * size.height}, 1});
            else
                out.stars.push_back({{p->x + knock.x + wrong(dice), p->y + knock.y + wrong(dice)}, 1});
        }
        return out;
    }

    // Root of the mean squared error of a frame's placement over the sky that both frames see.
    double error(const Alignment& found, double time_s, Point knock = {}) const {
        const Lens l = lens();
        double sum = 0;
        int count = 0;
        for (int j = 0; j <= 16; ++j)
            for (int i = 0; i < 20; ++i) {
                const double x = i * size.width / 20.0;
                const double y = j * size.height / 20.0;
                const Point straight = l.straight({x, y});
                const Vec v{(straight.x - l.middle.x) / focal, (straight.y - l.middle.y) / focal, 1};
                const Vec back = turned_about(v, axis, -time_s * turn_per_second);
                if (back[2] < 0.1) continue;
                const Point truth =
                    l.seen({l.middle.x + focal * back[0] / back[2], l.middle.y + focal * back[1] / back[2]});
                if (truth.x < 0 || truth.y < 0 || truth.x > size.width || truth.y > size.height) continue;
                const Point got = found.placement().to_canvas({x + knock.x, y + knock.y});
                sum += (got.x - truth.x) * (got.x - truth.x) + (got.y - truth.y) * (got.y - truth.y);
                ++count;
            }
        return count > 0 ? std::sqrt(sum / count) : 0;
    }
};

struct Run {
    std::vector<double> times;
    std::vector<SkyFrame> frames;
};

Run run_of(Sky& sky, int count, double from_one_to_next) {
    Run out;
    for (int i = 0; i < count; ++i) {
        out.times.push_back(i * from_one_to_next);
        out.frames.push_back(sky.frame(out.times.back()));
    }
    return out;
}

// The error of the worst frame; far beyond any limit when none is placed.
double worst_error(const Sky& sky, const Run& run, std::size_t reference) {
    const auto placed = place_sky(run.frames, reference, sky.size);
    if (!placed) return 1e9;
    double worst = 0;
    for (std::size_t i = 0; i < run.times.size(); ++i)
        worst = std::max(worst, sky.error((*placed)[i], run.times[i] - run.times[reference]));
    return worst;
}

}  // namespace

TEST_CASE("a dense run is placed with the pole in the picture, and the lens and the pole are found") {
    Sky sky;
    const Run run = run_of(sky, 30, 30);
    CHECK(worst_error(sky, run, 0) < 0.1);
    const auto placed = place_sky(run.frames, 0, sky.size);
    REQUIRE(placed.has_value());
    CHECK(placed->back().lens->unit == Approx(sky.focal).epsilon(0.01));
    const Lens lens = sky.lens();
    const Point pole = lens.seen(
        {lens.middle.x + sky.focal * sky.axis[0] / sky.axis[2], lens.middle.y + sky.focal * sky.axis[1] / sky.axis[2]});
    const auto found = pole_of(*placed);
    REQUIRE(found.has_value());
    CHECK(std::hypot(found->x - pole.x, found->y - pole.y) < 2);
}

TEST_CASE("twenty frames over five hours are placed with the pole in the picture") {
    Sky sky;
    const Run run = run_of(sky, 20, 900);
    CHECK(worst_error(sky, run, 0) < 0.15);
}

TEST_CASE("the pole may lie far outside the picture, on either side of the sky") {
    for (const Vec& axis : {Vec{0, -0.9, 0.45}, Vec{0.8, 0.5, -0.3}, Vec{-1, 0.1, 0.05}}) {
        Sky sky(9000);
        sky.point_axis(axis);
        const Run run = run_of(sky, 16, 120);
        CHECK(worst_error(sky, run, 8) < 0.15);
    }
}

TEST_CASE("five hundred frames over two hours are placed") {
    Sky sky;
    const Run run = run_of(sky, 500, 14.4);
    CHECK(worst_error(sky, run, 250) < 0.15);
}

TEST_CASE("a knocked frame is placed where it lies, a clouded one by the clock, and neither drags the others") {
    Sky sky;
    Run run = run_of(sky, 24, 60);
    const Point knock{14, -9};
    run.frames[10] = sky.frame(run.times[10], 300, knock);
    run.frames[15].stars.resize(6);
    const auto placing = place_sky(run.frames, 0, sky.size);
    REQUIRE(placing.has_value());
    CHECK(sky.error((*placing)[10], run.times[10], knock) < 0.2);
    CHECK_FALSE((*placing)[10].by_clock);
    CHECK((*placing)[15].by_clock);
    CHECK(sky.error((*placing)[15], run.times[15]) < 0.3);
    CHECK(sky.error((*placing)[9], run.times[9]) < 0.1);
    CHECK(sky.error((*placing)[16], run.times[16]) < 0.1);
}

TEST_CASE("knocks of every size are found, in a sky so full that some stars meet others anywhere") {
    for (const double size : {0.7, 2.0, 4.0, 6.2, 11.0, 24.0, 45.0}) {
        INFO(size << " px");
        Sky sky(9000);
        Run run = run_of(sky, 14, 60);
        const Point knock{0.8 * size, -0.6 * size};
        run.frames[6] = sky.frame(run.times[6], 300, knock);
        run.frames[13] = sky.frame(run.times[13], 300, {-knock.y, knock.x});
        const auto placing = place_sky(run.frames, 0, sky.size);
        REQUIRE(placing.has_value());
        CHECK(sky.error((*placing)[6], run.times[6], knock) < 0.2);
        CHECK(sky.error((*placing)[13], run.times[13], {-knock.y, knock.x}) < 0.2);
        CHECK(sky.error((*placing)[12], run.times[12]) < 0.1);
    }
}

TEST_CASE("the sky is placed alike every time, with one thread and with many") {
    Sky sky;
    const Run run = run_of(sky, 20, 90);
    const auto many = place_sky(run.frames, 4, sky.size);
    REQUIRE(many.has_value());
    const ThreadLimit limit(1);
    const auto one = place_sky(run.frames, 4, sky.size);
    REQUIRE(one.has_value());
    for (std::size_t i = 0; i < run.frames.size(); ++i) {
        const Point a = (*many)[i].placement().to_canvas({700, 300});
        const Point b = (*one)[i].placement().to_canvas({700, 300});
        CHECK(std::hypot(a.x - b.x, a.y - b.y) < 1e-3);
    }
}

TEST_CASE("what stands still is no star, and frames without a sky in common are refused") {
    Sky sky;
    Run run = run_of(sky, 12, 60);
    std::uniform_real_distribution<double> anywhere(0, 1);
    for (int i = 0; i < 150; ++i) {
        const Point lamp{anywhere(sky.dice) * 1480 + 10, anywhere(sky.dice) * 980 + 10};
        for (SkyFrame& frame : run.frames) frame.stars.insert(frame.stars.begin(), {lamp, 5});
    }
    CHECK(worst_error(sky, run, 0) < 0.15);

    std::vector<SkyFrame> others;
    for (int i = 0; i < 6; ++i) {
        SkyFrame frame;
        frame.time_s = 60.0 * i;
        for (int k = 0; k < 120; ++k)
            frame.stars.push_back({{anywhere(sky.dice) * 1500, anywhere(sky.dice) * 1000}, 1});
        others.push_back(frame);
    }
    CHECK_FALSE(place_sky(others, 0, sky.size).has_value());
    for (SkyFrame& frame : run.frames) frame.time_s.reset();
    CHECK_FALSE(place_sky(run.frames, 0, sky.size).has_value());
}

TEST_CASE("only stars where a person trusts the picture place a frame") {
    const test::Folder folder;
    Pile pile = test::practised(folder, "lighthouse", 6);
    Job job;
    Mask upper(pile.size);
    upper.edit({0, 0, pile.size.width, 500}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    CHECK(align_frames(with_trust(pile, upper), Model::stars, pile.reference, job).ok());
    Mask sea(pile.size);
    sea.edit({0, 900, pile.size.width, 160}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    CHECK_FALSE(align_frames(with_trust(pile, sea), Model::stars, pile.reference, job).ok());
}

TEST_CASE("stars are found where they are, and lamps, edges and noise are not stars") {
    Raster<float> picture(Size{400, 300}, 1);
    std::mt19937 dice(3);
    std::normal_distribution<float> noise(0, 0.004F);
    std::uniform_real_distribution<double> anywhere(20, 280);
    std::vector<Point> truth;
    for (int i = 0; i < 25; ++i) truth.push_back({anywhere(dice) + 90, anywhere(dice) * 0.7});
    for (int y = 0; y < 300; ++y)
        for (int x = 0; x < 400; ++x) {
            double light = y > 230 ? 0.02 : 0.1;
            for (const Point& p : truth) light += 0.2 * std::exp(-((x - p.x) * (x - p.x) + (y - p.y) * (y - p.y)) / 2);
            light += 0.6 * std::exp(-((x - 40) * (x - 40) + (y - 260) * (y - 260)) / 400.0);
            picture.at(x, y, 0) = float(light) + noise(dice);
        }
    const auto found = find_stars(picture, 100, 5);
    int right = 0;
    for (const Point& p : truth)
        right += std::any_of(found.begin(), found.end(),
                             [&](const Star& s) { return std::hypot(s.at.x - p.x, s.at.y - p.y) < 0.15; });
    // Two stars may have come to lie beside each other.
    CHECK(right >= 22);
    CHECK(found.size() <= 27);
}

TEST_CASE("trails are found by their middles, however they lie, and the longest that can be is the limit") {
    Raster<float> picture(Size{420, 420}, 1);
    std::mt19937 dice(5);
    std::normal_distribution<float> noise(0, 0.003F);
    constexpr double length = 14;
    std::vector<Point> truth;
    for (int y = 0; y < 420; ++y)
        for (int x = 0; x < 420; ++x) picture.at(x, y, 0) = 0.08F + noise(dice);
    for (int k = 0; k < 25; ++k) {
        const int row = k / 5;
        const Point middle{40.3 + 80 * (k % 5), 40.7 + 80 * row};
        const double turn = k * 0.13;
        truth.push_back(middle);
        for (int y = int(middle.y) - 14; y <= int(middle.y) + 14; ++y)
            for (int x = int(middle.x) - 14; x <= int(middle.x) + 14; ++x) {
                const double along = (x - middle.x) * std::cos(turn) + (y - middle.y) * std::sin(turn);
                const double beside = (y - middle.y) * std::cos(turn) - (x - middle.x) * std::sin(turn);
                const double over = std::max(0.0, std::abs(along) - length / 2);
                picture.at(x, y, 0) += float(0.25 * std::exp(-(beside * beside + over * over) / 2));
            }
    }
    const auto found = find_stars(picture, 100, length);
    CHECK(found.size() == 25);
    for (const Point& p : truth)
        CHECK(std::any_of(found.begin(), found.end(),
                          [&](const Star& s) { return std::hypot(s.at.x - p.x, s.at.y - p.y) < 0.3; }));
    CHECK(find_stars(picture, 100, 1).empty());
    CHECK(find_stars(picture, 7, length).size() == 7);
}

TEST_CASE("a ring whose sides meet below is one spot, counted once") {
    Raster<float> picture(Size{200, 200}, 1);
    // Two arms from above that join: each arm begins as a spot of its own.
    for (int y = 90; y <= 100; ++y)
        for (const int x : {95, 96, 104, 105}) picture.at(x, y, 0) = 0.5F;
    for (int x = 95; x <= 105; ++x)
        for (const int y : {101, 102}) picture.at(x, y, 0) = 0.5F;
    const auto found = find_stars(picture, 10, 12);
    REQUIRE(found.size() == 1);
    CHECK(found[0].at.x == Approx(100).margin(0.1));
    CHECK(found[0].at.y == Approx(97).margin(1.5));
}

TEST_CASE("the lighthouse's sky is placed within a fifth of a pixel, the knocked frame too") {
    const test::Folder folder;
    const Pile pile = test::practised(folder, "lighthouse", 10);
    Job job;
    const auto found = align_frames(pile, Model::stars, pile.reference, job).value();
    const auto scene = practice::scene_named("lighthouse")->make(10, 1);
    const auto lens = *scene->lens();
    Sky sky(0);
    sky.size = pile.size;
    sky.focal = lens.focal;
    sky.k1 = lens.k1;
    const Point pole = sky.lens().straight(lens.pole);
    sky.point_axis({pole.x - sky.lens().middle.x, pole.y - sky.lens().middle.y, lens.focal});
    const auto shots = scene->shots();
    std::size_t shot = 0;
    for (const Frame& frame : pile.frames) {
        if (frame.role != Role::scene) continue;
        const practice::Shot& s = shots[shot++];
        const double time = s.begin_s - shots[0].begin_s;
        const Matrix moved = inverse(s.to_scene);
        INFO("frame " << shot);
        CHECK(found.at(frame.id).aligned);
        // The sky turns the other way round when time goes on as seen by this axis.
        const double error = std::min(sky.error(found.at(frame.id), time, {moved.m()[2], moved.m()[5]}),
                                      sky.error(found.at(frame.id), -time, {moved.m()[2], moved.m()[5]}));
        CHECK(error < 0.1);
    }
    CHECK(shot == 10);
}

TEST_CASE(
    "five hours of night watch are placed within a fifth of a pixel, knocked frames too; the clouded one by its time") {
    const test::Folder folder;
    const Pile pile = test::practised(folder, "night-watch", 20, Outcome::shower);
    Job job;
    const auto found = align_frames(pile, Model::stars, pile.reference, job).value();
    const auto scene = practice::scene_named("night-watch")->make(20, 1);
    const auto lens = *scene->lens();
    Sky sky(0);
    sky.size = pile.size;
    sky.focal = lens.focal;
    sky.k1 = lens.k1;
    const Lens bend = sky.lens();
    const Point pole = bend.straight(lens.pole);
    sky.point_axis({pole.x - bend.middle.x, pole.y - bend.middle.y, lens.focal});
    // The sky turns the other way round when time goes on as seen by this axis.
    const auto seen_at_reference = [&](Point p, double time) -> std::optional<Point> {
        const Point q = bend.straight(p);
        const Vec v =
            turned_about({q.x - bend.middle.x, q.y - bend.middle.y, lens.focal}, sky.axis, time * turn_per_second);
        if (v[2] < 0.3 * lens.focal) return std::nullopt;
        return bend.seen({bend.middle.x + lens.focal * v[0] / v[2], bend.middle.y + lens.focal * v[1] / v[2]});
    };
    const auto shots = scene->shots();
    for (std::size_t k = 0; k < shots.size(); ++k) {
        const Alignment& place = found.at(pile.frames[k].id);
        double squares = 0;
        int count = 0;
        for (int y = 10; y < 700; y += 40)
            for (int x = 10; x < pile.size.width; x += 60) {
                const Point here{double(x), double(y)};
                const auto truth = seen_at_reference(shots[k].to_scene(here), shots[k].begin_s - shots[0].begin_s);
                if (!truth || truth->x < 0 || truth->y < 0 || truth->x > pile.size.width || truth->y > 700) continue;
                const Point there = place.placement().to_canvas(here);
                squares += (there.x - truth->x) * (there.x - truth->x) + (there.y - truth->y) * (there.y - truth->y);
                ++count;
            }
        REQUIRE(count > 10);
        INFO("frame " << k + 1 << ": " << std::sqrt(squares / count) << " px");
        CHECK(place.aligned);
        CHECK(place.by_clock == (shots[k].cloud > 0));
        CHECK(std::sqrt(squares / count) < (shots[k].cloud > 0 ? 3.0 : 0.2));
    }
}
