// Frames known against the truth of the practice camera, and odd ones told from the rest.
#include "engine/survey.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/open.h"
#include "engine/render.h"
#include "frames/robust.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

struct Surveyed {
    test::Folder folder;
    Pile pile;
    std::vector<Findings> known;

    explicit Surveyed(const char* scene, int frames = 0) {
        pile = test::practised(folder, scene, frames);
        Job job;
        FrameStore store(working_space(pile));
        known = survey(pile, store, job).value();
    }

    // Number of the frame, from 1, to its reasons.
    std::map<int, std::vector<Oddity>> odd() const {
        std::map<int, std::vector<Oddity>> out;
        for (std::size_t i = 0; i < known.size(); ++i)
            for (const Mark& mark : known[i].marks) out[int(i) + 1].push_back(mark.why);
        return out;
    }
    const FrameMeasures& of(int number) const { return known[std::size_t(number) - 1].measures; }
    double amount(int number) const { return known[std::size_t(number) - 1].marks.front().amount; }
};

using Odd = std::map<int, std::vector<Oddity>>;

// A run of measures that differ a little and regularly, for marks without pictures.
std::vector<FrameMeasures> even_run(int count) {
    std::vector<FrameMeasures> out;
    for (int i = 0; i < count; ++i) {
        FrameMeasures m;
        m.gap_s = 5;
        m.gain_ev = 0.01 * (i % 3);
        m.warmth_ev = 0;
        m.sharpness = 1 + 0.01 * (i % 2);
        m.shift_px = Point{0.1 * (i % 2), 0};
        m.turn_degrees = 0;
        m.veil = 0;
        out.push_back(m);
    }
    return out;
}

Odd odd_in(const std::vector<FrameMeasures>& run) {
    Odd out;
    const auto marks = odd_ones(run, {6000, 4000}, Scene::night);
    for (std::size_t i = 0; i < marks.size(); ++i)
        for (const Mark& mark : marks[i]) out[int(i) + 1].push_back(mark.why);
    return out;
}

}  // namespace

TEST_CASE("in the night run the bumped, the late and the clouded frames are odd, and no other") {
    const Surveyed s("lighthouse");
    CHECK(s.odd() == Odd{{19, {Oddity::moved}}, {26, {Oddity::late}}, {33, {Oddity::veiled}}, {34, {Oddity::veiled}}});
    CHECK(s.amount(19) == Approx(std::hypot(5.1, 3.5)).margin(0.2));
    CHECK(s.of(19).shift_px->x == Approx(5.1).margin(0.2));
    CHECK(s.of(19).shift_px->y == Approx(-3.5).margin(0.2));
    CHECK(*s.of(2).gap_s == Approx(15));
    CHECK_FALSE(s.of(1).gap_s.has_value());
    // A dark is measured, but says nothing of light or place.
    CHECK(s.of(49).noise.has_value());
    CHECK_FALSE(s.of(49).gain_ev.has_value());
    CHECK_FALSE(s.of(49).shift_px.has_value());
}

TEST_CASE(
    "over five hours of a turning sky the clouded frame alone is odd, and the stars are not taken for the camera") {
    const Surveyed s("night-watch");
    CHECK(s.odd() == Odd{{9, {Oddity::veiled}}});
}

TEST_CASE("stars that were aligned in place of the land say nothing of the camera") {
    std::vector<FrameMeasures> run(12);
    for (std::size_t i = 0; i < run.size(); ++i) {
        run[i].shift_px = Point{2.5 * double(i), -1.5 * double(i)};
        run[i].turn_degrees = 0.12 * double(i);
        run[i].sharpness = 1;
    }
    CHECK(follows_the_sky(run));
    // A tripod that was knocked once, and one that trembles.
    for (std::size_t i = 0; i < run.size(); ++i) {
        run[i].shift_px = Point{i < 6 ? 0.02 : 6.3, 0.1 * double(i % 2)};
        run[i].turn_degrees = 0.001 * double(i % 3);
    }
    CHECK_FALSE(follows_the_sky(run));
}

TEST_CASE("a change of light by day is not called a cloud") {
    std::vector<FrameMeasures> run(9);
    for (FrameMeasures& m : run) m.veil = 0;
    run[4].veil = 0.13;
    CHECK(odd_ones(run, {600, 400}, Scene::day)[4] == std::vector<Mark>{{Oddity::changed, 0.13}});
    CHECK(odd_ones(run, {600, 400}, Scene::night)[4] == std::vector<Mark>{{Oddity::veiled, 0.13}});
}

TEST_CASE("on the quay the two brighter frames are odd, whatever walks about") {
    const Surveyed s("quay");
    CHECK(s.odd() == Odd{{5, {Oddity::brighter}}, {6, {Oddity::brighter}}});
    CHECK(*s.of(5).gain_ev == Approx(std::log2(1.12)).margin(0.01));
    CHECK(*s.of(6).gain_ev == Approx(std::log2(1.18)).margin(0.01));
    CHECK(*s.of(6).sharpness == Approx(1).margin(0.02));
}

TEST_CASE("in the burst of the shelf the soft frame is odd; the restless hand is not") {
    const Surveyed s("shelf");
    CHECK(s.odd() == Odd{{11, {Oddity::soft}}});
    CHECK(*s.of(11).sharpness < 0.6);
    const auto shots = practice::scene_named("shelf")->make(16, 1)->shots();
    for (int n = 1; n <= 16; ++n) {
        const Matrix& truth = shots[std::size_t(n) - 1].to_scene;
        const Point middle{799.5, 533};
        CHECK(s.of(n).shift_px->x == Approx(truth(middle).x - middle.x).margin(0.15));
        CHECK(s.of(n).shift_px->y == Approx(truth(middle).y - middle.y).margin(0.15));
        CHECK(*s.of(n).turn_degrees == Approx(std::atan2(truth.m()[3], truth.m()[0]) * 180 / M_PI).margin(0.02));
    }
}

TEST_CASE("a crossing heron and five cats in changing light make no frame odd") {
    CHECK(Surveyed("heron").odd().empty());
    CHECK(Surveyed("harbour-cats").odd().empty());
}

TEST_CASE("marks: what is odd beside its neighbours") {
    std::vector<FrameMeasures> run = even_run(20);
    CHECK(odd_in(run).empty());

    SECTION("one that is late") {
        run[7].gap_s = 19;
        CHECK(odd_in(run) == Odd{{8, {Oddity::late}}});
        CHECK(odd_ones(run, {6000, 4000}, Scene::night)[7][0].amount == Approx(14));
    }
    SECTION("one that is darker, one that is warmer, one that is cooler, one that is turned") {
        run[3].gain_ev = -0.8;
        run[6].warmth_ev = 0.3;
        run[10].warmth_ev = -0.3;
        run[14].turn_degrees = 0.4;
        CHECK(odd_in(run) ==
              Odd{{4, {Oddity::darker}}, {7, {Oddity::warmer}}, {11, {Oddity::cooler}}, {15, {Oddity::turned}}});
        CHECK(odd_ones(run, {6000, 4000}, Scene::night)[3][0].amount == Approx(0.8).margin(0.03));
    }
    SECTION("a tripod that was knocked stays where it is: the first frame after it is told") {
        for (std::size_t i = 9; i < run.size(); ++i) run[i].shift_px = Point{6.2, 0.1 * double(i % 2)};
        CHECK(odd_in(run) == Odd{{10, {Oddity::moved_on}}});
        CHECK(odd_ones(run, {6000, 4000}, Scene::night)[9][0].amount == Approx(6.2).margin(0.2));
    }
    SECTION("a drift is not odd, a jump out of it is") {
        for (std::size_t i = 0; i < run.size(); ++i) run[i].shift_px = Point{0.8 * double(i), -0.3 * double(i)};
        for (std::size_t i = 0; i < run.size(); ++i) run[i].gain_ev = -0.1 * double(i);
        CHECK(odd_in(run).empty());
        run[12].shift_px->y += 5;
        CHECK(odd_in(run) == Odd{{13, {Oddity::moved}}});
    }
    SECTION("the first and the last can be odd, and two next to each other") {
        run[0].sharpness = 0.5;
        run[19].gain_ev = 0.6;
        run[10].shift_px = Point{9, 0};
        run[11].shift_px = Point{-9, 4};
        CHECK(odd_in(run) ==
              Odd{{1, {Oddity::soft}}, {11, {Oddity::moved}}, {12, {Oddity::moved}}, {20, {Oddity::brighter}}});
    }
    SECTION("sharper than the rest is not odd, and what is veiled is nothing else besides") {
        run[5].sharpness = 2;
        run[8].veil = 0.3;
        run[8].sharpness = 0.4;
        run[8].gain_ev = 0.5;
        CHECK(odd_in(run) == Odd{{9, {Oddity::veiled}}});
    }
    SECTION("what was not measured is passed over") {
        run[4].sharpness.reset();
        run[5].shift_px.reset();
        run[6] = {};
        CHECK(odd_in(run).empty());
    }
    SECTION("of three frames none is odd") {
        run.resize(3);
        run[1].gain_ev = 2;
        CHECK(odd_in(run).empty());
    }
}

TEST_CASE("noise and clipped share are what was put in") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    Raster16 flat(Size{320, 240}, 1);
    unsigned state = 7;
    const auto dice = [&] {
        double sum = 0;
        for (int i = 0; i < 12; ++i) {
            state = state * 1664525U + 1013904223U;
            sum += double(state >> 8) / double(1U << 24);
        }
        return sum - 6;
    };
    const double deviation = 0.01 * 65535;
    for (std::uint16_t& v : flat.data()) v = std::uint16_t(30000 + deviation * dice());
    const Glance noisy = glance_of(flat, curve);
    CHECK(noisy.noise == Approx(1.0).epsilon(0.12));
    CHECK(noisy.clipped == 0);
    for (int y = 0; y < 60; ++y)
        for (int x = 0; x < 320; ++x) flat.at(x, y, 0) = 65535;
    CHECK(glance_of(flat, curve).clipped == Approx(0.25));
}

TEST_CASE("a black frame among lit ones is guessed to be a dark, a long exposure a foreground") {
    const test::Folder folder;
    const auto put = [&](int number, const Raster16& picture, double exposure) {
        CaptureData capture;
        capture.captured = 1789251245.0 + 30 * number;
        capture.exposure_s = exposure;
        test::write(folder / ("f" + std::to_string(10 + number) + ".png"), picture, 16, {}, capture);
    };
    for (int i = 0; i < 8; ++i) put(i, test::landscape({200, 150}, {}, unsigned(i) + 1, 0.01), 25);
    put(8, Raster16(Size{200, 150}, 3), 25);
    put(9, test::landscape({200, 150}, {}, 99, 0.01), 120);
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    FrameStore store(working_space(pile));
    const Anchor anchor = anchor_of(pile, anchor_for(pile)).value();
    Sightings seen;
    for (const Frame& frame : pile.frames)
        seen[frame.id] = std::make_shared<const Sighting>(look_at(pile, frame, anchor, store, job).value());
    const std::map<int, Role> guessed = guess_roles(pile, seen);
    CHECK(guessed == std::map<int, Role>{{pile.frames[8].id, Role::dark}, {pile.frames[9].id, Role::foreground}});
    // What a person says stands.
    const int ids[] = {pile.frames[8].id};
    CHECK(guess_roles(with_role(pile, ids, Role::scene), seen).size() == 1);
}

TEST_CASE("blur that only the frame at full size shows is found by the closer look") {
    const test::Folder folder;
    // Fine lines, which the small picture does not have; in one frame they are softened.
    const Size size{2400, 1600};
    for (int i = 1; i <= 6; ++i) {
        Raster16 picture = test::landscape(size, {}, unsigned(i), 0.004);
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                for (int c = 0; c < 3; ++c) {
                    const int strength = i == 4 ? 900 : 2600;
                    const int line = (x / 2 + y / 3) % 2 == 0 ? strength : -strength;
                    picture.at(x, y, c) = std::uint16_t(std::clamp(picture.at(x, y, c) + line, 0, 65535));
                }
        test::write(folder / ("f" + std::to_string(i) + ".tif"), picture, 8);
    }
    Job job;
    Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::name, job).value();
    FrameStore store(working_space(pile));
    const Anchor anchor = anchor_of(pile, anchor_for(pile)).value();
    Sightings coarse, fine;
    for (const Frame& frame : pile.frames) {
        const Sighting seen = look_at(pile, frame, anchor, store, job).value();
        coarse[frame.id] = std::make_shared<const Sighting>(seen);
        fine[frame.id] = std::make_shared<const Sighting>(look_closer(pile, frame, seen, store, job).value());
    }
    const auto marked = [&](const Sightings& seen) {
        std::vector<int> out;
        const std::vector<Findings> known = know(pile, seen);
        for (std::size_t i = 0; i < known.size(); ++i)
            for (const Mark& mark : known[i].marks)
                if (mark.why == Oddity::soft) out.push_back(int(i) + 1);
        return out;
    };
    CHECK(marked(coarse).empty());
    CHECK(marked(fine) == std::vector<int>{4});
    // While one is missing, all are held against each other by the small pictures.
    Sightings mixed = fine;
    mixed[pile.frames[1].id] = coarse[pile.frames[1].id];
    CHECK(marked(mixed).empty());
}

TEST_CASE("more red is warmer, by as much as there is more") {
    const LightCurve curve = LightCurve::of(Profile::linear_srgb(), 3);
    Raster16 plain = test::landscape({320, 240}, {});
    for (std::uint16_t& v : plain.data()) v = std::uint16_t(4000 + v / 3);
    Raster16 warm = plain.clone();
    for (int y = 0; y < 240; ++y)
        for (int x = 0; x < 320; ++x) warm.at(x, y, 0) = std::uint16_t(std::lround(warm.at(x, y, 0) * std::exp2(0.5)));
    FrameMeasures m;
    compare(glance_of(warm, curve), glance_of(plain, curve), m);
    CHECK(*m.warmth_ev == Approx(0.5).margin(0.01));
}

TEST_CASE("robust statistics") {
    CHECK(median({3, 1, 2}) == 2);
    CHECK(median({4, 1, 2, 3}) == 2.5);
    CHECK(median({}) == 0);
    CHECK(quantile({5, 1, 4, 2, 3}, 0.5) == 3);
    CHECK(quantile({5, 1, 4, 2, 3}, 1) == 5);
    CHECK(spread({1, 2, 3, 4, 100}) == Approx(1.4826));
    const Trend line = steady_line({0, 1, 2, 3, 4, 5, 6}, {1, 3, 5, 70, 9, 11, -40});
    CHECK(line(10) == Approx(21));
}
