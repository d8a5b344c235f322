// Tools of finishing that know more than a pixel's surroundings: glow, stars, wide contrast, mending from frames.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "engine/export.h"
#include "engine/finish_known.h"
#include "engine/open.h"
#include "engine/render.h"
#include "finish/glow.h"
#include "finish/stars.h"
#include "finish/wide.h"
#include "io/gather.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/finish_file.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr std::size_t enough_room = std::size_t(1) << 29;

Pile one_frame(const Folder& folder, const Raster16& picture) {
    test::write(folder / "frame.tif", picture);
    Job job;
    return open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
}

// An even sky under a glow from one corner and of another colour from below, with stars, over black land.
struct Glowing {
    Raster16 picture;
    Mask sky;
};
Glowing glowing(Size size, double glow) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    Glowing out{Raster16(size, 3), Mask(size)};
    std::mt19937 random(4);
    std::uniform_real_distribution<double> any(0, 1);
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) {
            const bool land = y > size.height * 0.8;
            const double u = double(x) / size.width, v = double(y) / size.height;
            const std::array<double, 3> lamp{1.0, 0.7, 0.3};
            const bool star = any(random) < 0.004;
            for (int c = 0; c < 3; ++c) {
                const double light = 0.05 + glow * (0.06 * u * u + 0.09 * lamp[std::size_t(c)] * v * v * v);
                out.picture.at(x, y, c) = curve.sample((land ? 0.01 : star ? 0.8 : light) * LightCurve::full);
            }
        }
    out.sky.edit({0, 0, size.width, int(size.height * 0.8) + 1},
                 [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    return out;
}

// The largest less the smallest light of the sky's cells, over their mean, by the worst channel. Stars do not count.
double unevenness(const Raster16& picture) {
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    double worst = 0;
    for (int c = 0; c < 3; ++c) {
        double least = 1e9, most = 0, sum = 0;
        int cells = 0;
        for (int top = 4; top + 16 < picture.height() * 0.77; top += 16)
            for (int left = 4; left + 16 < picture.width(); left += 16) {
                std::vector<double> light;
                for (int y = top; y < top + 16; ++y)
                    for (int x = left; x < left + 16; ++x) light.push_back(double(curve.light(picture.at(x, y, c))));
                std::nth_element(light.begin(), light.begin() + 128, light.end());
                least = std::min(least, light[128]);
                most = std::max(most, light[128]);
                sum += light[128];
                ++cells;
            }
        worst = std::max(worst, (most - least) / (sum / cells));
    }
    return worst;
}

// A round light whose tones fall off as a Gaussian.
Sheet star_sheet(double deviation) {
    Sheet out(whole({41, 41}), 3);
    float* to = out.light.data();
    for (int y = 0; y < 41; ++y)
        for (int x = 0; x < 41; ++x)
            for (int c = 0; c < 3; ++c) {
                const double tone =
                    0.1 + 0.7 * std::exp(-((x - 20) * (x - 20) + (y - 20) * (y - 20)) / (2 * deviation * deviation));
                *to++ = float(tone * tone);
            }
    return out;
}

// Where half of what rises above the ground is left, in pixels.
double width_of(const Sheet& sheet) {
    const auto above = [&](int x) { return std::sqrt(double(sheet.row(20)[3 * x])) - 0.1; };
    const double half = above(20) / 2;
    for (int x = 20; x < 40; ++x)
        if (above(x + 1) < half) return 2 * (x - 20 + (above(x) - half) / (above(x) - above(x + 1)));
    return 40;
}

Sheet after(const FinishTool& tool, Sheet sheet) {
    tool.run(sheet, sheet.area);
    return sheet;
}

}  // namespace

TEST_CASE("a known glow is evened to below 5 %, land and stars stay, and strength is a share of it") {
    const Folder folder;
    const Size size{480, 320};
    const Glowing scene = glowing(size, 1);
    Pile pile = with_zones(one_frame(folder, scene.picture), scene.sky);
    const Raster16 plain = test::render_all(pile).value();
    const double before = unevenness(plain);
    CHECK(before > 0.8);
    const Raster16 evened = test::render_all(with_glow(pile, 100)).value();
    CHECK(unevenness(evened) < 0.05 * before);
    CHECK(unevenness(evened) < 0.05);
    const double halfway = unevenness(test::render_all(with_glow(pile, 50)).value());
    CHECK(halfway == Approx(before / 2).epsilon(0.1));
    // The land is as it was, to the bit; stars are still far above their sky.
    bool same = true;
    for (int y = 270; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x) same = same && evened.at(x, y, 1) == plain.at(x, y, 1);
    CHECK(same);
    int stars = 0, still = 0;
    for (int y = 0; y < 240; ++y)
        for (int x = 0; x < size.width; ++x)
            if (plain.at(x, y, 1) > 55000) {
                ++stars;
                still += evened.at(x, y, 1) > 50000;
            }
    CHECK(stars > 200);
    CHECK(still == stars);
    CHECK(with_glow(pile, 900).finish.glow == 100);
    CHECK(with_glow(pile, NAN).finish.glow == 0);
    // An even sky stays as it is, nearly.
    const Folder other;
    const Glowing even = glowing(size, 0);
    const Pile calm = with_zones(one_frame(other, even.picture), even.sky);
    CHECK(test::difference(test::render_all(with_glow(calm, 100)).value(), test::render_all(calm).value(), 40).empty());
}

TEST_CASE("the glow alone is what is taken off, and black where land is") {
    const Folder folder;
    const Glowing scene = glowing({240, 160}, 1);
    const Pile pile = with_zones(one_frame(folder, scene.picture), scene.sky);
    FrameStore store(working_space(pile), {0, enough_room});
    Job job;
    const Raster16 alone = render_glow(pile, store, whole(pile.size), 0, job).value();
    CHECK(alone.at(230, 100, 0) > alone.at(10, 10, 0) + 3000);
    CHECK(alone.at(120, 155, 0) == 0);
}

TEST_CASE("stars become smaller and larger, keep their middles, and noise is left alone") {
    const Sheet star = star_sheet(1.6);
    const std::array<double, 3> luminance{0.2126, 0.7152, 0.0722};
    const double before = width_of(star);
    const Sheet smaller = after(*stars_tool(-1, luminance, 0), star),
                larger = after(*stars_tool(1, luminance, 0), star);
    CHECK(width_of(smaller) < 0.65 * before);
    CHECK(width_of(larger) > 1.4 * before);
    for (const Sheet* one : {&smaller, &larger}) CHECK(one->row(20)[60] == Approx(star.row(20)[60]).epsilon(1e-3));
    CHECK(stars_tool(0, luminance, 0) == nullptr);
    CHECK(stars_tool(1, luminance, 4) == nullptr);
    Sheet noise = star;
    std::mt19937 random(2);
    std::normal_distribution<double> normal(0.1, 0.004);
    for (float& v : noise.light) {
        const double tone = normal(random);
        v = float(tone * tone);
    }
    const Sheet calm = after(*stars_tool(-1, luminance, 0), noise);
    double most = 0;
    for (std::size_t i = 0; i < calm.light.size(); ++i)
        most = std::max(most, std::abs(std::sqrt(double(calm.light[i])) - std::sqrt(double(noise.light[i]))));
    CHECK(most < 0.006);
}

TEST_CASE("wide contrast draws what is apart further apart, within the canvas and however it is divided") {
    const Folder folder, out;
    const Size size{300, 200};
    Raster16 halves = test::landscape(size, Matrix());
    for (int y = 0; y < size.height; ++y)
        for (int x = 0; x < size.width; ++x)
            for (int c = 0; c < 3; ++c)
                halves.at(x, y, c) = std::uint16_t(halves.at(x, y, c) / 4 + (x < 150 ? 12000 : 30000));
    Pile pile = one_frame(folder, halves);
    Detail detail;
    detail.wide = 60;
    const Raster16 before = test::render_all(pile).value();
    pile = with_detail(std::move(pile), detail);
    const Raster16 made = test::render_all(pile).value();
    const auto mean_at = [](const Raster16& of, int left, int right) {
        double sum = 0;
        for (int y = 20; y < 180; ++y)
            for (int x = left; x < right; ++x) sum += of.at(x, y, 1);
        return sum / (160.0 * (right - left));
    };
    // Beside the border; far from it nothing is left of the difference.
    CHECK(mean_at(made, 150, 165) - mean_at(made, 135, 150) >
          1.15 * (mean_at(before, 150, 165) - mean_at(before, 135, 150)));
    Job job;
    REQUIRE(export_picture(pile, out / "wide.tif", {}, job).ok());
    CHECK(test::difference(read_picture(out / "wide.tif").value(), made).empty());
    FrameStore store(working_space(pile), {0, enough_room});
    const Raster16 piece = render(pile, store, {140, 50, 33, 21}, 0, job).value();
    bool same = true;
    for (int y = 0; y < 21; ++y)
        for (int x = 0; x < 33; ++x) same = same && piece.at(x, y, 1) == made.at(140 + x, 50 + y, 1);
    CHECK(same);
}

TEST_CASE("a place is mended from a frame and from the median, where it lies, with its light drawn to its border") {
    const Folder folder, out;
    const Size size{200, 150};
    const Raster16 scene = test::landscape(size, Matrix());
    // A thing that stands there in all frames but one, and a wire that is in one alone.
    for (int k = 0; k < 5; ++k) {
        Raster16 picture = scene.clone();
        if (k != 3)
            for (int y = 60; y < 72; ++y)
                for (int x = 80; x < 92; ++x)
                    for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 64000;
        if (k == 1)
            for (int x = 20; x < 180; ++x)
                for (int y = 110; y < 113; ++y)
                    for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 60000;
        // Frames of other light: what is taken from one must join.
        test::write(folder / ("m" + std::to_string(k) + ".tif"), test::lit(std::move(picture), k == 3 ? 0.9 : 1.0));
    }
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    pile = with_mode(std::move(pile), Mode::lighten);
    Mended spot;
    spot.way = {{86, 66}};
    spot.width_px = 24;
    spot.source = MendFrom::frame;
    spot.frame = pile.frames[3].id;
    Mended line;
    line.way = {{16, 111}, {184, 111}};
    line.width_px = 9;
    line.source = MendFrom::median;
    const auto off = [&](const Raster16& made, const Rect& area) {
        double squares = 0;
        for (int y = area.top; y < area.bottom(); ++y)
            for (int x = area.left; x < area.right(); ++x) {
                const double d = made.at(x, y, 1) - double(scene.at(x, y, 1));
                squares += d * d;
            }
        return std::sqrt(squares / (area.width * area.height));
    };
    const Rect thing{78, 58, 16, 16}, wire{24, 109, 150, 5};
    const Raster16 before = test::render_all(pile).value();
    Pile around = with_mended(pile,
                              [&] {
                                  Mended plain = spot;
                                  plain.source = MendFrom::around;
                                  plain.from = {40, 0};
                                  return plain;
                              }())
                      .first;
    pile = with_mended(with_mended(pile, spot).first, line).first;
    const Raster16 made = test::render_all(pile).value();
    CHECK(off(before, thing) > 15000);
    CHECK(off(made, thing) < 0.02 * off(before, thing));
    CHECK(off(made, thing) < 0.2 * off(test::render_all(around).value(), thing));
    CHECK(off(made, wire) < 0.02 * off(before, wire));
    REQUIRE(export_picture(pile, out / "mended.tif", {}, job).ok());
    CHECK(test::difference(read_picture(out / "mended.tif").value(), made).empty());
    // Taken to another pile there is no such frame: it says so, and mends from around.
    REQUIRE(save_finish(pile.finish, pile.size, out / "f.finish").ok());
    const LoadedFinish loaded = load_finish(out / "f.finish", pile.size).value();
    CHECK(loaded.finish.mended[0].source == MendFrom::around);
    CHECK(loaded.finish.mended[1].source == MendFrom::median);
    CHECK(loaded.remarks.size() == 1);
    // A frame that is gone is as if none had been named.
    Pile gone = pile;
    gone.frames[3].problem = "gone";
    CHECK(test::render_all(gone).ok());
}
