// The meteors of a night over one frame.
#include "engine/shower.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "engine/aligning.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "practice/scene.h"
#include "support/fixtures.h"

using namespace bp;

TEST_CASE("every meteor of a night lies at its place over one frame, and the rest is that frame to the bit") {
    const test::Folder folder;
    Pile pile = test::practised(folder, "night-watch", 0, Outcome::shower);
    Job job;
    const auto placed = align_frames(pile, Model::stars, pile.reference, job);
    REQUIRE(placed.ok());
    pile = with_alignments(std::move(pile), Model::stars, pile.reference, placed.value());
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Result<std::vector<Part>> found = find_shower(pile, store, job);
    REQUIRE(found.ok());
    pile = with_found_parts(std::move(pile), PartOf::meteor, std::move(found).value());

    // Where the truth has each: as it lay among the stars, seen from the first frame.
    const practice::SceneEntry& entry = *practice::scene_named("night-watch");
    const auto scene = entry.make(int(pile.frames.size()), practice::PracticeOptions{}.seed);
    const double scale = pile.size.width / practice::scene_width;
    std::size_t on_sky = 0;
    for (const practice::StreakTruth& t : scene->streaks()) {
        const Frame& frame = pile.frames[std::size_t(t.frame - 1)];
        if (frame.id == pile.base) continue;
        const auto in_frame = [&](Point p) { return Point{(p.x + 0.5) * scale - 0.5, (p.y + 0.5) * scale - 0.5}; };
        const Point middle =
            placement(pile, frame).to_canvas(in_frame({(t.from.x + t.to.x) / 2, (t.from.y + t.to.y) / 2}));
        const auto own =
            std::find_if(pile.parts.begin(), pile.parts.end(), [&](const Part& p) { return p.frame == frame.id; });
        constexpr double horizon = 0.75;  // of the height: what turned below it is not laid over the land
        const bool seen =
            middle.x > 20 && middle.y > 20 && middle.x < pile.size.width - 20 && middle.y < horizon * pile.size.height;
        INFO("meteor of frame " << t.frame << " at " << middle.x << ", " << middle.y);
        if (!seen) continue;
        ++on_sky;
        REQUIRE(own != pile.parts.end());
        CHECK(own->mask.at(int(std::lround(middle.x)), int(std::lround(middle.y))) == 255);
    }
    CHECK(on_sky >= 12);
    CHECK(pile.parts.size() >= on_sky);

    const Raster16 with = test::render_all(pile).value();
    const Raster16 without = test::render_all(test::base_of(pile)).value();
    const Mask masks = test::touched_by(pile.parts);
    std::size_t beside = 0, darker = 0, brighter = 0, in_masks = 0;
    double lift = 0;
    for (int y = 0; y < with.height(); ++y)
        for (int x = 0; x < with.width(); ++x) {
            const bool touched =
                std::any_of(pile.parts.begin(), pile.parts.end(), [&](const Part& p) { return p.mask.at(x, y) != 0; });
            const int more = int(with.at(x, y, 1)) - int(without.at(x, y, 1));
            beside += !touched && more != 0;
            darker += more < 0;
            in_masks += touched;
            brighter += more > 2000;
            if (touched && more <= 2000) lift += more;
        }
    CHECK(beside == 0);
    CHECK(darker == 0);
    CHECK(brighter > 300);
    // Beside the meteor itself the sky of its frame does not come along: a thousandth of white at most.
    CHECK(lift / double(in_masks) < 66);
    // Land is never covered: no mask reaches into the lowest fifth.
    for (const Part& part : pile.parts) CHECK(part.mask.bounds().bottom() < 0.8 * pile.size.height);
}

TEST_CASE("meteors that were hidden or repainted stay when they are looked for again; without stars none are found") {
    const test::Folder folder;
    const Pile first = test::speckle_pile(folder, 3, {64, 48}, 8);
    Part meteor;
    meteor.frame = first.frames[1].id;
    meteor.mask = Mask(first.size);
    meteor.mask.edit({10, 10, 20, 3}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Pile pile = with_found_parts(first, PartOf::meteor, {meteor});
    REQUIRE(pile.parts.size() == 1);
    Mask wider = meteor.mask;
    wider.edit({10, 8, 20, 8}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    pile = with_part_mask(std::move(pile), pile.parts[0].id, wider);
    CHECK(with_found_parts(pile, PartOf::meteor, {meteor}) == pile);
    // Nor is one that was hidden shown again.
    const Pile fresh = with_found_parts(first, PartOf::meteor, {meteor});
    const Pile hidden = with_part_on(fresh, fresh.parts[0].id, false);
    CHECK(with_found_parts(hidden, PartOf::meteor, {meteor}) == hidden);
    // Parts of another kind are not touched, and the new lie above them.
    const auto [painted, id] = with_new_part(first, first.frames[0].id);
    const Pile both = with_found_parts(painted, PartOf::meteor, {meteor});
    REQUIRE(both.parts.size() == 2);
    CHECK(both.parts[0].id == id);
    Job job;
    FrameStore store(working_space(first), {0, std::size_t(1) << 28});
    const auto none = find_shower(first, store, job);
    REQUIRE(none.ok());
    CHECK(none.value().empty());
}
