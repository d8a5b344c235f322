// How parts join what lies below them.
#include "parts/joins.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/hiding.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/gather.h"
#include "io/reader.h"
#include "parts/shapes.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "practice/practice.h"
#include "practice/scene.h"
#include "support/fixtures.h"
#include "support/plain.h"

using namespace bp;

namespace {

Mask some_mask(Size size) {
    Mask out(size);
    out.edit(whole(size), [](int x, int y, std::uint8_t) { return std::uint8_t((x * 37 + y * 11) % 256); });
    return out;
}

// A part of every join over each other, with strengths and light taken off.
Pile joined(Pile pile) {
    int k = 1;
    for (const JoinEntry& entry : joins()) {
        int part = 0;
        std::tie(pile, part) = with_new_part(std::move(pile), pile.frames[std::size_t(k)].id);
        pile = with_part_mask(std::move(pile), part, some_mask(pile.size));
        pile = with_part_join(std::move(pile), part, entry.join);
        pile = with_part_strength(std::move(pile), part, 1 - 0.2 * k);
        if (k % 2 == 0) pile.parts.back().lowered = {0.02, 0.1, 0.3};
        ++k;
    }
    return pile;
}

}  // namespace

TEST_CASE("every join is what it says at full strength, and moves there by mask and strength") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const std::uint8_t all = 255, half = 128;
    for (const std::uint16_t below : {0, 900, 20000, 65535})
        for (const std::uint16_t over : {0, 901, 30000, 65535}) {
            const auto laid = [&](Join join, std::uint8_t mask, int opacity) {
                std::uint16_t out = below;
                entry_of(join).lay(&over, &mask, opacity, 1, 1, curve, &out);
                return out;
            };
            const std::map<Join, std::uint16_t> goal{
                {Join::replace, over},
                {Join::lighter, std::max(over, below)},
                {Join::darker, std::min(over, below)},
                {Join::add, curve.sample(double(curve.light(over)) + curve.light(below))}};
            for (const JoinEntry& entry : joins()) {
                INFO(entry.name << ": " << over << " over " << below);
                CHECK(laid(entry.join, all, 255) == goal.at(entry.join));
                CHECK(laid(entry.join, all, 0) == below);
                CHECK(laid(entry.join, 0, 255) == below);
                const double a = half / 255.0 * 200 / 255;
                const double expected = entry.join == Join::add
                                            ? curve.sample(curve.light(below) + a * curve.light(over))
                                            : std::floor(below + a * (goal.at(entry.join) - below) + 0.5);
                CHECK(laid(entry.join, half, 200) == expected);
            }
        }
}

TEST_CASE("parts of every join, lowered and not, equal the plain engine to the bit, at once and in pieces") {
    for (const int channels : {1, 3})
        for (const int bits : {8, 16}) {
            const test::Folder folder;
            Pile pile = joined(test::speckle_pile(folder, 5, {97, 61}, bits, channels));
            pile.methods.sky.mode = Mode::median;
            const Result<Raster16> plain = render_plain(pile, whole(pile.size));
            const Result<Raster16> made = test::render_all(pile);
            REQUIRE(plain.ok());
            REQUIRE(made.ok());
            CHECK(test::difference(made.value(), plain.value()) == "");
            Job job;
            FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
            const Rect piece{31, 17, 40, 29};
            const Result<Raster16> of_piece = render(pile, store, piece, 0, job);
            REQUIRE(of_piece.ok());
            for (int y = 0; y < piece.height; ++y)
                REQUIRE(std::equal(of_piece.value().row(y), of_piece.value().row(y) + of_piece.value().row_samples(),
                                   made.value().row(piece.top + y) + piece.left * channels));
        }
}

TEST_CASE("parts that were moved, turned, mirrored and scaled equal the plain engine, on a canvas beyond the frames") {
    for (const int channels : {1, 3})
        for (const bool zoned : {false, true}) {
            const test::Folder folder;
            Pile pile = joined(test::speckle_pile(folder, 5, {97, 61}, 16, channels));
            pile = with_canvas(std::move(pile), {Rect{-40, -30, 180, 120}, {0.1, 0.2, 0.3}});
            pile.cover = Cover::any;
            if (zoned) {
                Mask sky(pile.size);
                sky.edit({0, 0, 97, 33}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
                pile = with_zones(std::move(pile), sky);
            }
            const PartPlace places[] = {{{30.25, -12}, 0, 1, false},
                                        {{-20, 15.5}, 33, 1.4, false},
                                        {{4, 7}, -170, 0.8, true},
                                        {{0, 0}, 0, 1, true}};
            for (std::size_t i = 0; i < pile.parts.size(); ++i)
                pile = with_part_place(std::move(pile), pile.parts[i].id, places[i]);
            Look brighter;
            brighter.exposure_ev = 0.4;
            pile = with_part_look(std::move(pile), pile.parts[1].id, brighter);
            const Result<Raster16> plain = render_plain(pile, canvas_of(pile));
            Job job;
            FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
            const Result<Raster16> made = render(pile, store, canvas_of(pile), 0, job);
            REQUIRE(plain.ok());
            REQUIRE(made.ok());
            INFO(channels << " channels, zones: " << zoned);
            // Where a mask lies just between two values, it may be either.
            std::size_t off = 0;
            for (std::size_t i = 0; i < plain.value().data().size(); ++i)
                off += std::abs(int(made.value().data()[i]) - int(plain.value().data()[i])) > 1;
            CHECK(off * 500 <= plain.value().data().size());
            CHECK(test::difference(made.value(), plain.value(), 257) == "");
        }
}

TEST_CASE("a place is the matrix that it stands for, and moving on from there adds up") {
    const Size size{97, 61};
    const PartPlace place{{12.5, -3}, 40, 1.7, true};
    const PartPlace again = place_of(matrix_of(place, size), size);
    CHECK(again.moved.x == Approx(place.moved.x));
    CHECK(again.moved.y == Approx(place.moved.y));
    CHECK(again.turn_degrees == Approx(place.turn_degrees));
    CHECK(again.scale == Approx(place.scale));
    CHECK(again.mirrored);
    const test::Folder folder;
    Pile pile = joined(test::speckle_pile(folder, 5, size, 8));
    const int part = pile.parts[0].id;
    const Matrix turn = Matrix::rigid(0.3, {20, 30}, 5, 6);
    pile = with_part_placed_on(with_part_place(std::move(pile), part, place), part, turn);
    const Point there = matrix_of(*pile.parts[0].place, size)({7, 9});
    const Point expected = turn(matrix_of(place, size)({7, 9}));
    CHECK(there.x == Approx(expected.x));
    CHECK(there.y == Approx(expected.y));
    CHECK_FALSE(with_part_place(pile, part, PartPlace{}).parts[0].place.has_value());
    const PartPlace held = *with_part_place(pile, part, PartPlace{{NAN, 1e12}, 400, 0, false}).parts[0].place;
    CHECK(held.moved.x == 0);
    CHECK(held.scale == PartPlace::smallest);
    CHECK(held.turn_degrees == 180);
}

TEST_CASE("what a part is, how it joins and how a sequence lies is in the file of a pile") {
    const test::Folder folder;
    Pile pile = joined(test::speckle_pile(folder, 5, {64, 48}, 8));
    pile.parts[0].of = PartOf::subject;
    pile.parts[0].subject = 3;
    pile.parts[1].of = PartOf::meteor;
    pile.parts[1].by_hand = true;
    pile = with_part_edge(std::move(pile), pile.parts[2].id, Edge::blended);
    pile = with_part_band(std::move(pile), pile.parts[2].id, 31);
    pile = with_part_place(std::move(pile), pile.parts[3].id, PartPlace{{10, -4}, 12, 0.5, true});
    Look look;
    look.warmth = 7;
    pile = with_part_look(std::move(pile), pile.parts[3].id, look);
    pile = with_canvas(std::move(pile), {Rect{-10, -10, 200, 100}, {}, Measure::mm, 240});
    pile.sequence = {0.75, OnTop::early};
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().pile.parts == pile.parts);
    CHECK(loaded.value().pile.sequence == pile.sequence);
    CHECK(loaded.value().pile.canvas == pile.canvas);
}

TEST_CASE("masks that meet part in the middle, and one that lies within the other is left nothing") {
    const Size size{100, 60};
    const auto box = [&](const Rect& at) {
        Mask out(size);
        out.edit(at, [](int, int, std::uint8_t) { return std::uint8_t(255); });
        return out;
    };
    const auto [left, right] = parted(box({10, 10, 50, 30}), box({40, 10, 50, 30}));
    CHECK(left == box({10, 10, 40, 30}));
    CHECK(right == box({50, 10, 40, 30}));
    const auto [outer, inner] = parted(box({10, 10, 50, 30}), box({20, 20, 10, 10}));
    CHECK(outer == box({10, 10, 50, 30}));
    CHECK(inner.empty());
    const auto [first, second] = parted(box({10, 10, 50, 30}), box({10, 10, 50, 30}));
    CHECK(first.empty());
    CHECK(second == box({10, 10, 50, 30}));
    const auto [apart, too] = parted(box({0, 0, 10, 10}), box({50, 50, 10, 10}));
    CHECK(apart == box({0, 0, 10, 10}));
    CHECK(too == box({50, 50, 10, 10}));
    // Soft borders add up to no more than all.
    const auto [soft, other] = parted(box({10, 10, 50, 30}).softened(8), box({40, 10, 50, 30}).softened(8));
    for (int x = 0; x < size.width; ++x) CHECK(int(soft.at(x, 25)) + other.at(x, 25) <= 255);
    CHECK(soft.at(47, 25) == 255);
    CHECK(other.at(52, 25) == 255);
}

TEST_CASE("the band around a mask is the one along which it was drawn") {
    const Size size{400, 300};
    for (const auto& [from, to] : {std::pair<Point, Point>{{50, 60}, {300, 200}},
                                   {{300, 60}, {60, 61}},
                                   {{200, 40}, {200, 250}},
                                   {{350, 20}, {120, 280}}})
        for (const double width : {6.0, 15.0}) {
            const std::array<Point, 2> ends{from, to};
            const DrawnShape band = band_around(along(ends, width, width / 2, size));
            INFO(from.x << ' ' << from.y << ", " << width);
            const bool turned = std::hypot(band.from.x - from.x, band.from.y - from.y) > 100;
            const Point first = turned ? band.to : band.from, last = turned ? band.from : band.to;
            CHECK(std::hypot(first.x - from.x, first.y - from.y) < 1);
            CHECK(std::hypot(last.x - to.x, last.y - to.y) < 1);
            CHECK(std::abs(band.width - width) < 1.2);
        }
    CHECK(band_around(Mask(size)).from == band_around(Mask(size)).to);
}

TEST_CASE("what lies under parts that are laid over it is told and shown, of those alone that hide something") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 4, {160, 120}, 8);
    const auto with_box = [&](std::size_t frame, const Rect& at) {
        int part = 0;
        std::tie(pile, part) = with_new_part(std::move(pile), pile.frames[frame].id);
        Mask mask(pile.size);
        mask.edit(at, [](int, int, std::uint8_t) { return std::uint8_t(255); });
        pile = with_part_mask(std::move(pile), part, mask);
        return part;
    };
    const int low = with_box(1, {20, 20, 40, 40}), middle = with_box(2, {40, 20, 40, 20}),
              top = with_box(3, {50, 20, 60, 60});
    const std::vector<Hidden> all = hidden_parts(pile);
    REQUIRE(all.size() == 2);
    CHECK(all[0].part == low);
    CHECK(all[0].by == top);  // 10 x 40 of it, and the middle one 10 x 20 beside that
    CHECK(all[0].share == Approx((10.0 * 40 + 10 * 20) / 1600));
    CHECK(all[1].part == middle);
    CHECK(all[1].share == Approx(0.75));
    const HiddenPlace place = hidden_place(pile, low, 4000);
    CHECK(place.level == 0);
    const auto hidden = [&](int x, int y) { return place.mask.at(x - place.left, y - place.top); };
    CHECK(hidden(55, 55) == 255);
    CHECK(hidden(45, 25) == 255);
    CHECK(hidden(45, 45) == 0);
    CHECK(hidden(25, 25) == 0);
    // One that lets through, is thin, hidden, or moved away hides nothing.
    const Pile& laid = pile;
    for (const Pile& other : {with_part_join(laid, top, Join::lighter), with_part_strength(laid, top, 0.3),
                              with_part_on(laid, top, false), with_part_placed_on(laid, top, Matrix::shift(0, 70))}) {
        const std::vector<Hidden> less = hidden_parts(other);
        REQUIRE(less.size() == 1);
        CHECK(less[0].by == middle);
        CHECK(less[0].share == Approx(20.0 * 20 / 1600));
    }
    CHECK(hidden_place(pile, top, 4000).mask.empty());
}

TEST_CASE("a lit frame is one part that lightens, of the land alone while there are zones") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {64, 48}, 8);
    const int lit = pile.frames[2].id;
    Mask sky(pile.size);
    sky.edit({0, 0, 64, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    const Pile whole_frame = with_foreground(pile, lit, true);
    REQUIRE(whole_frame.parts.size() == 1);
    CHECK(whole_frame.parts[0].join == Join::lighter);
    CHECK(whole_frame.parts[0].mask.at(5, 5) == 255);
    const Pile of_land = with_foreground(with_zones(pile, sky), lit, true);
    REQUIRE(of_land.parts.size() == 1);
    CHECK(of_land.parts[0].mask.at(5, 5) == 0);
    CHECK(of_land.parts[0].mask.at(5, 40) == 255);
    const Pile off = with_foreground(of_land, lit, false);
    CHECK_FALSE(off.parts[0].on);
    CHECK(with_foreground(off, lit, true) == of_land);
    CHECK(with_foreground(pile, lit, false) == pile);
}

TEST_CASE("the lights of a boat together are what all of them give, without the torch that was left in the grass") {
    const test::Folder folder;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("hull"), folder.path(), {}, job).ok());
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::best_of, Order::captured, job).value();
    const auto lit = [](const Frame& f) { return f.role == Role::foreground; };
    REQUIRE(std::count_if(pile.frames.begin(), pile.frames.end(), lit) == 5);
    for (const Frame& frame : std::vector<Frame>(pile.frames))
        if (lit(frame)) pile = with_foreground(std::move(pile), frame.id, true);
    FrameFile truth_file;
    truth_file.path = folder / "truth" / "lights.tif";
    truth_file.facts = probe_picture(truth_file.path).value();
    const Raster16 truth = read_frame(truth_file, 0, working_space(pile), job).value();
    const Rect grass{1250, 720, 250, 240}, hull{420, 560, 750, 230};
    const auto apart = [&](const Raster16& made, const Rect& box) {
        double sum = 0;
        for (int y = box.top; y < box.bottom(); ++y)
            for (int x = box.left; x < box.right(); ++x)
                for (int c = 0; c < 3; ++c) sum += std::abs(int(made.at(x, y, c)) - int(truth.at(x, y, c))) / 257.0;
        return sum / (3.0 * box.width * box.height);
    };
    const Raster16 with_torch = test::render_all(pile).value();
    CHECK(apart(with_torch, hull) < 3);
    CHECK(apart(with_torch, grass) > 15);
    // The torch is given back where its frame has it.
    const Part torch = pile.parts[3];
    pile = with_part_mask(std::move(pile), torch.id,
                          with_shape(torch.mask, {ShapeKind::ellipse, {1140, 650}, {1599, 1030}, 1}, false));
    const Raster16 without = test::render_all(pile).value();
    CHECK(apart(without, hull) < 3);
    CHECK(apart(without, grass) < 6);
}
