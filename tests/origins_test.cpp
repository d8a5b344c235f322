// Origins: the frame that a pixel comes from has that pixel.
#include "engine/origins.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "engine/render.h"
#include "pile/edits.h"
#include "support/fixtures.h"

namespace bp {
namespace {

using test::Folder;

std::uint64_t brightness(const Raster16& r, int x, int y, const Pile& pile) {
    const LightCurve curve = LightCurve::of(pile.profile, 3);
    const auto weights = brightness_weights(pile.profile);
    std::uint64_t out = 0;
    for (int c = 0; c < 3; ++c) out += std::uint64_t(weights[std::size_t(c)]) * curve.light(r.at(x, y, c));
    return out;
}

// The channel that gives most to a pixel's brightness.
int main_channel(const Raster16& r, int x, int y, const Pile& pile) {
    const LightCurve curve = LightCurve::of(pile.profile, 3);
    const auto weights = brightness_weights(pile.profile);
    int best = 0;
    for (int c = 1; c < 3; ++c)
        if (std::uint64_t(weights[std::size_t(c)]) * curve.light(r.at(x, y, c)) >
            std::uint64_t(weights[std::size_t(best)]) * curve.light(r.at(x, y, best)))
            best = c;
    return best;
}

}  // namespace

TEST_CASE("origins are exact: the frame that is told gives the sample, and no earlier one does") {
    const Folder folder;
    const Size size{53, 40};
    for (const int bits : {8, 16})
        for (const int frames : {5, 6})
            for (const Mode mode : {Mode::lighten, Mode::maximum, Mode::minimum, Mode::median, Mode::one}) {
                Pile pile = with_mode(test::speckle_pile(folder, frames, size, bits), mode);
                Mask area(size);
                area.edit({5, 5, 20, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
                const int second[] = {pile.frames[1].id};
                pile = with_left_out(std::move(pile), second, area);
                FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
                Job job;
                const Rect region{3, 2, 45, 35};
                const Raster16 base = render(pile, store, region, 0, job).value();
                const Origins origins = origins_of(pile, store, region, 0, job).value();
                std::vector<Raster16> each;
                for (const Frame& frame : pile.frames)
                    each.push_back(render_frame(pile, store, frame.id, region, 0, job).value());
                const auto place = [&](int id) { return std::size_t(number_of(pile, id) - 1); };
                for (int y = 0; y < region.height; ++y)
                    for (int x = 0; x < region.width; ++x) {
                        const int a = origins.first_at(x, y), b = origins.second_at(x, y);
                        REQUIRE(a != 0);
                        const int c = main_channel(base, x, y, pile);
                        const unsigned low = each[place(a)].at(x, y, c), high = each[place(b)].at(x, y, c);
                        REQUIRE((low + high + 1) / 2 == base.at(x, y, c));
                        const bool left_out = area.at(region.left + x, region.top + y) > 0;
                        if (mode != Mode::one && left_out) REQUIRE((a != second[0] && b != second[0]));
                        const int voters = frames - (left_out ? 1 : 0);
                        if (mode != Mode::median || voters % 2 == 1) REQUIRE(a == b);
                        for (std::size_t k = 0; k < place(a) && mode != Mode::one; ++k) {
                            if (left_out && k == 1) continue;
                            REQUIRE(each[k].at(x, y, c) != low);
                        }
                    }
            }
}

TEST_CASE("origins of whole pixels are theirs, of sky and land each its own, of means none") {
    const Folder folder;
    const Size size{48, 36};
    Pile pile = with_choice_by(with_mode(test::speckle_pile(folder, 4, size, 16), Mode::maximum), By::pixel);
    FrameStore store(working_space(pile), {0, std::size_t(1) << 28});
    Job job;
    const Raster16 base = render(pile, store, whole(size), 0, job).value();
    const Origins origins = origins_of(pile, store, whole(size), 0, job).value();
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const Raster16 frame = render_frame(pile, store, origins.first_at(x, y), {x, y, 1, 1}, 0, job).value();
            REQUIRE(brightness(frame, 0, 0, pile) == brightness(base, x, y, pile));
        }
    Mask sky(size);
    sky.edit({0, 0, 48, 18}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Pile zoned = with_feather(with_zones(pile, sky), 0);
    zoned.methods.land.mode = Mode::one;
    const Origins both = origins_of(zoned, store, whole(size), 0, job).value();
    for (int x = 0; x < size.width; ++x) {
        CHECK(both.first_at(x, 30) == zoned.base);
        CHECK(both.first_at(x, 5) == origins.first_at(x, 5));
    }
    CHECK(has_origins(zoned));
    zoned.methods.land.mode = Mode::mean;
    CHECK_FALSE(has_origins(zoned));
    CHECK_FALSE(origins_of(with_mode(pile, Mode::add), store, whole(size), 0, job).ok());
}

}  // namespace bp
