// A point through all frames: what is told of each is what the frame has there.
#include "engine/plumb.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "engine/origins.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t much = std::size_t(1) << 28;

// Frames that lie a few pixels apart, one of them left out in a corner, one weaker.
Pile moved_pile(const Folder& folder, int bits, Mode mode) {
    Pile pile = with_mode(test::speckle_pile(folder, 6, {60, 44}, bits), mode);
    for (std::size_t i = 0; i < pile.frames.size(); ++i) {
        Alignment place;
        place.to_reference = Matrix::shift(2.0 * double(i), -1.0 * double(i));
        place.aligned = true;
        pile.frames[i].places.sky = place;
    }
    pile.methods.sky.model = Model::shift;
    Mask area(pile.size);
    area.edit({0, 0, 60, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    const int third[] = {pile.frames[2].id};
    pile = with_left_out(std::move(pile), third, area);
    const int second[] = {pile.frames[1].id};
    return with_strength(std::move(pile), second, 0.5);
}

}  // namespace

TEST_CASE("a plumb has what every frame has there, who votes, and who shows") {
    const Folder folder;
    for (const int bits : {8, 16})
        for (const Mode mode : {Mode::lighten, Mode::median, Mode::mean}) {
            const Pile pile = moved_pile(folder, bits, mode);
            FrameStore store(working_space(pile), {0, much});
            for (const auto& [x, y] : {std::pair{30, 12}, {30, 30}, {1, 40}, {58, 1}}) {
                INFO(entry_of(mode).name << ", " << bits << " bits, " << x << ", " << y);
                Job job;
                const Plumb plumb = plumb_at(pile, store, x, y, 0, 3, job).value();
                REQUIRE(plumb.frames.size() == pile.frames.size());
                const Raster16 result = render(pile, store, {x, y, 1, 1}, 0, job).value();
                for (int c = 0; c < 3; ++c) CHECK(plumb.result[std::size_t(c)] == result.at(0, 0, c));
                for (std::size_t k = 0; k < plumb.frames.size(); ++k) {
                    const PlumbFrame& of = plumb.frames[k];
                    const Frame& frame = pile.frames[k];
                    INFO("frame " << k);
                    CHECK(of.frame == frame.id);
                    CHECK(of.strength == (mode == Mode::median || k != 1 ? 1 : 0.5));
                    const Point there = placement(pile, frame).to_frame({double(x), double(y)});
                    const bool reaches = there.x >= 0 && there.y >= 0 && there.x <= 59 && there.y <= 43;
                    CHECK(of.there == reaches);
                    CHECK(of.votes == (reaches && (k != 2 || there.y >= 20)));
                    const Raster16 around = render_frame(pile, store, frame.id, {x - 3, y - 3, 7, 7}, 0, job).value();
                    CHECK(test::difference(of.patch, around).empty());
                    for (int c = 0; c < 3; ++c) CHECK(of.samples[std::size_t(c)] == (reaches ? around.at(3, 3, c) : 0));
                }
                if (mode == Mode::mean) {
                    CHECK(plumb.first == 0);
                } else {
                    const Origins origins = origins_of(pile, store, {x, y, 1, 1}, 0, job).value();
                    CHECK(plumb.first == origins.first_at(0, 0));
                    CHECK(plumb.second == origins.second_at(0, 0));
                    CHECK(plumb.first != 0);
                }
            }
        }
}

TEST_CASE("a plumb goes by the zone that the point is in, and by the frames that it merges") {
    const Folder folder;
    Pile pile = with_mode(test::speckle_pile(folder, 4, {60, 40}, 16), Mode::maximum);
    Mask sky(pile.size);
    sky.edit({0, 0, 60, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    pile = with_mode(with_zones(std::move(pile), sky), Mode::minimum, Zone::land);
    const int first[] = {pile.frames[0].id};
    pile = with_aside(std::move(pile), first, true);
    FrameStore store(working_space(pile), {0, much});
    Job job;
    const Plumb above = plumb_at(pile, store, 30, 5, 0, 1, job).value();
    const Plumb below = plumb_at(pile, store, 30, 35, 0, 1, job).value();
    CHECK(above.zone == Zone::sky);
    CHECK(below.zone == Zone::land);
    CHECK(above.frames.size() == 3);
    // Lighter than all, darker than all.
    for (const Plumb* plumb : {&above, &below})
        for (const PlumbFrame& f : plumb->frames)
            for (std::size_t c = 0; c < 3; ++c)
                CHECK((plumb == &above ? f.samples[c] <= plumb->result[c] : f.samples[c] >= plumb->result[c]));
    Job stopped;
    stopped.stop();
    CHECK_FALSE(plumb_at(pile, store, 30, 5, 0, 1, stopped).ok());
}
