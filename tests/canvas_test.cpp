// The canvas as a rectangle of its own: larger or smaller than the frames, anywhere around them, on a background.
#include <catch2/catch.hpp>
#include <random>

#include "engine/base_tiles.h"
#include "engine/cover.h"
#include "engine/export.h"
#include "engine/render.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"
#include "support/plain.h"

using namespace bp;
using bp::test::Folder;

namespace {

Pile moved(const Pile& pile, Zone zone, double turn) {
    std::map<int, Alignment> all;
    for (std::size_t i = 0; i < pile.frames.size(); ++i)
        all[pile.frames[i].id].to_reference =
            Matrix::rigid(turn * double(i), {20, 12}, 1.5 * double(i), -2.0 * double(i));
    return with_alignments(pile, Model::rigid, pile.frames[0].id, all, zone);
}

Pile zoned(const Pile& pile) {
    Mask sky(pile.size);
    sky.edit({0, 0, pile.size.width, pile.size.height / 2}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    return with_zones(pile, sky);
}

Pile with_part(const Pile& pile) {
    auto [out, part] = with_new_part(pile, pile.frames.back().id);
    Mask mask(pile.size);
    mask.edit({5, 3, 20, 18}, [](int, int, std::uint8_t) { return std::uint8_t(200); });
    return with_part_mask(std::move(out), part, mask);
}

Rect any_canvas(Size size, std::mt19937& dice) {
    const auto pick = [&](int low, int high) { return low + int(dice() % unsigned(high - low)); };
    return {pick(-40, size.width), pick(-30, size.height), pick(1, size.width + 70), pick(1, size.height + 50)};
}

Raster16 part_of(const Raster16& raster, const Rect& area) {
    Raster16 out(area.size(), raster.channels());
    for (int y = 0; y < area.height; ++y)
        std::copy_n(raster.row(area.top + y) + area.left * raster.channels(), out.row_samples(), out.row(y));
    return out;
}

}  // namespace

TEST_CASE("a picture on any canvas equals the yardstick, with its background where no frame reaches") {
    const Folder folder;
    const Pile still = with_part(test::speckle_pile(folder, 4, {53, 41}, 16));
    std::mt19937 dice(5);
    for (int i = 0; i < 60; ++i) {
        const Mode mode = modes()[std::size_t(i) % modes().size()].mode;
        Pile pile = with_mode(still, mode);
        if (i % 3 > 0) pile = moved(pile, Zone::sky, 0.013);
        if (i % 4 > 1) pile = moved(zoned(pile), Zone::land, -0.02);
        pile = with_canvas(pile, {any_canvas(pile.size, dice), {0.2, 0.6, 1}});
        const Rect canvas = canvas_of(pile);
        INFO(i << ": " << canvas.left << " " << canvas.top << " " << canvas.width << " x " << canvas.height);
        Job job;
        FrameStore store(working_space(pile));
        const Result<Raster16> fast = render(pile, store, canvas, 0, job);
        const Result<Raster16> plain = render_plain(pile, canvas);
        REQUIRE(fast.ok());
        REQUIRE(plain.ok());
        // An even median may sit half a step away in each of its two values.
        REQUIRE(test::difference(fast.value(), plain.value(), i % 3 > 0 || i % 4 > 1 ? 1 : 0) == "");
    }
}

TEST_CASE("pieces of a canvas that begins before the frames are pieces of the whole, at every level and from tiles") {
    const Folder folder;
    const Pile still = zoned(with_part(test::speckle_pile(folder, 3, {150, 130}, 8)));
    for (const Pile& base : {still, moved(moved(still, Zone::sky, 0.02), Zone::land, -0.03)}) {
        const Pile pile = with_canvas(base, {Rect{-301, -77, 611, 405}, {0, 0.5, 0}});
        for (const int level : {0, 1, 2, 3}) {
            const Rect all = at_level(canvas_of(pile), level);
            Job job;
            FrameStore store(working_space(pile));
            BaseTiles tiles(std::size_t(64) << 20);
            const Raster16 whole_canvas = render(pile, store, all, level, job).value();
            CHECK(whole_canvas.at(0, 0, 1) == 32768);
            for (const Rect& piece : {Rect{0, 0, 40, 20}, Rect{all.width / 3, all.height / 4, 21, 30},
                                      Rect{all.width - 9, all.height - 7, 9, 7}}) {
                INFO("level " << level << ", piece at " << piece.left << ", " << piece.top);
                const Rect region{all.left + piece.left, all.top + piece.top, piece.width, piece.height};
                const Raster16 wanted = part_of(whole_canvas, piece);
                CHECK(test::difference(render(pile, store, region, level, job).value(), wanted) == "");
                CHECK(test::difference(render(pile, store, region, level, job, &tiles).value(), wanted) == "");
                CHECK(test::difference(render(pile, store, region, level, job, &tiles).value(), wanted) == "");
            }
        }
    }
}

TEST_CASE("cover and crop are of the canvas") {
    const Folder folder;
    const Pile still = test::speckle_pile(folder, 3, {60, 40}, 8);
    const Pile wide = with_canvas(still, {Rect{-10, -20, 100, 90}, {}});
    CHECK(output_area(wide) == whole(still.size));
    CHECK(full_cover(zoned(wide)) == whole(still.size));
    Pile any = wide;
    any.cover = Cover::any;
    CHECK(output_area(any) == Rect{-10, -20, 100, 90});
    CHECK(output_area(with_crop(wide, Rect{-50, -5, 55, 10})) == Rect{-10, -5, 15, 10});
    // A crop keeps what lies on the canvas; one that lies beside it is none.
    CHECK(with_canvas(with_crop(wide, Rect{-10, 0, 40, 40}), {}).crop == Rect{0, 0, 30, 40});
    CHECK_FALSE(with_canvas(with_crop(wide, Rect{70, 0, 10, 40}), {}).crop);
    CHECK(output_area(with_canvas(still, {Rect{5, 6, 20, 10}, {}})) == Rect{5, 6, 20, 10});
    // Shares of what reaches: nothing beside the frames, all of them within.
    const Raster16 shares = cover_shares(wide, canvas_of(wide), 0);
    CHECK(shares.at(9, 20, 0) == 0);
    CHECK(shares.at(10, 20, 0) == 65535);
    CHECK(shares.at(69, 59, 0) == 65535);
    CHECK(shares.at(70, 59, 0) == 0);
    // What cannot be is none.
    for (const Rect& area : {Rect{0, 0, 0, 4}, Rect{0, 0, 300000, 4}, Rect{-300000, 0, 5, 4}, whole(still.size)})
        CHECK(with_canvas(still, {area, {}}) == still);
    CHECK(with_canvas(still, {{}, {-1, 7, std::nan("")}}).canvas.background == std::array<double, 3>{0, 1, 0});
}

TEST_CASE("a canvas shows its background alone while no frame is in, and keeps a crop that begins before the frames") {
    const Folder folder;
    const Pile still = test::speckle_pile(folder, 2, {60, 40}, 8);
    const std::vector<int> all{still.frames[0].id, still.frames[1].id};
    Pile pile = with_canvas(with_aside(still, all, true), {Rect{-7, -5, 90, 60}, {0.25, 0.5, 1}});
    Job job;
    FrameStore store(working_space(pile));
    const Raster16 empty = render(pile, store, canvas_of(pile), 0, job).value();
    CHECK((empty.at(30, 20, 0) == 16384 && empty.at(89, 59, 1) == 32768 && empty.at(0, 0, 2) == 65535));
    pile = with_crop(pile, Rect{-6, -4, 20, 15});
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().remarks.empty());
    CHECK(loaded.value().pile == pile);
}

TEST_CASE("a canvas is exported as it is seen") {
    const Folder folder;
    Pile pile = with_canvas(moved(test::speckle_pile(folder, 3, {60, 40}, 16), Zone::sky, 0.01),
                            {Rect{-7, -5, 90, 60}, {1, 0.25, 0}});
    pile.cover = Cover::any;
    Job job;
    FrameStore store(working_space(pile));
    REQUIRE(export_picture(pile, folder / "out.tif", {{16, 90}}, job).ok());
    const Result<Raster16> written = read_picture(folder / "out.tif");
    REQUIRE(written.ok());
    CHECK(test::difference(written.value(), render(pile, store, canvas_of(pile), 0, job).value()) == "");
    CHECK(written.value().at(0, 0, 1) == 16384);
}
