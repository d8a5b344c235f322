// Sky and land: merged apart, cut along edges, told by motion, and what they share with the cover.
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/aligning.h"
#include "engine/base_tiles.h"
#include "engine/cover.h"
#include "engine/render.h"
#include "engine/zoning.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"
#include "support/plain.h"
#include "zones/snap.h"
#include "zones/suggest.h"

using namespace bp;
using bp::test::Folder;

namespace {

// Sky above a border that rises and falls.
Mask hilly_sky(Size size, double height, double swing) {
    Mask out(size);
    out.edit(whole(size), [&](int x, int y, std::uint8_t) {
        return std::uint8_t(y < height + swing * std::sin(x * 0.11) ? 255 : 0);
    });
    return out;
}

Pile turned_sky(const Pile& pile) {
    std::map<int, Alignment> sky, land;
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        const double k = double(i);
        sky[pile.frames[i].id].to_reference = Matrix::rigid(0.02 * k, {30, 20}, 1.5 * k, 0.5 * k);
        land[pile.frames[i].id].to_reference = Matrix::shift(-0.4 * k, 0.3 * k);
    }
    Pile out = with_zones(pile, hilly_sky(pile.size, pile.size.height / 2.0, 9));
    out = with_alignments(std::move(out), Model::rigid, pile.frames[0].id, sky, Zone::sky);
    return with_alignments(std::move(out), Model::shift, pile.frames[0].id, land, Zone::land);
}

double share_of(const Raster8& mask, const Rect& area, std::uint8_t value) {
    long same = 0;
    for (int y = area.top; y < area.bottom(); ++y)
        for (int x = area.left; x < area.right(); ++x) same += mask.at(x, y, 0) == value ? 1 : 0;
    return double(same) / (double(area.width) * area.height);
}

}  // namespace

TEST_CASE("zones that lie still are merged each in its mode, to the last bit") {
    const Folder folder;
    const Size size{90, 140};
    const Pile pile = test::speckle_pile(folder, 5, size, 16);
    for (const auto& [sky, land] : {std::pair{Mode::lighten, Mode::median}, std::pair{Mode::mean, Mode::minimum},
                                    std::pair{Mode::one, Mode::clipped_mean}}) {
        Pile now = with_mode(with_zones(pile, hilly_sky(size, 70, 20)), sky);
        now = with_feather(with_mode(std::move(now), land, Zone::land), 12);
        const Result<Raster16> fast = test::render_all(now);
        REQUIRE(fast.ok());
        CHECK(test::difference(fast.value(), render_plain(now, whole(size)).value()).empty());
        const Raster16 only_sky = test::render_all(with_mode(pile, sky)).value();
        const Raster16 only_land = test::render_all(with_mode(pile, land)).value();
        for (int x = 0; x < size.width; ++x) {
            CHECK(fast.value().at(x, 20, 1) == only_sky.at(x, 20, 1));
            CHECK(fast.value().at(x, 120, 1) == only_land.at(x, 120, 1));
        }
    }
}

TEST_CASE("zones aligned apart equal the yardstick, in every region, at every level, with parts") {
    const Folder folder;
    const Size size{150, 130};
    Pile pile = with_feather(turned_sky(test::speckle_pile(folder, 4, size, 8)), 8);
    pile = with_mode(with_mode(std::move(pile), Mode::mean), Mode::median, Zone::land);
    auto [with_part, part] = with_new_part(std::move(pile), 3);
    Mask kept(size);
    kept.edit({40, 30, 50, 60}, [](int, int, std::uint8_t) { return std::uint8_t{200}; });
    pile = with_part_mask(std::move(with_part), part, kept);
    const Raster16 all = test::render_all(pile).value();
    CHECK(test::difference(all, render_plain(pile, whole(size)).value(), 1).empty());
    Job job;
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const Rect region{37, 41, 61, 55};
    const Raster16 piece = render(pile, store, region, 0, job).value();
    for (int y = 0; y < region.height; ++y)
        for (int x = 0; x < region.width; ++x)
            if (piece.at(x, y, 2) != all.at(region.left + x, region.top + y, 2)) FAIL("at " << x << "," << y);
    CHECK(render(pile, store, at_level(whole(size), 1), 1, job).ok());
    // The window's way comes to the same.
    BaseTiles tiles;
    const Raster16 base = render(pile, store, whole(size), 0, job, &tiles).value();
    CHECK(test::difference(base, all).empty());
    // A tile of one division of the picture is not shown under another.
    const Pile other = with_zones(pile, hilly_sky(size, 30, 2));
    const Raster16 fresh = render(other, store, whole(size), 0, job, &tiles).value();
    CHECK(test::difference(fresh, render(other, store, whole(size), 0, job).value()).empty());
}

TEST_CASE("a softened mask is a ramp of the width asked for, and the same far from borders") {
    const Size size{400, 300};
    Mask mask(size);
    mask.edit({0, 0, 200, 300}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    const Mask soft = mask.softened(20);
    CHECK(soft.at(185, 150) == 255);
    CHECK(soft.at(214, 150) == 0);
    CHECK(std::abs(soft.at(199, 150) + soft.at(200, 150) - 255) <= 1);
    for (int x = 185; x < 214; ++x) CHECK(soft.at(x, 10) >= soft.at(x + 1, 10));
    CHECK(soft.at(192, 10) > 150);
    CHECK(soft.at(192, 10) < 255);
    CHECK(mask.softened(0) == mask);
    CHECK(mask.fingerprint() != soft.fingerprint());
    CHECK(Mask(mask).fingerprint() == mask.fingerprint());
}

TEST_CASE("the cover counts the frames that reach a pixel, and the full cover is where all do") {
    const Folder folder;
    const Size size{96, 80};
    Pile pile = turned_sky(test::speckle_pile(folder, 4, size, 8));
    for (const bool divided : {false, true}) {
        if (!divided) pile.zones.reset();
        const Raster16 shares = cover_shares(pile, whole(size), 0);
        const auto inside = [&](int x, int y, Zone zone) {
            int count = 0;
            for (const Frame& frame : pile.frames) {
                const Point p = placement(pile, frame, zone).to_frame({double(x), double(y)});
                count += p.x > -1e-6 && p.y > -1e-6 && p.x < size.width - 1 + 1e-6 && p.y < size.height - 1 + 1e-6;
            }
            return count;
        };
        for (int y = 0; y < size.height; y += 3)
            for (int x = 0; x < size.width; x += 3) {
                const int sky = divided ? pile.zones->soft.at(x, y) : 255;
                if (sky != 0 && sky != 255) continue;
                const int count = inside(x, y, sky == 255 ? Zone::sky : Zone::land);
                INFO(x << "," << y);
                CHECK(std::lround(shares.at(x, y, 0) / 65535.0 * 4) == count);
            }
        const Rect full = full_cover(pile);
        REQUIRE(!full.empty());
        for (int y = full.top; y < full.bottom(); ++y)
            for (int x = full.left; x < full.right(); ++x)
                if (shares.at(x, y, 0) != 65535) FAIL("not full at " << x << "," << y);
        // No larger one: neither a row nor a column more.
        for (const Rect& more : {Rect{full.left - 1, full.top, full.width + 1, full.height},
                                 Rect{full.left, full.top - 1, full.width, full.height + 1},
                                 Rect{full.left, full.top, full.width + 1, full.height},
                                 Rect{full.left, full.top, full.width, full.height + 1}}) {
            bool all = intersect(more, whole(size)) == more;
            for (int y = more.top; all && y < more.bottom(); ++y)
                for (int x = more.left; all && x < more.right(); ++x) all = shares.at(x, y, 0) == 65535;
            CHECK_FALSE(all);
        }
        pile = turned_sky(pile);
    }
}

TEST_CASE("a crop goes before the cover, stays inside the canvas and can be taken back") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {60, 40}, 8);
    CHECK(output_area(with_crop(pile, Rect{10, 5, 20, 30})) == Rect{10, 5, 20, 30});
    CHECK(output_area(with_crop(pile, Rect{50, -5, 40, 300})) == Rect{50, 0, 10, 40});
    CHECK(output_area(with_crop(pile, Rect{70, 0, 4, 4})) == whole(pile.size));
    CHECK(output_area(with_crop(with_crop(pile, Rect{1, 1, 9, 9}), std::nullopt)) == whole(pile.size));
}

TEST_CASE("zones and crop are saved with the pile") {
    const Folder folder;
    Pile pile = with_crop(with_feather(turned_sky(test::speckle_pile(folder, 3, {80, 60}, 8)), 11), Rect{4, 6, 50, 40});
    pile = with_mode(std::move(pile), Mode::maximum, Zone::land);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().pile.zones == pile.zones);
    CHECK(loaded.value().pile.crop == pile.crop);
    CHECK(loaded.value().pile.frames[2].places.land == pile.frames[2].places.land);
    CHECK(without_zones(loaded.value().pile).frames[2].places.land == std::nullopt);
}

TEST_CASE("a new reference carries both zones along") {
    const Folder folder;
    const Pile pile = turned_sky(test::speckle_pile(folder, 3, {80, 60}, 8));
    const Pile other = with_reference(pile, pile.frames[2].id);
    for (const Zone zone : both_zones) {
        CHECK(placement(other, other.frames[2], zone).is_identity());
        const Point a = placement(pile, pile.frames[1], zone).to_canvas({30, 30});
        const Point b = placement(other, other.frames[1], zone).to_canvas({30, 30});
        const Point back = placement(pile, pile.frames[2], zone).to_canvas(b);
        CHECK(back.x == Approx(a.x));
        CHECK(back.y == Approx(a.y));
    }
}

TEST_CASE("a roughly painted border is brought to roofs and fine branches") {
    const Size size{420, 300};
    Raster8 picture(size, 3);
    const auto is_land = [](int x, int y) {
        const double ridge = 170 + 30 * std::sin(x * 0.02) - (std::abs(x - 300) < 25 ? 40 : 0);
        const bool mast = std::abs(x - 120) <= 1 && y > 150;
        return y >= ridge || mast;
    };
    unsigned seed = 1;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            seed = seed * 1664525U + 1013904223U;
            const int noise = int(seed >> 28) - 8;
            const int level = is_land(x, y) ? 38 : 92;
            for (int c = 0; c < 3; ++c)
                picture.at(x, y, c) = std::uint8_t(level + noise + (is_land(x, y) ? -c : 4 * c));
        }
    Raster8 rough(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) rough.at(x, y, 0) = y < 158 ? 255 : 0;
    const Raster8 cut = cut_along_edges(picture, belief_of(rough, 60));
    Raster8 guide(size, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) guide.at(x, y, 0) = picture.at(x, y, 1);
    Job job;
    const Raster8 fine = refined_by(guide, cut, 12, job);
    long wrong = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) wrong += (fine.at(x, y, 0) < 128) != is_land(x, y) ? 1 : 0;
    // The painting was wrong in thousands of pixels.
    CHECK(wrong < 150);
    // The mast's upper end stands alone in the sky.
    CHECK(fine.at(120, 160, 0) < 100);
    CHECK(fine.at(112, 160, 0) > 200);
}

TEST_CASE("detail that frames have in common tells what turns from what stands, and nothing tells nothing") {
    const Size size{80, 60};
    // Stars in the upper half move on by two pixels a frame, stones in the lower half stand; noise on all of it.
    const auto frame = [&](int k, bool laid_by_stars) {
        RasterF out(size, 1);
        unsigned seed = unsigned(k) * 77 + 5;
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x) {
                seed = seed * 1664525U + 1013904223U;
                const bool sky = y < 30;
                const int along = sky == laid_by_stars ? x : x + 2 * k;
                const bool lit = sky ? along % 23 == 7 && y % 9 == 4 : (along / 2 + y / 2) % 5 == 0;
                out.at(x, y, 0) = 0.3F + (lit ? 0.2F : 0.0F) + 0.004F * float(seed >> 29U);
            }
        return out;
    };
    Common as_sky(size), as_land(size);
    for (int k = 0; k < 8; ++k) {
        as_sky.add(fine_detail(frame(k, true)), [](int, int) { return true; });
        as_land.add(fine_detail(frame(k, false)), [](int, int) { return true; });
    }
    const Raster8 belief = belief_of_motion(as_sky, as_land);
    REQUIRE_FALSE(belief.empty());
    long stars = 0, stones = 0, wrong = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const std::uint8_t told = belief.at(x, y, 0);
            (told == 255 ? stars : stones) += told == 255 || told == 0 ? 1 : 0;
            // What reaches over the border is a few pixels of detail's own width.
            if (std::abs(y - 30) > 4) wrong += (told == 255 && y > 30) || (told == 0 && y < 30) ? 1 : 0;
        }
    CHECK(stars > 9);
    CHECK(stones > 300);
    CHECK(20 * wrong < stars + stones);
    CHECK(belief.at(40, 2, 0) >= 128);
    CHECK(belief.at(40, 58, 0) < 128);
    const Common nothing(size);
    CHECK(belief_of_motion(nothing, nothing).empty());
}

TEST_CASE("islands of a cut belong to what is around them, larger pieces stay") {
    Raster8 cut({100, 80}, 1);
    for (int y = 0; y < 80; ++y)
        for (int x = 0; x < 100; ++x) {
            const bool island = std::abs(x - 20) < 3 && std::abs(y - 60) < 3;
            const bool hole = std::abs(x - 70) < 3 && std::abs(y - 10) < 3;
            const bool tower = x > 40 && x < 60 && y > 20;
            cut.at(x, y, 0) = (y < 40 && !tower && !hole) || island ? 255 : 0;
        }
    const Raster8 clean = without_islands(cut, 0.01);
    CHECK(clean.at(20, 60, 0) == 0);
    CHECK(clean.at(70, 10, 0) == 255);
    CHECK(clean.at(50, 30, 0) == 0);
    CHECK(clean.at(10, 10, 0) == 255);
    CHECK(without_islands(cut, 0).data() == cut.data());
}

TEST_CASE("what is sure stays, and a picture with one side alone is left as it is likely") {
    Raster8 rough({60, 50}, 1);
    for (int y = 0; y < 50; ++y)
        for (int x = 0; x < 60; ++x) rough.at(x, y, 0) = y < 25 ? 255 : 0;
    const Raster8 belief = belief_of(rough, 6);
    CHECK(belief.at(30, 5, 0) == 255);
    CHECK(belief.at(30, 22, 0) == likely_sky);
    CHECK(belief.at(30, 27, 0) == likely_land);
    CHECK(belief.at(30, 45, 0) == 0);
    Raster8 flat({60, 50}, 3);
    Raster8 all_sky({60, 50}, 1);
    std::fill(all_sky.data().begin(), all_sky.data().end(), likely_sky);
    const Raster8 cut = cut_along_edges(flat, all_sky);
    CHECK(share_of(cut, {0, 0, 60, 50}, 255) == 1);
}

TEST_CASE("zones that were not painted cannot be snapped") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {60, 40}, 8);
    Job job;
    FrameStore store(working_space(pile));
    CHECK_FALSE(snap_zones(pile, 20, store, job).ok());
    const auto none = snap_zones(with_zones(pile, Mask(pile.size)), 20, store, job);
    REQUIRE_FALSE(none.ok());
    CHECK(none.failure().english().find("Paint roughly") == 0);
}

TEST_CASE("what turns with the stars is suggested as sky, and both zones come out clean") {
    const Folder folder;
    Pile pile = test::practised(folder, "lighthouse", 9);
    Job job;
    FrameStore store(working_space(pile));
    CHECK_FALSE(suggest_sky(pile, store, job).ok());
    const int reference = pile.frames[4].id;
    const auto stars = align_frames(pile, Model::stars, reference, job);
    REQUIRE(stars.ok());
    pile = with_alignments(std::move(pile), Model::stars, reference, stars.value());
    const Result<Mask> sky = suggest_sky(pile, store, job);
    REQUIRE(sky.ok());
    const Raster8 mask = sky.value().to_raster(whole(pile.size));
    // The shore is land, what is high above the hills is sky.
    CHECK(share_of(mask, {0, 0, pile.size.width, pile.size.height * 3 / 10}, 255) > 0.99);
    CHECK(share_of(mask, {0, pile.size.height * 85 / 100, pile.size.width, pile.size.height * 15 / 100}, 0) > 0.99);
    pile = with_zones(std::move(pile), sky.value());
    pile = with_mode(with_mode(std::move(pile), Mode::mean), Mode::mean, Zone::land);
    const Rect shore{500, 900, 200, 100};
    const Raster16 both = render(test::base_of(pile), store, shore, 0, job).value();
    Pile still = without_zones(pile);
    still.methods.sky.model = Model::none;
    CHECK(test::difference(both, render(test::base_of(still), store, shore, 0, job).value()).empty());
    const Rect high{700, 150, 200, 100};
    Pile turning = without_zones(pile);
    CHECK(test::difference(render(test::base_of(pile), store, high, 0, job).value(),
                           render(test::base_of(turning), store, high, 0, job).value())
              .empty());
}
