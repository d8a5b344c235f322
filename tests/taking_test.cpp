// A place taken from another frame, against the truth of a scene.
#include "engine/taking.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/levelling.h"
#include "engine/open.h"
#include "engine/render.h"
#include "parts/shapes.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "practice/practice.h"
#include "practice/scene.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

Mask box_mask(Size size, const Rect& box) {
    Mask out(size);
    out.edit(box, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    return out;
}

// How far two pictures lie apart within a box, in values of 255 on average.
double apart(const Raster16& a, const Raster16& b, const Rect& box) {
    double sum = 0;
    for (int y = box.top; y < box.bottom(); ++y)
        for (int x = box.left; x < box.right(); ++x)
            for (int c = 0; c < 3; ++c) sum += std::abs(int(a.at(x, y, c)) - int(b.at(x, y, c))) / 257.0;
    return sum / (3.0 * box.width * box.height);
}

}  // namespace

TEST_CASE("four clicks make all cats look: as in the truth, with what the base showed right left as it was") {
    const test::Folder folder;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("harbour-cats"), folder / "run", {}, job).ok());
    Result<Pile> opened =
        open_frames(gather_run({(folder / "run").string()}).value(), Outcome::best_of, Order::captured, job);
    REQUIRE(opened.ok());
    Pile pile = std::move(opened).value();
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const auto levels = measure_gains(pile, Levelling::light, store, job);
    REQUIRE(levels.ok());
    pile = with_gains(std::move(pile), Levelling::light, levels.value());
    FrameFile truth_file;
    truth_file.path = folder / "run" / "truth" / "best.tif";
    truth_file.facts = probe_picture(truth_file.path).value();
    const Raster16 truth = read_frame(truth_file, 0, working_space(pile), job).value();
    // Each cat's face, and the frame in which it looks; the first looks in the base.
    struct Cat {
        Point face;
        std::size_t frame;
    };
    const Cat cats[] = {{{250, 525}, 0}, {{520, 540}, 3}, {{795, 520}, 1}, {{1070, 535}, 4}, {{1345, 525}, 2}};
    const auto face_of = [](const Cat& cat) { return Rect{int(cat.face.x) - 60, int(cat.face.y) - 60, 120, 120}; };
    const Raster16 before = test::render_all(pile).value();
    const double noise = apart(before, truth, face_of(cats[0]));
    for (const Cat& cat : cats) {
        const int frame = pile.frames[cat.frame].id;
        const Result<Mask> place = thing_at(pile, frame, cat.face, 0, store, job);
        REQUIRE(place.ok());
        INFO("cat at " << cat.face.x);
        CHECK(place.value().empty() == (frame == pile.base));
        pile = with_taken(std::move(pile), frame, place.value(), true).first;
    }
    CHECK(pile.parts.size() == 4);
    const Raster16 after = test::render_all(pile).value();
    for (const Cat& cat : cats) {
        INFO("cat at " << cat.face.x << ", before " << apart(before, truth, face_of(cat)) << ", after "
                       << apart(after, truth, face_of(cat)) << ", where nothing was to do " << noise);
        CHECK(apart(after, truth, face_of(cat)) < 1.35 * noise);
    }
}

TEST_CASE("a place that is taken is given back by painted parts above it, and by its own when it is given back") {
    const test::Folder folder;
    const Pile first = test::speckle_pile(folder, 3, {64, 48}, 8);
    const int a = first.frames[1].id, b = first.frames[2].id;
    const Mask left = box_mask(first.size, {4, 4, 20, 20}), both = box_mask(first.size, {4, 4, 40, 20});
    Pile pile = with_taken(first, a, left, true).first;
    pile = with_taken(std::move(pile), b, both, true).first;
    REQUIRE(pile.parts.size() == 2);
    CHECK(pile.parts[1].mask == both);
    // Taken again from the lower one: it shows there.
    pile = with_taken(std::move(pile), a, left, true).first;
    CHECK(pile.parts[0].mask == left);
    CHECK(pile.parts[1].mask.at(10, 10) == 0);
    CHECK(pile.parts[1].mask.at(30, 10) == 255);
    CHECK(with_taken(pile, a, left, false).first.parts[0].mask.empty());
    CHECK(with_taken(first, a, left, false).first == first);
}

TEST_CASE("nothing is found where frames agree, and more takes in what lies around") {
    const test::Folder folder;
    for (int k = 0; k < 2; ++k) {
        Raster16 picture = test::lit(test::landscape({320, 240}, Matrix(), unsigned(k + 1), 0.004), 1 + 0.04 * k);
        if (k == 1)
            for (const Rect box : {Rect{100, 100, 24, 24}, Rect{136, 100, 12, 12}})
                for (int y = box.top; y < box.bottom(); ++y)
                    for (int x = box.left; x < box.right(); ++x)
                        for (int c = 0; c < picture.channels(); ++c) picture.at(x, y, c) = 62000;
        test::write(folder / ("t" + std::to_string(k) + ".png"), picture, 8);
    }
    Job job;
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::best_of, Order::name, job).value();
    FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
    const int other = pile.frames[1].id;
    CHECK(thing_at(pile, other, {250, 200}, 0, store, job).value().empty());
    const Mask one = thing_at(pile, other, {112, 112}, 0, store, job).value();
    CHECK(one.at(112, 112) == 255);
    CHECK(one.at(142, 106) == 0);
    CHECK(one.bounds().left >= 90);
    const Mask more = thing_at(pile, other, {112, 112}, 1, store, job).value();
    CHECK(more.at(142, 106) == 255);
    // Beside the thing the click still means it.
    CHECK_FALSE(thing_at(pile, other, {98, 112}, 0, store, job).value().empty());
}

TEST_CASE("a mask grows and shrinks by whole distances") {
    const Mask box = box_mask({200, 150}, {50, 40, 60, 50});
    const Mask wider = grown(box, 10);
    CHECK(wider.at(40, 60) == 255);
    CHECK(wider.at(39, 60) == 0);
    CHECK(wider.at(43, 33) == 255);  // the corner is round
    CHECK(wider.at(42, 32) == 0);
    const Mask smaller = grown(box, -10);
    CHECK(smaller.bounds() == Rect{60, 50, 40, 30});
    CHECK(grown(box, 0) == box);
    CHECK(grown(box, -40).empty());
    CHECK(grown(Mask({20, 20}), 5).empty());
}
