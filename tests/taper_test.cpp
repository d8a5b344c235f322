#include "merge/taper.h"

#include <catch2/catch.hpp>
#include <limits>

#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;

TEST_CASE("a straight taper rises in proportion over its share of the run, at the ends that fade") {
    const auto at = [](TaperEnd end, double x) { return strength_at({end, 0.4, {0.5, 0.5}}, x); };
    CHECK(at(TaperEnd::none, 0) == 1);
    for (const double x : {0.0, 0.1, 0.25, 0.4, 0.7, 1.0}) {
        CHECK(at(TaperEnd::old_one, x) == std::min(1.0, x / 0.4));
        CHECK(at(TaperEnd::new_one, x) == std::min(1.0, (1 - x) / 0.4));
        CHECK(at(TaperEnd::both, x) == std::min({1.0, x / 0.4, (1 - x) / 0.4}));
    }
}

TEST_CASE("a taper's curve goes through its knot, from nothing to all, and never turns back") {
    for (const double x : {0.02, 0.2, 0.5, 0.8, 0.98})
        for (const double y : {0.02, 0.3, 0.5, 0.7, 0.98}) {
            const Taper taper{TaperEnd::old_one, 0.5, {x, y}};
            INFO(x << ", " << y);
            CHECK(strength_at(taper, 0) == 0);
            CHECK(strength_at(taper, 0.5) == 1);
            CHECK(strength_at(taper, 0.5 * x) == Approx(y).margin(1e-9));
            double before = 0;
            bool rising = true;
            for (int i = 0; i <= 1000; ++i) {
                const double here = strength_at(taper, i / 1000.0);
                rising = rising && here >= before && here <= 1;
                before = here;
            }
            CHECK(rising);
        }
}

TEST_CASE("strengths of a run are its frames' own times the taper's, of those that are merged alone") {
    const test::Folder folder;
    Pile pile = with_taper(test::speckle_pile(folder, 6, {8, 8}, 8), {TaperEnd::old_one, 1, {0.5, 0.5}});
    const int third[] = {pile.frames[2].id};
    pile = with_strength(std::move(pile), third, 0.5);
    CHECK(strengths_of(pile, Zone::sky) == std::vector<double>{0, 0.2, 0.5 * 0.4, 3 / 5.0, 0.8, 1});
    const int first[] = {pile.frames[0].id};
    CHECK(strengths_of(with_aside(pile, first, true), Zone::sky) == std::vector<double>{0, 0.5 * 0.25, 0.5, 0.75, 1});
    CHECK(strengths_of(with_mode(pile, Mode::median), Zone::sky) == std::vector<double>(6, 1.0));
    // A frame alone keeps its light, at whichever end trails fade.
    const test::Folder single;
    const Pile alone = test::speckle_pile(single, 1, {8, 8}, 8);
    for (const TaperEndEntry& entry : taper_ends())
        CHECK(strengths_of(with_taper(alone, {entry.end, 0.5, {0.5, 0.5}}), Zone::sky) == std::vector<double>{1});
    // What cannot be is brought to what can.
    const double nan = std::numeric_limits<double>::quiet_NaN();
    const Pile odd = with_taper(pile, {TaperEnd::both, nan, {nan, 7}});
    CHECK(odd.methods.sky.taper == Taper{TaperEnd::both, 1, {0.5, 0.98}});
}
