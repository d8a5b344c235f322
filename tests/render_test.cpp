#include "engine/render.h"

#include <catch2/catch.hpp>

#include "base/parallel.h"
#include "engine/base_tiles.h"
#include "engine/cover.h"
#include "kernels/warp.h"
#include "merge/row.h"
#include "parts/brush.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"
#include "support/plain.h"

using namespace bp;
using bp::test::Folder;

namespace {

// Shifts and turns that leave something to share.
Pile shaken(Pile pile) {
    std::map<int, Alignment> all;
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        Alignment a;
        const double k = double(i);
        if (i > 0) a.to_reference = Matrix::rigid(0.011 * k, {20, 12}, 1.3 * k, -0.7 * k);
        all[pile.frames[i].id] = a;
    }
    return with_alignments(pile, Model::rigid, pile.frames[0].id, all);
}

Pile with_painted_part(Pile pile, std::size_t frame, Point from, Point to) {
    auto [next, part] = with_new_part(pile, pile.frames[frame].id);
    Stroke stroke(Mask(pile.size), {14, 0.6, 0.9, true});
    stroke.extend(from);
    stroke.extend(to);
    return with_part_strength(with_part_mask(std::move(next), part, stroke.mask()), part, 0.7);
}

Raster16 part_of(const Raster16& raster, const Rect& area) {
    Raster16 out(area.size(), raster.channels());
    for (int y = 0; y < area.height; ++y)
        for (int x = 0; x < area.width; ++x)
            for (int c = 0; c < raster.channels(); ++c) out.at(x, y, c) = raster.at(area.left + x, area.top + y, c);
    return out;
}

}  // namespace

TEST_CASE("every mode equals the yardstick to the last bit where nothing is resampled") {
    const Folder folder;
    for (const int frames : {1, 2, 5})
        for (const Size size : {Size{1, 1}, Size{7, 3}, Size{67, 130}}) {
            const Pile pile = with_painted_part(test::speckle_pile(folder, frames, size, 16), 0, {2, 2}, {40, 60});
            for (const ModeEntry& entry : modes()) {
                const int first[] = {pile.frames[0].id};
                const Pile now = with_strength(with_mode(pile, entry.mode), first, 0.4);
                INFO(entry.name << " of " << frames << " at " << size.width << "x" << size.height);
                const Result<Raster16> fast = test::render_all(now);
                const Result<Raster16> plain = render_plain(now, whole(size));
                REQUIRE(fast.ok());
                REQUIRE(plain.ok());
                REQUIRE(test::difference(fast.value(), plain.value()) == "");
            }
        }
}

TEST_CASE("whole pixels by brightness equal the yardstick to the last bit, with strengths, too") {
    const Folder folder;
    for (const int bits : {8, 16})
        for (const Mode mode : {Mode::lighten, Mode::maximum, Mode::minimum}) {
            const Pile pile = with_choice_by(with_mode(test::speckle_pile(folder, 4, {61, 50}, bits), mode), By::pixel);
            const int first[] = {pile.frames[0].id, pile.frames[2].id};
            for (const Pile& now : {pile, with_strength(pile, first, 0.3)}) {
                INFO(entry_of(mode).name << " of " << bits << " bits");
                const Result<Raster16> fast = test::render_all(now);
                REQUIRE(fast.ok());
                REQUIRE(test::difference(fast.value(), render_plain(now, whole(pile.size)).value()) == "");
                REQUIRE(test::difference(fast.value(), test::render_all(with_choice_by(now, By::channel)).value()) !=
                        "");
            }
        }
}

TEST_CASE("tapered merges equal the yardstick to the last bit, in every mode in which strengths count") {
    const Folder folder;
    for (const int bits : {8, 16})
        for (const ModeEntry& entry : modes())
            for (const TaperEnd end : {TaperEnd::old_one, TaperEnd::new_one, TaperEnd::both}) {
                const Pile pile = with_mode(test::speckle_pile(folder, 6, {31, 20}, bits), entry.mode);
                const Pile now = with_taper(pile, {end, 0.7, {0.5, 0.5}});
                INFO(entry.name << " of " << bits << " bits");
                const Raster16 fast = test::render_all(now).value();
                REQUIRE(test::difference(fast, render_plain(now, whole(pile.size)).value()) == "");
                REQUIRE((test::difference(fast, test::render_all(pile).value()) != "") == entry.uses_strength);
            }
}

TEST_CASE("of equally bright pixels the earlier frame's is chosen, and star colours hold") {
    const LightCurve curve = LightCurve::encoded();
    MergeTools tools{curve};
    tools.strengths.resize(3);
    tools.by_brightness = kernels::BrightnessWeights{16384, 32768, 16384};
    // A blue star, a red one brighter in red alone, and one as bright as the first.
    const std::uint16_t blue[] = {100, 200, 900}, red[] = {700, 100, 100}, equal[] = {900, 200, 100};
    const std::vector<FrameRow> rows{{nullptr, blue, {0, 1}}, {nullptr, red, {0, 1}}, {nullptr, equal, {0, 1}}};
    std::vector<std::uint16_t> out(3);
    merge_row(Mode::maximum, rows, 1, 3, tools, out.data());
    CHECK(out == std::vector<std::uint16_t>(blue, blue + 3));
    merge_row(Mode::minimum, rows, 1, 3, tools, out.data());
    CHECK(out == std::vector<std::uint16_t>(red, red + 3));
    tools.strengths[0] = Strength(0.5, curve);
    merge_row(Mode::lighten, rows, 1, 3, tools, out.data());
    CHECK(out == std::vector<std::uint16_t>(equal, equal + 3));
    tools.by_brightness.reset();
    merge_row(Mode::maximum, rows, 1, 3, tools, out.data());
    CHECK(out == std::vector<std::uint16_t>{900, 200, 900});
}

TEST_CASE("areas of frames that are left out take no part, in any mode, wherever the frames lie") {
    const Folder folder;
    for (const bool moved : {false, true})
        for (const ModeEntry& entry : modes()) {
            Pile pile = with_mode(test::speckle_pile(folder, 5, {64, 51}, 8), entry.mode);
            if (moved) pile = shaken(std::move(pile));
            const Raster16 with_all = test::render_all(pile).value();
            Mask area(pile.size), everywhere(pile.size);
            area.edit({9, 12, 31, 17},
                      [](int x, int y, std::uint8_t) { return std::uint8_t(90 + 11 * ((x + y) % 9)); });
            everywhere.edit({20, 20, 9, 9}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
            const int some[] = {pile.frames[1].id, pile.frames[3].id};
            pile = with_left_out(std::move(pile), some, area);
            std::vector<int> others;
            for (const std::size_t k : {0U, 2U, 4U}) others.push_back(pile.frames[k].id);
            pile = with_left_out(std::move(pile), others, everywhere);
            INFO(entry.name << (moved ? ", moved" : ""));
            const Raster16 out = test::render_all(pile).value();
            REQUIRE(test::difference(out, render_plain(pile, whole(pile.size)).value(), moved ? 1 : 0) == "");
            REQUIRE((test::difference(out, with_all) != "") == (entry.mode != Mode::one));
            // A part shows its frame all the same, and so does looking at it.
            const int id = some[0];
            const Pile with_part = with_painted_part(pile, 1, {10, 10}, {40, 30});
            REQUIRE(test::difference(test::render_all(with_part).value(),
                                     render_plain(with_part, whole(pile.size)).value(), moved ? 1 : 0) == "");
            Job job;
            FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
            REQUIRE(test::difference(
                        render_frame(pile, store, id, whole(pile.size), 0, job).value(),
                        render_frame(with_left_out(pile, some, Mask(pile.size)), store, id, whole(pile.size), 0, job)
                            .value()) == "");
            REQUIRE(test::difference(test::render_all(with_left_out(with_left_out(pile, some, Mask(pile.size)), others,
                                                                    Mask(pile.size)))
                                         .value(),
                                     with_all) == "");
        }
}

TEST_CASE("resampled frames equal the yardstick within one step, and cover is the same") {
    const Folder folder;
    const Pile pile = with_painted_part(shaken(test::speckle_pile(folder, 4, {53, 41}, 16)), 2, {10, 10}, {40, 30});
    for (const ModeEntry& entry : modes()) {
        INFO(entry.name);
        const Pile now = with_mode(pile, entry.mode);
        // An even median may sit half a step away in each of its two values.
        REQUIRE(test::difference(test::render_all(now).value(), render_plain(now, whole(pile.size)).value(), 1) == "");
    }
}

TEST_CASE("maximum, minimum and median of 8-bit frames are 257 times the 8-bit answer") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 5, {40, 30}, 8);
    std::vector<Raster16> frames;
    for (unsigned i = 0; i < 5; ++i) frames.push_back(test::speckle_8({40, 30}, 3, i * 31 + 7));
    for (const Mode mode : {Mode::maximum, Mode::minimum, Mode::median}) {
        const Raster16 out = test::render_all(with_mode(pile, mode)).value();
        for (std::size_t i = 0; i < out.data().size(); ++i) {
            std::vector<int> eight;
            for (const Raster16& f : frames) eight.push_back(f.data()[i] / 257);
            std::sort(eight.begin(), eight.end());
            const int expected = mode == Mode::maximum ? eight[4] : mode == Mode::minimum ? eight[0] : eight[2];
            REQUIRE(out.data()[i] == expected * 257);
        }
    }
}

TEST_CASE("regions, stores, thread counts and levels change no sample") {
    const Folder folder;
    for (const bool moved : {false, true}) {
        Pile pile = test::speckle_pile(folder, 5, {150, 97}, 16);
        if (moved) pile = shaken(std::move(pile));
        pile = with_painted_part(std::move(pile), 1, {20, 20}, {120, 70});
        for (const Mode mode : {Mode::lighten, Mode::median, Mode::mean}) {
            const Pile now = with_mode(pile, mode);
            for (const int level : {0, 1, 2}) {
                INFO((moved ? "moved " : "still ") << entry_of(mode).name << " level " << level);
                Job job;
                const Rect all = whole(at_level(now.size, level));
                FrameStore streams(working_space(now), {0, std::size_t(1) << 30});
                const Raster16 reference = render(now, streams, all, level, job).value();
                FrameStore holds(working_space(now));
                {
                    const ThreadLimit one(1);
                    REQUIRE(test::difference(render(now, holds, all, level, job).value(), reference) == "");
                }
                REQUIRE(test::difference(render(now, holds, all, level, job).value(), reference) == "");
                for (const Rect& region :
                     {Rect{3, 2, 11, 7}, Rect{all.width - 5, all.height - 4, 5, 4}, Rect{0, 9, all.width, 1}})
                    for (FrameStore* store : {&streams, &holds})
                        REQUIRE(test::difference(render(now, *store, region, level, job).value(),
                                                 part_of(reference, region)) == "");
            }
        }
    }
}

TEST_CASE("a base from tiles is the base, and only what makes a base makes new tiles") {
    const Folder folder;
    const Pile pile = with_mode(shaken(test::speckle_pile(folder, 3, {600, 400}, 16)), Mode::mean);
    Job job;
    FrameStore store(working_space(pile));
    BaseTiles tiles;
    const Rect all = whole(pile.size);
    const Raster16 first = render(pile, store, all, 0, job, &tiles).value();
    CHECK(test::difference(first, render(test::base_of(pile), store, all, 0, job).value()) == "");
    CHECK(tiles.made() == 6);
    const Pile painted = with_painted_part(pile, 1, {5, 5}, {30, 20});
    CHECK(test::difference(render(painted, store, all, 0, job, &tiles).value(),
                           render(painted, store, all, 0, job).value()) == "");
    CHECK(tiles.made() == 6);
    const Pile median = with_mode(pile, Mode::median);
    CHECK(test::difference(render(median, store, all, 0, job, &tiles).value(),
                           render(test::base_of(median), store, all, 0, job).value()) == "");
    CHECK(tiles.made() == 12);
    const int one[] = {pile.frames[1].id};
    const Pile fewer = with_aside(pile, one, true);
    CHECK(test::difference(render(fewer, store, all, 0, job, &tiles).value(),
                           render(test::base_of(fewer), store, all, 0, job).value()) == "");
    CHECK(tiles.made() == 18);
    // Tiles of another region are known, also those that the region cuts.
    const Rect region{256, 0, 300, 256};
    CHECK(test::difference(render(pile, store, region, 0, job, &tiles).value(),
                           render(test::base_of(pile), store, region, 0, job).value()) == "");
    CHECK(tiles.made() == 18);
    tiles.clear();
    CHECK(test::difference(render(pile, store, all, 0, job, &tiles).value(), first) == "");
    CHECK(tiles.made() == 24);
}

TEST_CASE("tiles that do not fit into the budget are made again") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {700, 300}, 8);
    Job job;
    FrameStore store(working_space(pile));
    BaseTiles small(std::size_t(256) * 256 * 3 * 2);
    const Rect all = whole(pile.size);
    const Raster16 expected = render(test::base_of(pile), store, all, 0, job).value();
    for (int i = 0; i < 3; ++i)
        CHECK(test::difference(render(pile, store, all, 0, job, &small).value(), expected) == "");
    CHECK(small.made() > 6);
}

TEST_CASE("full cover is the largest rectangle that every frame reaches") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {60, 40}, 8);
    CHECK(full_cover(pile) == Rect{0, 0, 60, 40});
    Alignment right, up;
    right.to_reference = Matrix::shift(4.5, 0);
    up.to_reference = Matrix::shift(-2, -3);
    pile = with_alignments(std::move(pile), Model::shift, 1, {{1, {}}, {2, right}, {3, up}});
    CHECK(full_cover(pile) == Rect{5, 0, 53, 37});
    CHECK(output_area(pile) == Rect{5, 0, 53, 37});
    pile.cover = Cover::any;
    CHECK(output_area(pile) == Rect{0, 0, 60, 40});
    const int two[] = {2};
    pile.cover = Cover::full;
    CHECK(output_area(with_aside(pile, two, true)) == Rect{0, 0, 58, 37});
}

TEST_CASE("inside the full cover of turned frames no pixel lacks a frame") {
    const Folder folder;
    Pile pile = shaken(test::speckle_pile(folder, 5, {120, 90}, 8));
    const Rect area = full_cover(pile);
    REQUIRE(area.width > 80);
    for (const Frame& frame : pile.frames) {
        const kernels::SourceMap map(placement(pile, frame), pile.size);
        kernels::RowPlaces places(map, {area.left, area.right()});
        for (int y = area.top; y < area.bottom(); ++y) {
            places.go_to(y);
            REQUIRE(places.covered({area.left, area.right()}) == kernels::Span{area.left, area.right()});
        }
    }
}

TEST_CASE("a part shows its frame where its mask is full, and nothing where it is off") {
    const Folder folder;
    Pile pile = with_mode(test::speckle_pile(folder, 3, {50, 40}, 16), Mode::median);
    const Raster16 base = test::render_all(pile).value();
    auto [with, part] = with_new_part(std::move(pile), 2);
    Stroke stroke(Mask({50, 40}), {20, 0, 1, true});
    stroke.extend({25, 20});
    with = with_part_mask(std::move(with), part, stroke.mask());
    const Raster16 picture = test::render_all(with).value();
    const Raster16 frame = test::speckle({50, 40}, 3, 38);
    CHECK(picture.at(25, 20, 1) == frame.at(25, 20, 1));
    CHECK(picture.at(2, 2, 1) == base.at(2, 2, 1));
    CHECK(test::difference(test::render_all(with_part_on(with, part, false)).value(), base) == "");
    CHECK(test::difference(test::render_all(with_part_strength(with, part, 0)).value(), base) == "");
    // A frame that is set aside can still lend a part.
    const int two[] = {2};
    const Raster16 lent = test::render_all(with_aside(with, two, true)).value();
    CHECK(lent.at(25, 20, 2) == frame.at(25, 20, 2));
    // Order: the later part lies on top.
    auto [both, upper] = with_new_part(with, 3);
    both = with_part_mask(std::move(both), upper, stroke.mask());
    CHECK(test::render_all(both).value().at(25, 20, 0) == test::speckle({50, 40}, 3, 69).at(25, 20, 0));
    CHECK(test::render_all(with_part_moved(both, upper, -1)).value().at(25, 20, 0) == frame.at(25, 20, 0));
}

TEST_CASE("one frame and the difference are placed like the picture") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {30, 20}, 16);
    Job job;
    FrameStore store(working_space(pile));
    const Raster16 second = render_frame(pile, store, 2, whole(pile.size), 0, job).value();
    CHECK(test::difference(second, test::speckle({30, 20}, 3, 38)) == "");
    const Raster16 none = render_difference(pile, store, 1, 1, 4, whole(pile.size), 0, job).value();
    CHECK(std::all_of(none.data().begin(), none.data().end(), [](auto v) { return v == 0; }));
    const Raster16 some = render_difference(pile, store, 2, 1, 1, whole(pile.size), 0, job).value();
    CHECK(int(some.at(3, 4, 0)) == std::abs(int(second.at(3, 4, 0)) - int(test::speckle({30, 20}, 3, 7).at(3, 4, 0))));
}

TEST_CASE("a frame that has changed under an open pile is noticed") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {30, 20}, 16);
    test::write(folder / "frame-2.tif", test::speckle({31, 20}, 3, 1));
    const Result<Raster16> out = test::render_all(pile);
    REQUIRE_FALSE(out.ok());
    CHECK(out.failure().file == pile.frames[1].file->path.string());
    CHECK(out.failure().english().find("has changed") != std::string::npos);
}

TEST_CASE("a stopped job stops the merge") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {30, 20}, 16);
    Job job;
    job.stop();
    FrameStore store(working_space(pile));
    const auto out = render(pile, store, whole(pile.size), 0, job);
    REQUIRE_FALSE(out.ok());
    CHECK(out.failure().fault == Fault::stopped);
}
