// Raw frames: the practice camera's DNG through the same way as a camera's, against its truth.
#include <tiffio.h>

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>

#include "engine/open.h"
#include "engine/render.h"
#include "io/capture.h"
#include "io/raw_dark.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "practice/dng.h"
#include "practice/practice.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr Size raw_size{401, 267};  // an odd width: half size must not lose a column

Folder& raw_run() {
    static Folder folder;
    static const bool made = [] {
        Job job;
        practice::PracticeOptions options;
        options.frames = 3;
        options.size = raw_size;
        options.ending = ".dng";
        return practice::practise(*practice::scene_named("quay"), folder.path(), options, job).ok();
    }();
    REQUIRE(made);
    return folder;
}

double light(const Raster16& picture, const Profile& profile, int x, int y, int c) {
    static const LightCurve linear = LightCurve::of(Profile::linear_srgb(), 3);
    static const LightCurve srgb = LightCurve::of(Profile::srgb(), 3);
    const LightCurve& curve = profile.is_srgb() ? srgb : linear;
    return double(curve.light(picture.at(x, y, c))) / LightCurve::full;
}

// Median over smooth places of the light over the truth's.
double ratio_to(const Raster16& raw, const Raster16& truth, int channel) {
    std::vector<double> ratios;
    for (int y = 4; y < raw.height() - 4; y += 3)
        for (int x = 4; x < raw.width() - 4; x += 3) {
            const double t = light(truth, Profile::srgb(), x, y, channel);
            if (t > 0.05 && t < 0.6) ratios.push_back(light(raw, Profile::linear_srgb(), x, y, channel) / t);
        }
    std::nth_element(ratios.begin(), ratios.begin() + std::ptrdiff_t(ratios.size() / 2), ratios.end());
    return ratios[ratios.size() / 2];
}

}  // namespace

TEST_CASE("a raw file has its size, depth, profile and capture data") {
    const fs::path file = raw_run() / "quay-0001.dng";
    const PictureFacts facts = probe_picture(file).value();
    CHECK(facts.size == raw_size);
    CHECK(facts.channels == 3);
    CHECK(facts.bits == 16);
    CHECK(facts.profile == Profile::linear_srgb());
    const CaptureData capture = read_capture(file);
    CHECK(*capture.captured == Approx(1789203600.5));
    CHECK(*capture.exposure_s == Approx(1.0 / 125));
    CHECK(*capture.iso == 200);
    CHECK(capture.camera == "Skerrow practice camera");
}

TEST_CASE("developed light is the truth's, in every channel") {
    const Raster16 raw = read_picture(raw_run() / "quay-0001.dng").value();
    const Raster16 truth = read_picture(raw_run() / "truth/clear.tif").value();
    REQUIRE(raw.size() == truth.size());
    for (int c = 0; c < 3; ++c) CHECK(ratio_to(raw, truth, c) == Approx(1).margin(0.02));
}

TEST_CASE("levels of a raw frame are averages of it, and have the size of a level") {
    const fs::path file = raw_run() / "quay-0002.dng";
    const Raster16 full = read_picture(file).value();
    for (const int level : {1, 2, 3, 4}) {
        const Raster16 small = read_picture(file, level).value();
        CHECK(small.size() == at_level(raw_size, level));
        double a = 0, b = 0;
        for (const std::uint16_t v : full.data()) a += v;
        for (const std::uint16_t v : small.data()) b += v;
        CHECK(b / double(small.data().size()) == Approx(a / double(full.data().size())).epsilon(0.02));
    }
}

TEST_CASE("a pile of raw frames merges like any other, and half a raw file is refused") {
    const Folder folder;
    for (const char* name : {"quay-0001.dng", "quay-0002.dng", "quay-0003.dng"})
        fs::copy_file(raw_run() / name, folder / name);
    const std::string bytes = test::bytes_of(folder / "quay-0001.dng");
    std::ofstream(folder / "quay-0004.dng", std::ios::binary) << bytes.substr(0, 900);
    std::ofstream(folder / "quay-0005.dng", std::ios::binary) << "this is no raw file";
    Job job;
    Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::clear, Order::name, job).value();
    CHECK(merged_ids(pile).size() == 3);
    CHECK(pile.frames[4].problem.english().find("quay-0005.dng is not a raw file") == 0);
    CHECK(pile.profile == Profile::linear_srgb());
    const Raster16 merged = test::render_all(with_mode(pile, Mode::median)).value();
    const Raster16 truth = read_picture(raw_run() / "truth/clear.tif").value();
    for (int c = 0; c < 3; ++c) CHECK(ratio_to(merged, truth, c) == Approx(1).margin(0.03));
}

TEST_CASE("all raw frames of a pile have one white balance, whatever the camera took for white") {
    const Folder folder;
    Raster16 mosaic(Size{96, 64}, 1);
    for (int y = 0; y < 64; ++y)
        for (int x = 0; x < 96; ++x)
            mosaic.at(x, y, 0) =
                std::uint16_t(practice::Sensor::black +
                              5000 * practice::Sensor::neutral[std::size_t(practice::Sensor::colour_at(x, y))]);
    CaptureData capture;
    capture.camera = "Skerrow practice camera";
    REQUIRE(practice::write_dng(folder / "a.dng", mosaic, capture).ok());
    REQUIRE(practice::write_dng(folder / "b.dng", mosaic, capture, {0.6, 1.0, 0.5}).ok());
    const Raster16 own = read_picture(folder / "b.dng").value();
    CHECK(own.at(40, 30, 0) < 0.95 * own.at(40, 30, 1));
    Job job;
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::quiet, Order::name, job).value();
    REQUIRE(pile.balance);
    CHECK((*pile.balance)[0] == Approx(1 / 0.52).epsilon(1e-3));
    FrameStore store(working_space(pile));
    const Raster16 a = render_frame(pile, store, pile.frames[0].id, whole(pile.size), 0, job).value();
    const Raster16 b = render_frame(pile, store, pile.frames[1].id, whole(pile.size), 0, job).value();
    CHECK(test::difference(a, b, 60) == "");
    CHECK(double(a.at(40, 30, 0)) == Approx(a.at(40, 30, 1)).epsilon(0.01));
    // A saved pile keeps it.
    REQUIRE(save_pile(pile, folder / "p.pile").ok());
    CHECK(load_pile(folder / "p.pile").value().pile.balance == pile.balance);
}

TEST_CASE("what a sensor gives in the dark is told by colour and place in the picture, borders or none") {
    const Folder folder;
    // Nine blacks, one for each pixel of a square of three, told from the picture's corner on.
    std::array<float, 9> blacks{};
    for (std::size_t i = 0; i < blacks.size(); ++i) blacks[i] = 256 + 20 * float(i);
    constexpr int beyond = 100;
    for (const int border : {0, 2, 4}) {
        Raster16 mosaic({64 + 2 * border, 48 + 2 * border}, 1);
        for (int y = 0; y < mosaic.height(); ++y)
            for (int x = 0; x < mosaic.width(); ++x) {
                const int place = ((y - border + 6) % 3) * 3 + (x - border + 6) % 3;
                mosaic.at(x, y, 0) = std::uint16_t(blacks[std::size_t(place)] + beyond);
            }
        const fs::path file = folder / ("dark" + std::to_string(border) + ".dng");
        CaptureData capture;
        capture.camera = "a camera";
        REQUIRE(practice::write_dng(file, mosaic, capture, {1, 1, 1}).ok());
        {
            const std::unique_ptr<TIFF, void (*)(TIFF*)> tiff(TIFFOpen(file.c_str(), "r+"), TIFFClose);
            REQUIRE(tiff);
            const std::array<std::uint16_t, 2> square{3, 3};
            const std::array<std::uint32_t, 4> inside{std::uint32_t(border), std::uint32_t(border),
                                                      std::uint32_t(mosaic.height() - border),
                                                      std::uint32_t(mosaic.width() - border)};
            TIFFSetField(tiff.get(), TIFFTAG_BLACKLEVELREPEATDIM, square.data());
            TIFFSetField(tiff.get(), TIFFTAG_BLACKLEVEL, int(blacks.size()), blacks.data());
            TIFFSetField(tiff.get(), TIFFTAG_ACTIVEAREA, inside.data());
            REQUIRE(TIFFRewriteDirectory(tiff.get()) == 1);
        }
        INFO("border of " << border);
        const auto dark = mean_raw_dark({file});
        INFO((dark.ok() ? std::string() : dark.failure().english()));
        REQUIRE(dark.ok());
        REQUIRE(dark.value()->size == mosaic.size());
        double worst = 0;
        for (int y = border; y < mosaic.height() - border; ++y)
            for (int x = border; x < mosaic.width() - border; ++x) {
                const auto i = std::size_t(y) * std::size_t(mosaic.width()) + std::size_t(x);
                worst = std::max(worst, std::abs(double(dark.value()->above_black[i]) - beyond));
            }
        CHECK(worst < 0.5);
    }
}

TEST_CASE("the linear profile is the same bytes always") {
    CHECK(Profile::linear_srgb().bytes() == Profile(Profile::linear_srgb().bytes()).bytes());
    CHECK_FALSE(Profile::linear_srgb() == Profile::srgb());
    CHECK(LightCurve::of(Profile::linear_srgb(), 3).light(32768) == Approx(0.5 * LightCurve::full).epsilon(0.001));
}
