// Darks and sensor spots: what the sensor adds and takes, undone before frames are placed.
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

#include "engine/base_tiles.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/spots.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "practice/camera.h"
#include "practice/practice.h"
#include "support/fixtures.h"
#include "support/plain.h"

using namespace bp;
using bp::test::Folder;

namespace {

const LightCurve& srgb() {
    static const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    return curve;
}

// What a warm sensor adds: more towards a corner, and pixels that glow.
double glow(int x, int y, int c) {
    const double corner = 0.02 * std::exp(-(x * x + y * y) / 3000.0);
    return corner + ((x * 7 + y * 13) % 97 == 0 ? 0.08 * (c == 1 ? 1 : 0.3) : 0);
}

Raster16 with_light(const Raster16& picture, const std::function<double(int, int, int, double)>& change) {
    Raster16 out = picture.clone();
    for (int y = 0; y < out.height(); ++y)
        for (int x = 0; x < out.width(); ++x)
            for (int c = 0; c < 3; ++c) {
                const double light = srgb().light(picture.at(x, y, c)) / LightCurve::full;
                out.at(x, y, c) = srgb().sample(std::clamp(change(x, y, c, light), 0.0, 1.0) * LightCurve::full);
            }
    return out;
}

CaptureData taken(double exposure_s, double iso, double at_s) {
    CaptureData out;
    out.exposure_s = exposure_s;
    out.iso = iso;
    out.captured = at_s;
    return out;
}

constexpr Size sensor_size{120, 90};

// Three frames of 10 s at ISO 800, each moved on a little, and two darks with what the given ones have.
Pile glowing(const Folder& folder, double dark_exposure_s = 10, double dark_iso = 800, double dark_part = 1) {
    std::vector<NamedFile> files;
    for (int i = 0; i < 3; ++i) {
        const Raster16 clean = test::landscape(sensor_size, Matrix::shift(2.0 * i, 1.0 * i));
        test::write(folder / ("f" + std::to_string(i) + ".tif"),
                    with_light(clean, [](int x, int y, int c, double v) { return 0.8 * v + glow(x, y, c); }), 16, {},
                    taken(10, 800, 100 + 20 * i));
        files.push_back({folder / ("f" + std::to_string(i) + ".tif"), Role::scene});
    }
    for (int i = 0; i < 2; ++i) {
        Raster16 black(sensor_size, 3);
        test::write(folder / ("d" + std::to_string(i) + ".tif"),
                    with_light(black, [&](int x, int y, int c, double) { return dark_part * glow(x, y, c); }), 16, {},
                    taken(dark_exposure_s, dark_iso, 200 + 20 * i));
        files.push_back({folder / ("d" + std::to_string(i) + ".tif"), Role::dark});
    }
    Job job;
    return open_frames(files, Outcome::trails, Order::captured, job).value();
}

double worst_beside_clean(const Raster16& picture, const Raster16& clean) {
    double worst = 0;
    for (int y = 0; y < sensor_size.height; ++y)
        for (int x = 0; x < sensor_size.width; ++x)
            for (int c = 0; c < 3; ++c)
                worst = std::max(worst, std::abs(srgb().light(picture.at(x, y, c)) / LightCurve::full -
                                                 0.8 * srgb().light(clean.at(x, y, c)) / LightCurve::full));
    return worst;
}

// A shadow as dust throws it.
double shadow(double distance, double radius) {
    const double t = std::clamp((distance - 0.6 * radius) / (0.4 * radius), 0.0, 1.0);
    return 1 - 0.3 * (1 - t * t * (3 - 2 * t));
}

}  // namespace

TEST_CASE("darks take away what the sensor adds") {
    const Folder folder;
    Pile pile = with_base(with_mode(glowing(folder), Mode::one), 2);
    const Raster16 clean = test::landscape(sensor_size, Matrix::shift(2, 1));
    CHECK(worst_beside_clean(test::render_all(pile).value(), clean) > 0.05);
    pile = with_darks(std::move(pile), Darks::on);
    CHECK(darks_of(pile, pile.frames[1]).ids.size() == 2);
    CHECK(useless_darks(pile).empty());
    CHECK(worst_beside_clean(test::render_all(pile).value(), clean) < 1e-4);
}

TEST_CASE("darks and spots equal the yardstick, for every store, region and way") {
    const Folder folder;
    Pile pile = with_mode(with_darks(glowing(folder), Darks::on), Mode::mean);
    auto passes = std::make_shared<Raster16>(Size{20, 16}, 1);
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 20; ++x) passes->at(x, y, 0) = std::uint16_t(30000 + 1500 * x + 300 * y);
    pile = with_spot(std::move(pile), {{50, 38}, 8, {40, 30, 20, 16}, passes});
    pile = with_hot_pixels(std::move(pile), std::make_shared<const HotPixels>(HotPixels{{44, 33}, {90, 60}}));
    Look look;
    look.exposure_ev = 0.4;
    std::map<int, Alignment> moved;
    for (std::size_t i = 0; i < 3; ++i)
        moved[pile.frames[i].id].to_reference = Matrix::rigid(0.01 * double(i), {60, 45}, -2.0 * double(i), 1.0);
    const Pile placed = with_look(with_alignments(pile, Model::rigid, pile.frames[0].id, moved), look);
    for (const Pile& now : {pile, placed}) {
        const Raster16 plain = render_plain(now, whole(sensor_size)).value();
        Job job;
        for (const MemoryBudget budget :
             {MemoryBudget{0, std::size_t(1) << 30}, MemoryBudget{std::size_t(1) << 30, std::size_t(1) << 30}}) {
            FrameStore store(working_space(now), budget);
            for (const int round : {1, 2}) {
                INFO("round " << round);
                CHECK(test::difference(render(now, store, whole(sensor_size), 0, job).value(), plain, 2).empty());
            }
            const Raster16 all = render(now, store, whole(sensor_size), 0, job).value();
            const Rect region{43, 31, 30, 25};
            const Raster16 piece = render(now, store, region, 0, job).value();
            for (int y = 0; y < region.height; ++y)
                for (int x = 0; x < region.width; ++x)
                    if (piece.at(x, y, 1) != all.at(region.left + x, region.top + y, 1)) FAIL(x << "," << y);
            BaseTiles tiles;
            CHECK(test::difference(render(now, store, whole(sensor_size), 0, job, &tiles).value(), all).empty());
            const Pile bare = with_darks(now, Darks::off);
            CHECK_FALSE(test::difference(render(bare, store, whole(sensor_size), 0, job, &tiles).value(), all).empty());
            CHECK(render(now, store, at_level(whole(sensor_size), 1), 1, job).ok());
        }
    }
}

TEST_CASE("a turned frame on the scratch disk is undone alike") {
    const Folder folder;
    Pile pile = with_mode(with_darks(glowing(folder), Darks::on), Mode::maximum);
    std::map<int, Alignment> turned;
    for (std::size_t i = 0; i < 3; ++i)
        turned[pile.frames[i].id].to_reference = Matrix::rigid(0.9 * double(i), {60, 45}, 0, 0);
    const int first = pile.frames[0].id;
    pile = with_alignments(std::move(pile), Model::rigid, first, turned);
    Job job;
    FrameStore roomy(working_space(pile), {0, std::size_t(1) << 30});
    const Raster16 by_rows = render(pile, roomy, whole(sensor_size), 0, job).value();
    FrameStore kept(working_space(pile), {1, std::size_t(1) << 30});
    CHECK(test::difference(render(pile, kept, whole(sensor_size), 0, job).value(), by_rows).empty());
    CHECK(test::difference(render(pile, kept, whole(sensor_size), 0, job).value(), by_rows).empty());
}

TEST_CASE("a dark that does not fit is not subtracted and is said") {
    const Folder folder;
    Pile iso = with_darks(glowing(folder, 10, 1600), Darks::on);
    CHECK(darks_of(iso, iso.frames[0]).ids.empty());
    REQUIRE(useless_darks(iso).size() == 2);
    CHECK(useless_darks(iso).begin()->second.english() ==
          "d0.tif was taken at ISO 1600, the frames at 800. Take darks at the ISO of the frames.");
    Pile shorter = with_darks(glowing(folder, 5, 800, 0.5), Darks::on);
    CHECK(darks_of(shorter, shorter.frames[0]).ids.empty());
    CHECK(useless_darks(shorter).begin()->second.english().find("exposed for 5 s, the frames for 10 s") !=
          std::string::npos);
    shorter = with_base(with_mode(with_darks(std::move(shorter), Darks::scaled), Mode::one), 1);
    CHECK(useless_darks(shorter).empty());
    CHECK(darks_of(shorter, shorter.frames[0]).scale == Approx(2));
    CHECK(worst_beside_clean(test::render_all(shorter).value(), test::landscape(sensor_size, {})) < 2e-4);
    const int ids[] = {shorter.frames[3].id, shorter.frames[4].id};
    CHECK(darks_of(with_aside(shorter, ids, true), shorter.frames[0]).ids.empty());
}

TEST_CASE("raw darks are subtracted before demosaicing: nothing is left around pixels that glow") {
    const Folder folder;
    practice::PracticeOptions options;
    options.frames = 3;
    options.ending = ".dng";
    options.size = {400, 267};
    options.truth = false;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("lighthouse"), folder.path(), options, job).ok());
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    pile = with_mode(std::move(pile), Mode::minimum);
    const auto hot =
        practice::hot_pixels(practice::scene_named("lighthouse")->make(3, 1)->camera().hot_pixels, pile.size, 1);
    REQUIRE(!hot.empty());
    // How much brighter than what is around it each is, over a square of three.
    const auto excess = [&](const Raster16& picture) {
        double sum = 0;
        int count = 0;
        for (const auto& h : hot) {
            if (h.x < 5 || h.y < 5 || h.x >= pile.size.width - 5 || h.y >= pile.size.height - 5) continue;
            double inner = 0, outer = 0;
            for (int dy = -4; dy <= 4; ++dy)
                for (int dx = -4; dx <= 4; ++dx) {
                    const double v = picture.at(h.x + dx, h.y + dy, 0) + picture.at(h.x + dx, h.y + dy, 1) +
                                     picture.at(h.x + dx, h.y + dy, 2);
                    (std::max(std::abs(dx), std::abs(dy)) <= 1 ? inner : outer) += v;
                }
            sum += inner / 9 - outer / 72;
            ++count;
        }
        return sum / count;
    };
    const double before = excess(test::render_all(pile).value());
    pile = with_darks(std::move(pile), Darks::on);
    CHECK(darks_of(pile, pile.frames[0]).ids.size() == 2);
    const Raster16 less = test::render_all(pile).value();
    INFO(before << " before, " << excess(less) << " after");
    CHECK(before > 300);
    CHECK(std::abs(excess(less)) < 0.12 * before);
    CHECK(test::difference(less, render_plain(pile, whole(pile.size)).value()).empty());
}

TEST_CASE("a spot is measured from frames that are shifted against each other, texture and all") {
    const Folder folder;
    const Size wide{260, 190};
    const Point at{130, 95};
    constexpr double radius = 9;
    constexpr int count = 7;
    std::vector<NamedFile> files;
    for (int i = 0; i < count; ++i) {
        const Raster16 clean = test::landscape(wide, Matrix::shift(14.0 * i, 9.0 * i), unsigned(i), 0.003);
        test::write(folder / ("f" + std::to_string(i) + ".tif"), with_light(clean, [&](int x, int y, int, double v) {
                        return v * shadow(std::hypot(x - at.x, y - at.y), radius);
                    }));
        files.push_back({folder / ("f" + std::to_string(i) + ".tif"), Role::scene});
    }
    Job job;
    Pile pile = open_frames(files, Outcome::trails, Order::name, job).value();
    FrameStore store(working_space(pile));
    const SensorSpot spot = measure_spot(pile, at, radius, store, job).value();
    double sum = 0, worst = 0;
    int pixels = 0;
    for (int y = 0; y < spot.area.height; ++y)
        for (int x = 0; x < spot.area.width; ++x, ++pixels) {
            const double d = std::hypot(spot.area.left + x - at.x, spot.area.top + y - at.y);
            const double off = std::abs(spot.passes->at(x, y, 0) / 65535.0 - shadow(d, radius));
            sum += off;
            worst = std::max(worst, off);
        }
    INFO("worst " << worst << ", mean " << sum / pixels);
    CHECK(worst < 0.08);
    CHECK(sum / pixels < 0.01);
    const int fifth = pile.frames[4].id;
    pile = with_base(with_mode(with_spot(std::move(pile), spot), Mode::one), fifth);
    const Raster16 mended = test::render_all(pile).value();
    const Raster16 clean = test::landscape(wide, Matrix::shift(14.0 * 4, 9.0 * 4), 4, 0.003);
    double off = 0;
    int seen = 0;
    for (int y = int(at.y) - 6; y <= int(at.y) + 6; ++y)
        for (int x = int(at.x) - 6; x <= int(at.x) + 6; ++x, ++seen)
            off += std::abs(srgb().light(mended.at(x, y, 1)) / double(srgb().light(clean.at(x, y, 1))) - 1);
    CHECK(off / seen < 0.04);
    CHECK(without_spot(pile, {131, 96}).spots == nullptr);
    CHECK(without_spot(pile, {10, 10}).spots == pile.spots);
}

TEST_CASE("a spot in a single frame is mended from its surroundings") {
    const Point at{40, 30};
    const Rect area = intersect(around_spot(at, 7), whole({90, 70}));
    RasterF light(area.size(), 1);
    for (int y = 0; y < area.height; ++y)
        for (int x = 0; x < area.width; ++x) {
            const double u = area.left + x;
            const double v = area.top + y;
            light.at(x, y, 0) = float((0.2 + 0.002 * u + 0.001 * v) * shadow(std::hypot(u - at.x, v - at.y), 7));
        }
    std::vector<SpotView> frames;
    frames.push_back({std::move(light), {}});
    const SensorSpot spot = measured_spot(at, 7, frames, area);
    CHECK(spot.area == area);
    for (int y = 0; y < area.height; ++y)
        for (int x = 0; x < area.width; ++x) {
            const double d = std::hypot(area.left + x - at.x, area.top + y - at.y);
            CHECK(std::abs(spot.passes->at(x, y, 0) / 65535.0 - shadow(d, 7)) < 0.05);
        }
    const SensorSpot half = at_level(spot, 1);
    CHECK(half.area.width == at_level(area, 1).width);
    CHECK(half.passes->at(half.area.width / 2, half.area.height / 2, 0) < 50000);
}

TEST_CASE("the heron's sensor spot is suggested and mended") {
    const Folder folder;
    const Pile pile = test::practised(folder, "heron", 5, Outcome::sequence);
    const double scale = pile.size.width / practice::scene_width;
    const Point unit = *practice::scene_named("heron")->make(5, 1)->camera().sensor_spot;
    const Point truth{unit.x * scale, unit.y * scale};
    Job job;
    FrameStore store(working_space(pile));
    const std::vector<SpotGuess> guesses = guess_spots(pile, store, job).value();
    REQUIRE(!guesses.empty());
    CHECK(std::hypot(guesses[0].at.x - truth.x, guesses[0].at.y - truth.y) < 4);
    CHECK(guesses.size() == 1);
    const SensorSpot spot = measure_spot(pile, guesses[0].at, 1.5 * guesses[0].radius_px, store, job).value();
    const Rect here{int(truth.x) - 3, int(truth.y) - 3, 7, 7};
    const auto mean = [&](const Pile& p, const Rect& area) {
        const Raster16 picture = render_frame(p, store, p.frames[3].id, area, 0, job).value();
        double sum = 0;
        for (const std::uint16_t v : picture.data()) sum += srgb().light(v);
        return sum / double(picture.data().size());
    };
    const Rect beside{here.left + int(16 * scale), here.top, 7, 7};
    const double dark = mean(pile, here) / mean(pile, beside);
    const double mended = mean(with_spot(pile, spot), here) / mean(pile, beside);
    INFO(dark << " becomes " << mended);
    CHECK(dark < 0.8);
    CHECK(mended == Approx(1).margin(0.08));
}

TEST_CASE("a scene without spots has none suggested, though it stands still and is full of small dark things") {
    for (const char* scene : {"quay", "shelf", "harbour-cats"}) {
        INFO(scene);
        const Folder folder;
        const Pile pile = test::practised(folder, scene, 4, Outcome::clear);
        Job job;
        FrameStore store(working_space(pile));
        CHECK(guess_spots(pile, store, job).value().empty());
    }
}

TEST_CASE("darks and spots are saved with the pile") {
    const Folder folder;
    Pile pile = with_darks(glowing(folder), Darks::scaled);
    auto passes = std::make_shared<Raster16>(Size{9, 7}, 1);
    for (std::size_t i = 0; i < passes->data().size(); ++i) passes->data()[i] = std::uint16_t(20000 + 13 * i);
    pile = with_spot(std::move(pile), {{20.5, 30.25}, 4, {16, 27, 9, 7}, passes});
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Pile loaded = load_pile(folder / "a.pile").value().pile;
    CHECK(loaded.darks == Darks::scaled);
    REQUIRE(loaded.spots);
    CHECK(*loaded.spots == *pile.spots);
}
