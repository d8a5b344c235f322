// How parts join what lies below them.
#include "parts/joins.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/render.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
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

TEST_CASE("what a part is, how it joins and how a sequence lies is in the file of a pile") {
    const test::Folder folder;
    Pile pile = joined(test::speckle_pile(folder, 5, {64, 48}, 8));
    pile.parts[0].of = PartOf::subject;
    pile.parts[0].subject = 3;
    pile.parts[1].of = PartOf::meteor;
    pile.parts[1].by_hand = true;
    pile.sequence = {0.75, OnTop::early};
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().pile.parts == pile.parts);
    CHECK(loaded.value().pile.sequence == pile.sequence);
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
