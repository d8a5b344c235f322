#include <algorithm>
#include <catch2/catch.hpp>
#include <set>

#include "engine/open.h"
#include "engine/render.h"
#include "merge/row.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;

namespace {

MergeTools tools(std::size_t frames) {
    MergeTools out{LightCurve::of(Profile::srgb(), 3)};
    out.strengths.resize(frames);
    return out;
}

}  // namespace

TEST_CASE("every mode has a name of its own and is found by it") {
    std::set<std::string_view> names;
    for (const ModeEntry& entry : modes()) {
        names.insert(entry.name);
        CHECK(mode_named(entry.name) == entry.mode);
        CHECK(&entry_of(entry.mode) == &entry);
    }
    CHECK(names.size() == modes().size());
    CHECK_FALSE(mode_named("brightest").has_value());
}

TEST_CASE("only covering frames vote, and uncovered pixels are 0") {
    const std::uint16_t a[] = {10, 20, 30, 40, 50, 60};
    const std::uint16_t b[] = {5, 50, 5, 50, 5, 50};
    const std::uint16_t c[] = {100, 100, 100, 100, 100, 100};
    // Pixel 0: a; 1: a b; 2: a b c; 3: b c; 4: c; 5: none.
    const std::vector<FrameRow> rows{{nullptr, a, {0, 3}}, {nullptr, b, {1, 4}}, {nullptr, c, {2, 5}}};
    std::vector<std::uint16_t> out(6, 7);
    const auto merge = [&](Mode mode) {
        merge_row(mode, rows, 6, 1, tools(3), out.data());
        return out;
    };
    using Row = std::vector<std::uint16_t>;
    CHECK(merge(Mode::maximum) == Row{10, 50, 100, 100, 100, 0});
    CHECK(merge(Mode::lighten) == Row{10, 50, 100, 100, 100, 0});
    CHECK(merge(Mode::minimum) == Row{10, 20, 5, 50, 100, 0});
    CHECK(merge(Mode::median) == Row{10, 35, 30, 75, 100, 0});
    CHECK(merge(Mode::clipped_mean).front() == 10);
    CHECK(merge(Mode::clipped_mean).back() == 0);
    CHECK(merge(Mode::one) == Row{10, 20, 30, 50, 100, 0});
}

TEST_CASE("an even median is the mean of the two middle values") {
    const std::uint16_t a[] = {1}, b[] = {4}, c[] = {9}, d[] = {100};
    const std::vector<FrameRow> rows{
        {nullptr, d, {0, 1}}, {nullptr, b, {0, 1}}, {nullptr, a, {0, 1}}, {nullptr, c, {0, 1}}};
    std::uint16_t out = 0;
    merge_row(Mode::median, rows, 1, 1, tools(4), &out);
    CHECK(out == 7);  // 6.5, a half rounded up
}

TEST_CASE("the mean is taken in linear light or of the values as they stand") {
    const std::uint16_t black[] = {0}, white[] = {65535};
    const std::vector<FrameRow> rows{{nullptr, black, {0, 1}}, {nullptr, white, {0, 1}}};
    std::uint16_t out = 0;
    merge_row(Mode::mean, rows, 1, 1, tools(2), &out);
    // sRGB of half the light is 0.7354.
    CHECK(out == Approx(0.735357 * 65535).margin(2));
    merge_row(Mode::mean, rows, 1, 1, {LightCurve::encoded(), {{}, {}}, 1}, &out);
    CHECK(out == 32768);
}

TEST_CASE("a frame's strength scales its light before it competes") {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    CHECK(Strength(1.0, curve).whole());
    const Strength half(0.5, curve);
    CHECK(half.samples<std::uint16_t>()[65535] == Approx(0.735357 * 65535).margin(2));
    CHECK(half.samples<std::uint16_t>()[0] == 0);
    CHECK(std::is_sorted(half.samples<std::uint16_t>(), half.samples<std::uint16_t>() + 65536));
    const std::uint16_t bright[] = {65535}, dim[] = {50000};
    MergeTools with = tools(2);
    with.strengths[0] = Strength(0.1, curve);
    std::uint16_t out = 0;
    const std::vector<FrameRow> rows{{nullptr, bright, {0, 1}}, {nullptr, dim, {0, 1}}};
    merge_row(Mode::lighten, rows, 1, 1, with, &out);
    CHECK(out == 50000);
    merge_row(Mode::maximum, rows, 1, 1, with, &out);
    CHECK(out == 65535);
}

TEST_CASE("rows of 8 bits give what they give in 16, alone and beside rows of 16") {
    const Raster16 wide = test::speckle_8({200, 5}, 3, 1);
    std::vector<std::vector<std::uint8_t>> narrow(5);
    for (int k = 0; k < 5; ++k)
        for (int i = 0; i < 600; ++i) narrow[std::size_t(k)].push_back(std::uint8_t(wide.row(k)[i] / 257));
    MergeTools with = tools(5);
    with.step = 257;
    with.strengths[1] = Strength(0.4, with.curve);
    for (const ModeEntry& entry : modes())
        for (const int narrow_rows : {5, 3}) {
            std::vector<FrameRow> in_16, in_8;
            for (int k = 0; k < 5; ++k) {
                const kernels::Span cover{k * 7, 200 - k * 11};
                in_16.push_back({nullptr, wide.row(k), cover});
                in_8.push_back(k < narrow_rows ? FrameRow{narrow[std::size_t(k)].data(), nullptr, cover}
                                               : in_16.back());
            }
            std::vector<std::uint16_t> a(600), b(600);
            merge_row(entry.mode, in_16, 200, 3, with, a.data());
            merge_row(entry.mode, in_8, 200, 3, with, b.data());
            INFO(entry.name << " with " << narrow_rows << " rows of 8 bits");
            CHECK(a == b);
        }
}

TEST_CASE("added light is the sum of all frames' light, each with its strength, and white at most") {
    const LightCurve curve = LightCurve::encoded();
    const std::uint16_t a[] = {1000, 60000, 0}, b[] = {500, 3000, 0}, c[] = {200, 4000, 7};
    const std::vector<FrameRow> rows{{nullptr, a, {0, 3}}, {nullptr, b, {0, 3}}, {nullptr, c, {0, 3}}};
    MergeTools with{curve};
    with.strengths.resize(3);
    std::vector<std::uint16_t> out(3);
    merge_row(Mode::add, rows, 3, 1, with, out.data());
    CHECK(out == std::vector<std::uint16_t>{1700, 65535, 7});
    with.strengths[0] = Strength(0.25, curve);
    with.strengths[1] = Strength(0, curve);
    merge_row(Mode::add, rows, 3, 1, with, out.data());
    CHECK(out == std::vector<std::uint16_t>{450, 19000, 7});
}

TEST_CASE("a frame weighs as much in a mean as its strength, and nothing is black") {
    const LightCurve curve = LightCurve::encoded();
    const std::uint16_t a[] = {1000, 1000}, b[] = {3000, 1010}, c[] = {3000, 60000};
    const std::vector<FrameRow> rows{{nullptr, a, {0, 2}}, {nullptr, b, {0, 2}}, {nullptr, c, {0, 2}}};
    MergeTools with{curve};
    with.strengths = {Strength(0.5, curve), Strength(), Strength(0.5, curve)};
    std::vector<std::uint16_t> out(2);
    merge_row(Mode::mean, rows, 2, 1, with, out.data());
    CHECK(out == std::vector<std::uint16_t>{2500, 15755});
    // What stands apart is told by the samples as they are; what is left weighs by its strength.
    merge_row(Mode::clipped_mean, rows, 2, 1, with, out.data());
    CHECK(out == std::vector<std::uint16_t>{3000, 1007});
    for (Strength& strength : with.strengths) strength = Strength(0, curve);
    for (const Mode mode : {Mode::mean, Mode::clipped_mean, Mode::add, Mode::lighten}) {
        merge_row(mode, rows, 2, 1, with, out.data());
        CHECK(out == std::vector<std::uint16_t>{0, 0});
    }
}

TEST_CASE("bursts of light are put together on black by adding, with the floor of their look") {
    const test::Folder folder;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("sparks"), folder.path(), {}, job).ok());
    const auto truth_of = [&](const char* name) {
        return read_picture(folder / ("truth/" + std::string(name) + ".tif")).value();
    };
    const Raster16 on_black = truth_of("sparks");
    fs::remove_all(folder / "truth");
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    pile.cover = Cover::any;
    pile = with_mode(std::move(pile), Mode::add);
    const Raster16 plain = test::render_all(pile).value();
    Look look;
    look.floor = 15;
    const Raster16 shower = test::render_all(with_look(pile, look)).value();
    const LightCurve curve = LightCurve::of(pile.profile, 3);
    const auto green = [&](const Raster16& picture, int x, int y) {
        return double(curve.light(picture.at(x, y, 1))) / curve.light(65535);
    };
    double dark_plain = 0, dark_shower = 0, sparks = 0, kept = 0;
    std::size_t dark = 0, lit = 0;
    for (int y = 0; y < on_black.height(); ++y)
        for (int x = 0; x < on_black.width(); ++x) {
            const double true_light = green(on_black, x, y);
            if (true_light < 0.001) {
                ++dark;
                dark_plain += green(plain, x, y);
                dark_shower += green(shower, x, y);
            } else if (true_light > 0.25 && true_light < 0.9) {
                ++lit;
                sparks += true_light;
                kept += green(shower, x, y);
            }
        }
    REQUIRE(dark > lit);
    REQUIRE(lit > 10000);
    // Of the yard hardly anything is left, of the sparks all.
    CHECK(dark_shower < 0.2 * dark_plain);
    CHECK(kept / sparks == Approx(1).margin(0.03));
}
