// Looks and levels.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "engine/hot_search.h"
#include "engine/levelling.h"
#include "engine/open.h"
#include "engine/render.h"
#include "even/evener.h"
#include "even/tone.h"
#include "pile/edits.h"
#include "practice/camera.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;
using Catch::Detail::Approx;

namespace {

std::vector<std::uint16_t> evened(const Look& look, const std::vector<std::uint16_t>& pixels,
                                  const std::array<double, 3>& gains = {1, 1, 1},
                                  const Profile& profile = Profile::srgb()) {
    std::vector<std::uint16_t> out(pixels.size());
    Evener(SharedTone(look, profile, 3), gains, 3, 16).run(pixels.data(), pixels.size() / 3, out.data());
    return out;
}

std::vector<std::uint16_t> grey_ramp() {
    std::vector<std::uint16_t> out;
    for (int v = 0; v <= 65535; v += 13)
        for (int c = 0; c < 3; ++c) out.push_back(std::uint16_t(v));
    return out;
}

double light_of(std::uint16_t sample) {
    return LightCurve::of(Profile::srgb(), 3).light(sample) / LightCurve::full;
}

// The truth: what each scene frame got of light beside the reference, the first one.
void check_levels(const char* scene) {
    const test::Folder folder;
    const Pile pile = test::practised(folder, scene);
    Job job;
    FrameStore store(working_space(pile));
    const practice::SceneEntry& entry = *practice::scene_named(scene);
    const auto shots = entry.make(entry.frames, 1)->shots();
    for (const Levelling kind : {Levelling::light, Levelling::colour}) {
        const std::map<int, LightGains> levels = measure_gains(pile, kind, store, job).value();
        std::size_t shot = 0;
        for (const Frame& frame : pile.frames) {
            REQUIRE(levels.contains(frame.id));
            const double truth = shots[0].gain / shots[shot++].gain;
            for (const double gain : levels.at(frame.id).gain) CHECK(gain == Approx(truth).epsilon(0.005));
        }
    }
}

}  // namespace

TEST_CASE("a look of zeros gives every sample back, within what the table rounds") {
    const auto ramp = grey_ramp();
    const auto out = evened({}, ramp);
    int worst = 0;
    for (std::size_t i = 0; i < ramp.size(); ++i) worst = std::max(worst, std::abs(int(out[i]) - int(ramp[i])));
    CHECK(worst <= 1);
}

TEST_CASE("exposure multiplies linear light") {
    Look look;
    look.exposure_ev = -1.5;
    const auto out = evened(look, {40000, 40000, 40000, 1000, 30000, 65535});
    for (const auto& [in, got] : {std::pair{40000, out[0]}, {1000, out[3]}, {30000, out[4]}, {65535, out[5]}})
        CHECK(light_of(std::uint16_t(got)) ==
              Approx(light_of(std::uint16_t(in)) * std::exp2(-1.5)).epsilon(0.001).margin(2e-6));
}

TEST_CASE("levels multiply each channel's light, in any profile") {
    const auto out = evened({}, {20000, 20000, 20000}, {1.1, 1, 0.5}, Profile::linear_srgb());
    CHECK(out[0] == 22000);
    CHECK(out[1] == 20000);
    CHECK(out[2] == 10000);
}

TEST_CASE("no value of a look turns the order of tones round") {
    for (const LookValue& v : look_values())
        for (const double amount : {v.least, v.least / 2, v.most / 2, v.most}) {
            Look look;
            look.*v.value = amount;
            const auto out = evened(look, grey_ramp());
            INFO(v.name << ' ' << amount);
            for (std::size_t i = 3; i < out.size(); i += 3)
                if (out[i] < out[i - 3]) FAIL("falls at " << i / 3);
        }
    Look all;
    all.contrast = all.bright = all.deep = -100;
    const auto out = evened(all, grey_ramp());
    for (std::size_t i = 3; i < out.size(); i += 3)
        if (out[i] < out[i - 3]) FAIL("falls at " << i / 3);
}

TEST_CASE("a floor makes what is darker black and leaves white") {
    Look look;
    look.floor = 50;
    const std::uint16_t dark = 15000, white = 65535;
    const auto out = evened(look, {dark, dark, dark, white, white, white});
    CHECK(out[0] == 0);
    CHECK(out[3] >= 65534);
}

TEST_CASE("bright tones pulled down bring back what exposure lifted beyond white") {
    Look look;
    look.exposure_ev = 1;
    const std::vector<std::uint16_t> bright{52000, 52000, 52000, 60000, 60000, 60000};
    CHECK(evened(look, bright)[0] == 65535);
    look.bright = -100;
    const auto out = evened(look, bright);
    CHECK(out[0] < 65000);
    CHECK(out[3] > out[0] + 500);
}

TEST_CASE("the cast of light keeps the brightness of grey") {
    for (const double amount : {-100.0, 60.0}) {
        Look look;
        look.warmth = amount;
        look.green_to_magenta = amount / 2;
        const auto out = evened(look, {20000, 20000, 20000});
        const auto w = luminance_weights(Profile::srgb());
        CHECK(w[0] * light_of(out[0]) + w[1] * light_of(out[1]) + w[2] * light_of(out[2]) ==
              Approx(light_of(20000)).epsilon(0.001));
        CHECK((amount > 0) == (out[0] > out[2]));
    }
}

TEST_CASE("strength draws colours apart or together, pale colours those that have little") {
    const std::vector<std::uint16_t> pale{30000, 26000, 25000}, strong{50000, 4000, 3000};
    Look look;
    look.colour_strength = -100;
    const auto grey = evened(look, pale);
    CHECK(std::abs(int(grey[0]) - int(grey[2])) <= 1);
    look = {};
    look.pale_colours = 60;
    const auto change = [&](const std::vector<std::uint16_t>& pixel) {
        const auto out = evened(look, pixel);
        return double(out[0]) / pixel[0];
    };
    CHECK(change(pale) > change(strong));
    CHECK(change(pale) > 1.01);
}

TEST_CASE("looks add up within their limits") {
    Look below, own;
    below.exposure_ev = 4;
    own.exposure_ev = 3;
    own.deep = -20;
    const Look both = on_top(below, own);
    CHECK(both.exposure_ev == 5);
    CHECK(both.deep == -20);
    Look broken;
    broken.green_to_magenta = std::nan("");
    CHECK(limited(broken).green_to_magenta == 0);
}

TEST_CASE("a run is levelled within half a per cent of truth") {
    check_levels("quay");
    check_levels("harbour-cats");
}

TEST_CASE("levels are found with nearly half of the picture changed, across many stops and beside what is clipped") {
    const Size size{400, 300};
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> any(0, 1);
    Raster16 still(size, 3), moved(size, 3);
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const double gain : {0.0625, 0.9, 1.3, 16.0}) {
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                for (int c = 0; c < 3; ++c) {
                    const double light = (0.01 + 0.03 * any(dice)) * (gain < 1 ? 8 : 1);
                    still.at(x, y, c) = curve.sample(light * LightCurve::full);
                    // The lower 45 per cent shows something else, brighter.
                    const double other = y >= size.height * 0.55 ? light * (1.5 + any(dice)) : light;
                    moved.at(x, y, c) = curve.sample(std::min(1.0, other * gain) * LightCurve::full);
                }
        const auto found = gains_between(
            light_grid(still, curve), light_grid(moved, curve), [](Point p) { return p; }, Levelling::light);
        REQUIRE(found.has_value());
        INFO(gain);
        CHECK(found->gain[0] * gain == Approx(1).epsilon(0.005));
    }
}

TEST_CASE("a black frame has no level") {
    const Raster16 still(Size{100, 80}, 3);
    const LightGrid grid = light_grid(still, LightCurve::of(Profile::srgb(), 3));
    CHECK_FALSE(gains_between(
                    grid, grid, [](Point p) { return p; }, Levelling::light)
                    .has_value());
}

TEST_CASE("frames are not levelled to a dark one") {
    const test::Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {150, 110}, 8);
    Job job;
    FrameStore store(working_space(pile));
    REQUIRE(measure_gains(pile, Levelling::light, store, job).ok());
    const int dark[] = {pile.frames[0].id, pile.frames[1].id, pile.frames[2].id};
    const auto refused = measure_gains(with_role(pile, dark, Role::dark), Levelling::light, store, job);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().english().find("Choose a frame of the scene") != std::string::npos);
}

TEST_CASE("frames are evened alike from memory, from scratch, in bands and in regions") {
    const test::Folder folder;
    const Size size{150, 110};
    for (const int bits : {8, 16}) {
        Pile pile = with_mode(test::speckle_pile(folder, 3, size, bits), Mode::median);
        Look look;
        look.contrast = 30;
        look.pale_colours = 20;
        pile = with_look(pile, look);
        look = {};
        look.exposure_ev = -0.5;
        const int first[] = {1};
        pile = with_own_look(pile, first, look);
        pile = with_gains(pile, Levelling::colour, {{2, LightGains{{1.2, 1, 0.9}, false}}});
        Alignment turned;
        turned.to_reference = Matrix::rigid(0.6, {75, 55}, 3, 2);
        const Pile placed = with_alignments(pile, Model::rigid, 1, {{1, {}}, {2, turned}});
        const auto hot = std::make_shared<const HotPixels>(
            HotPixels{{0, 0}, {40, 20}, {31, 30}, {32, 30}, {100, 31}, {90, 69}, {149, 109}});
        for (const Pile& p : {pile, placed, with_hot_pixels(pile, hot), with_hot_pixels(placed, hot)}) {
            Job job;
            FrameStore in_memory(working_space(p));
            for (const Frame& frame : p.frames) REQUIRE(in_memory.load(*frame.file, 0, job).ok());
            const Raster16 whole_picture = render(p, in_memory, whole(size), 0, job).value();
            FrameStore streaming(working_space(p), {0, std::size_t(1) << 27});
            const Result<Raster16> streamed = render(p, streaming, whole(size), 0, job);
            INFO((streamed.ok() ? std::string() : streamed.failure().english()));
            REQUIRE(streamed.ok());
            CHECK(test::difference(streamed.value(), whole_picture) == "");
            // No memory to keep frames in, so they go to scratch.
            FrameStore scratch(working_space(p), {1, std::size_t(1) << 28});
            CHECK(test::difference(render(p, scratch, whole(size), 0, job).value(), whole_picture) == "");
            const Rect region{31, 20, 70, 50};
            const Raster16 piece = render(p, in_memory, region, 0, job).value();
            int wrong = 0;
            for (int y = 0; y < region.height; ++y)
                wrong += !std::equal(piece.row(y), piece.row(y) + piece.row_samples(),
                                     whole_picture.row(y + region.top) + 3 * region.left);
            CHECK(wrong == 0);
        }
    }
}

TEST_CASE("a frame in its look is what the evener makes of it, and other frames stay as they are") {
    const test::Folder folder;
    const Size size{40, 30};
    Pile pile = with_mode(test::speckle_pile(folder, 2, size, 16), Mode::one);
    Look look;
    look.exposure_ev = -1;
    look.deep = 40;
    const int second[] = {2};
    pile = with_own_look(pile, second, look);
    CHECK(test::difference(test::render_all(with_base(pile, 1)).value(), test::speckle(size, 3, 7)) == "");
    const Raster16 recorded = test::speckle(size, 3, 38);
    Raster16 expected(size, 3);
    Evener(SharedTone(look, pile.profile, 3), {1, 1, 1}, 3, 16)
        .run(recorded.data().data(), std::size_t(size.width) * std::size_t(size.height), expected.data().data());
    CHECK(test::difference(test::render_all(with_base(pile, 2)).value(), expected) == "");
}

TEST_CASE("a level that a person gave outlives measuring, and a new reference carries levels along") {
    const test::Folder folder;
    Pile pile = test::speckle_pile(folder, 3, {40, 30}, 16);
    pile = with_gains(pile, Levelling::light, {{1, LightGains{}}, {2, LightGains{{2, 2, 2}, false}}});
    pile = with_gain_by_person(pile, 3, 1);
    pile = with_gains(pile, Levelling::light,
                      {{2, LightGains{{2, 2, 2}, false}}, {3, LightGains{{1.5, 1.5, 1.5}, false}}});
    CHECK(pile.frames[2].gains->gain[0] == 2);
    pile = with_reference(pile, 2);
    CHECK(pile.frames[1].gains->gain[0] == 1);
    CHECK(pile.frames[2].gains->gain[0] == 1);
}

TEST_CASE("a hot pixel becomes the mean of its neighbours that are not hot, and nothing else changes") {
    const test::Folder folder;
    const Size size{40, 30};
    Pile pile = with_mode(test::speckle_pile(folder, 1, size, 16), Mode::one);
    pile = with_hot_pixels(pile, std::make_shared<const HotPixels>(HotPixels{{0, 0}, {10, 12}, {11, 12}}));
    const Raster16 recorded = test::speckle(size, 3, 7);
    const Raster16 mended = test::render_all(pile).value();
    const auto mean = [&](std::vector<HotPixel> of) {
        unsigned sum = 0;
        for (const HotPixel& p : of) sum += recorded.at(p.x, p.y, 1);
        return (sum + unsigned(of.size()) / 2) / unsigned(of.size());
    };
    CHECK(mended.at(10, 12, 1) == mean({{10, 11}, {9, 12}, {10, 13}}));
    CHECK(mended.at(11, 12, 1) == mean({{11, 11}, {12, 12}, {11, 13}}));
    int changed = 0;
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) changed += mended.at(x, y, 1) != recorded.at(x, y, 1);
    CHECK(changed <= 3);
}

TEST_CASE("hot pixels of the lighthouse are found, and nearly nothing else") {
    const test::Folder folder;
    const Pile pile = test::practised(folder, "lighthouse", 16);
    Job job;
    FrameStore store(working_space(pile));
    const HotPixels found = search_hot_pixels(pile, store, job).value();
    const auto truth =
        practice::hot_pixels(practice::scene_named("lighthouse")->make(16, 1)->camera().hot_pixels, pile.size, 1);
    int right = 0;
    for (const practice::HotPixel& t : truth)
        right += std::any_of(found.begin(), found.end(), [&](const HotPixel& p) { return p.x == t.x && p.y == t.y; });
    const int wrong = int(found.size()) - right;
    INFO(right << " of " << truth.size() << ", " << wrong << " others");
    CHECK(right >= 0.98 * double(truth.size()));
    CHECK(wrong <= 5 * 1.6 * 1.067);
}

TEST_CASE("hot pixels need four frames") {
    const test::Folder folder;
    const Pile pile = test::speckle_pile(folder, 3, {40, 30}, 8);
    Job job;
    FrameStore store(working_space(pile));
    CHECK_FALSE(search_hot_pixels(pile, store, job).ok());
}

TEST_CASE("a look is found that makes grey of a light") {
    const std::array<double, 3> luminance{0.2126, 0.7152, 0.0722};
    std::mt19937 random(3);
    std::uniform_real_distribution<double> cast(0.88, 1.13);
    for (int i = 0; i < 200; ++i) {
        const std::array<double, 3> light{0.2 * cast(random), 0.2 * cast(random), 0.2 * cast(random)};
        Look before;
        before.exposure_ev = 0.5;
        before.contrast = 20;
        const Look look = neutral_for(before, light);
        const auto gains = gains_of(look, luminance);
        std::array<double, 3> made{};
        for (std::size_t c = 0; c < 3; ++c) made[c] = light[c] * gains[c];
        const auto [least, most] = std::minmax_element(made.begin(), made.end());
        // Both values are whole numbers.
        CHECK(*most / *least < 1.008);
        Look rest = look;
        rest.warmth = rest.green_to_magenta = 0;
        CHECK(rest == before);
    }
    // As far as it goes, and not where there is no light.
    CHECK(neutral_for({}, {0.9, 0.1, 0.01}).warmth == -100);
    CHECK(neutral_for({}, {0, 0.5, 0.5}) == Look{});
}

TEST_CASE("tones are counted by channel, in the area that is asked for") {
    Raster16 picture({60, 40}, 3);
    for (int y = 0; y < 40; ++y)
        for (int x = 0; x < 60; ++x) {
            picture.at(x, y, 0) = x < 15 ? 0 : 65535;
            picture.at(x, y, 1) = std::uint16_t(1000 * x);
            picture.at(x, y, 2) = 30000;
        }
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const std::array<double, 3> luminance{0.2126, 0.7152, 0.0722};
    const ToneCounts all = tone_counts(picture, whole(picture.size()), curve, luminance);
    REQUIRE(all.shares.size() == 4);
    CHECK(all.black[0] == Approx(0.25));
    CHECK(all.white[0] == Approx(0.75));
    CHECK(all.black[1] == Approx(1 / 60.0));
    CHECK(all.white[1] == 0);
    CHECK(all.black[2] == 0);
    // All of blue has one tone.
    const auto& blue = all.shares[3];
    const auto most = std::max_element(blue.begin(), blue.end()) - blue.begin();
    CHECK(most == std::lround(127 * curve.eye()[30000]));
    CHECK(std::count_if(blue.begin(), blue.end(), [](float v) { return v > 0; }) <= 5);
    const ToneCounts left = tone_counts(picture, {-20, -20, 35, 100}, curve, luminance);
    CHECK(left.black[0] == 1);
    const ToneCounts none = tone_counts(picture, {100, 100, 5, 5}, curve, luminance);
    CHECK(none.black[0] == 0);
    Raster16 grey({10, 10}, 1);
    CHECK(tone_counts(grey, whole(grey.size()), LightCurve::of(Profile::srgb(), 1), {0, 1, 0}).shares.size() == 1);
}
