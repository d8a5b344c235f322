// What an export writes, read back with other libraries: formats, profiles, sizes.
#include <ImfChannelList.h>
#include <ImfFrameBuffer.h>
#include <ImfInputFile.h>
#include <ImfStandardAttributes.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <numbers>

#include "engine/export.h"
#include "engine/open.h"
#include "engine/resizing.h"
#include "image/known_profiles.h"
#include "io/profile_file.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

struct ReadExr {
    Size size;
    bool half = false;
    std::vector<float> red, green, blue;
    Imf::Chromaticities primaries;
};

ReadExr read_exr(const fs::path& path) {
    Imf::InputFile in(path.c_str());
    const Imath::Box2i box = in.header().dataWindow();
    ReadExr out;
    out.size = {box.max.x + 1, box.max.y + 1};
    out.half = in.header().channels().findChannel("R")->type == Imf::HALF;
    out.primaries = Imf::chromaticities(in.header());
    Imf::FrameBuffer buffer;
    for (auto [name, to] : {std::pair{"R", &out.red}, std::pair{"G", &out.green}, std::pair{"B", &out.blue}}) {
        to->resize(std::size_t(out.size.width) * std::size_t(out.size.height));
        buffer.insert(name, Imf::Slice(Imf::FLOAT, reinterpret_cast<char*>(to->data()), sizeof(float),
                                       sizeof(float) * std::size_t(out.size.width)));
    }
    in.setFrameBuffer(buffer);
    in.readPixels(box.min.y, box.max.y);
    return out;
}

Raster16 reduced(const Raster16& picture, Size to, int band_rows) {
    struct Rows final : RowSink {
        explicit Rows(Size size, int channels) : out(size, channels) {}
        void begin(const StripPlan& plan) override { held = 2 * plan.band_rows; }
        std::uint16_t* row(int y) override { return out.row(y); }
        Status finish(const Band& band) override {
            // As many rows as were promised room, in their order.
            CHECK(band.second - band.first <= held / 2);
            CHECK(band.first == next);
            next = band.second;
            return Done{};
        }
        Raster16 out;
        int held = 0, next = 0;
    };
    Rows rows(to, picture.channels());
    const Rect region{5, -3, picture.width(), picture.height()};
    Reducer reducer(region, to, Profile::srgb(), picture.channels(), rows);
    StripPlan plan;
    plan.band_rows = band_rows;
    reducer.begin(plan);
    for (int top = 0; top < picture.height(); top += band_rows) {
        const int end = std::min(top + band_rows, picture.height());
        for (int y = top; y < end; ++y) std::copy_n(picture.row(y), picture.row_samples(), reducer.row(y + region.top));
        REQUIRE(reducer.finish({top + region.top, end + region.top}).ok());
    }
    CHECK(rows.next == to.height);
    return std::move(rows.out);
}

double sinc(double x) {
    return std::abs(x) < 1e-12 ? 1 : std::sin(std::numbers::pi * x) / (std::numbers::pi * x);
}

}  // namespace

TEST_CASE("JPEG XL and WebP of quality 100 lose nothing, and carry profile and capture data where they can") {
    const Folder folder;
    CaptureData capture;
    capture.exposure_s = 12;
    for (const auto& [ending, bits] : {std::pair{".jxl", 16}, {".jxl", 8}, {".webp", 8}}) {
        INFO(ending << ' ' << bits);
        const Raster16 picture = bits == 8 ? test::speckle_8({47, 31}, 3, 4) : test::speckle({47, 31}, 3, 4);
        const fs::path file = folder / ("picture" + std::string(ending));
        REQUIRE(write_picture(file, picture, known_profile(KnownProfile::display_p3), {bits, 100}, capture).ok());
        const Result<PictureFacts> facts = probe_picture(file);
        REQUIRE(facts.ok());
        CHECK(facts.value().bits == bits);
        CHECK(facts.value().profile == known_profile(KnownProfile::display_p3));
        CHECK(test::difference(picture, read_picture(file).value()).empty());
        if (std::string(ending) == ".webp") CHECK(read_capture(file).exposure_s == Approx(12));
        // Less quality takes less room.
        const auto whole_bytes = fs::file_size(file);
        REQUIRE(write_picture(file, picture, Profile::srgb(), {bits, 60}, capture).ok());
        CHECK(fs::file_size(file) < whole_bytes);
    }
    Raster16 wide({16384, 2}, 1);
    const Status refused = write_picture(folder / "wide.webp", wide, Profile::srgb(), {8, 90}, {});
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().english().find("wide.webp was not written: its format holds 16383 pixels") !=
          std::string::npos);
}

TEST_CASE("OpenEXR holds linear light in half or whole floats, with its primaries") {
    const Folder folder;
    const Raster16 picture = test::speckle({33, 21}, 3, 9);
    const LightCurve curve = LightCurve::of(known_profile(KnownProfile::display_p3), 3);
    for (const int bits : {8, 16, 32}) {
        const fs::path file = folder / "light.exr";
        REQUIRE(write_picture(file, picture, known_profile(KnownProfile::display_p3), {bits, 90}, {}).ok());
        const ReadExr back = read_exr(file);
        CHECK(back.size == picture.size());
        CHECK(back.half == (bits != 32));
        CHECK(back.primaries.red.x == Approx(0.680));
        CHECK(back.primaries.green.y == Approx(0.690));
        double worst = 0;
        for (int y = 0; y < picture.height(); ++y)
            for (int x = 0; x < picture.width(); ++x) {
                const double light = curve.light(picture.at(x, y, 1)) / LightCurve::full;
                const float got = back.green[std::size_t(y * picture.width() + x)];
                worst = std::max(worst, std::abs(got - light) / std::max(light, 1e-4));
            }
        // Eleven bits of a half.
        CHECK(worst < (bits == 32 ? 1e-6 : 1.0 / 2000));
    }
    // A profile that cannot be told is brought to one that can.
    REQUIRE(write_picture(folder / "grey.exr", test::speckle({9, 7}, 1, 2), Profile::srgb(), {16, 90}, {}).ok());
    Imf::InputFile grey((folder / "grey.exr").c_str());
    CHECK(grey.header().channels().findChannel("Y") != nullptr);
}

TEST_CASE("colours stay what they are when they are told in another profile") {
    const Folder folder;
    Raster16 picture({2, 1}, 3);
    picture.at(0, 0, 0) = 65535;
    for (int c = 0; c < 3; ++c) picture.at(1, 0, c) = 30000;
    test::write(folder / "red.tif", picture, 16);
    Job job;
    Pile pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::clear, Order::captured, job).value();
    const Folder out;
    pile.exporting.profile = ExportProfile::display_p3;
    REQUIRE(export_picture(pile, out / "p3.tif", {}, job).ok());
    const Raster16 p3 = read_picture(out / "p3.tif").value();
    CHECK(probe_picture(out / "p3.tif").value().profile == known_profile(KnownProfile::display_p3));
    // The red of sRGB in Display P3: 0.9175, 0.2003, 0.1387.
    CHECK(p3.at(0, 0, 0) / 65535.0 == Approx(0.9175).margin(0.002));
    CHECK(p3.at(0, 0, 1) / 65535.0 == Approx(0.2003).margin(0.004));
    CHECK(p3.at(0, 0, 2) / 65535.0 == Approx(0.1387).margin(0.004));
    CHECK(std::abs(p3.at(1, 0, 1) - 30000) < 40);
    pile.exporting.profile = ExportProfile::rec2020;
    REQUIRE(export_picture(pile, out / "wide.tif", {}, job).ok());
    CHECK(probe_picture(out / "wide.tif").value().profile.name() == "Rec. 2020");
    // From a file, and what is none.
    const std::vector<std::uint8_t> icc = Profile::linear_srgb().bytes();
    std::ofstream(out / "own.icc", std::ios::binary)
        .write(reinterpret_cast<const char*>(icc.data()), std::streamsize(icc.size()));
    pile.exporting.profile = ExportProfile::file;
    pile.exporting.from_file = read_profile(out / "own.icc").value();
    REQUIRE(export_picture(pile, out / "linear.tif", {}, job).ok());
    CHECK(read_picture(out / "linear.tif").value().at(1, 0, 0) ==
          Approx(65535.0 * LightCurve::of(Profile::srgb(), 3).light(30000) / LightCurve::full).margin(40));
    std::ofstream(out / "none.icc") << "red";
    for (const char* name : {"none.icc", "absent.icc", "wide.tif"}) {
        const Result<Profile> refused = read_profile(out / name);
        REQUIRE_FALSE(refused.ok());
        CHECK(refused.failure().english().find(name) == 0);
    }
}

TEST_CASE("a picture is made smaller in linear light, by the sinc that it is said to be") {
    const Raster16 picture = test::speckle({83, 64}, 3, 5);
    const Size to{31, 24};
    const Raster16 made = reduced(picture, to, 16);
    for (const int band : {1, 7, 64}) CHECK(test::difference(reduced(picture, to, band), made).empty());
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    int worst = 0;
    for (int y = 0; y < to.height; ++y)
        for (int x = 0; x < to.width; ++x)
            for (int c = 0; c < 3; ++c) {
                const double sx = 83.0 / 31, sy = 64.0 / 24, mx = (x + 0.5) * sx - 0.5, my = (y + 0.5) * sy - 0.5;
                double sum = 0, across = 0, down = 0;
                for (int u = int(std::ceil(mx - 3 * sx)); u <= int(std::floor(mx + 3 * sx)); ++u)
                    across += sinc((u - mx) / sx) * sinc((u - mx) / sx / 3);
                for (int v = int(std::ceil(my - 3 * sy)); v <= int(std::floor(my + 3 * sy)); ++v) {
                    const double wv = sinc((v - my) / sy) * sinc((v - my) / sy / 3);
                    down += wv;
                    for (int u = int(std::ceil(mx - 3 * sx)); u <= int(std::floor(mx + 3 * sx)); ++u)
                        sum += wv * sinc((u - mx) / sx) * sinc((u - mx) / sx / 3) *
                               curve.light(picture.at(std::clamp(u, 0, 82), std::clamp(v, 0, 63), c));
                }
                const int want = curve.sample(sum / across / down);
                worst = std::max(worst, std::abs(want - int(made.at(x, y, c))));
            }
    // Floats, deep in the shadows.
    CHECK(worst <= 12);
    // Black and white by turns become half of the light.
    Raster16 board({128, 128}, 1);
    for (int y = 0; y < 128; ++y)
        for (int x = 0; x < 128; ++x) board.at(x, y, 0) = (x + y) % 2 ? 65535 : 0;
    const Raster16 grey = reduced(board, {32, 32}, 32);
    CHECK(grey.at(16, 16, 0) ==
          Approx(int(LightCurve::of(Profile::srgb(), 1).sample(LightCurve::full / 2))).margin(60));
    CHECK(reduced_size({6000, 4000}, 1500) == Size{1500, 1000});
    CHECK(reduced_size({4000, 6000}, 1001) == Size{667, 1001});
    CHECK(reduced_size({60, 40}, 100) == Size{60, 40});
    CHECK(reduced_size({60, 1}, 3) == Size{3, 1});
}

TEST_CASE("an export is written smaller, sharpened where asked, within its memory") {
    const Folder folder, out;
    Pile pile = with_mode(test::speckle_pile(folder, 4, {600, 400}, 16), Mode::mean);
    pile.exporting.long_edge_px = 200;
    Job job;
    const Result<Exported> small = export_picture(pile, out / "small.tif", {}, job);
    REQUIRE(small.ok());
    CHECK(small.value().size == Size{200, 133});
    CHECK(probe_picture(out / "small.tif").value().size == Size{200, 133});
    const std::string bytes = test::bytes_of(out / "small.tif");
    const Result<Exported> tight = export_picture(pile, out / "tight.tif", {{}, std::size_t(70) << 20}, job);
    REQUIRE(tight.ok());
    CHECK(tight.value().plan.peak_bytes <= std::size_t(70) << 20);
    CHECK(test::bytes_of(out / "tight.tif") == bytes);
    pile.exporting.sharpen = 150;
    REQUIRE(export_picture(pile, out / "sharp.tif", {}, job).ok());
    const auto contrast = [](const Raster16& of) {
        double sum = 0;
        for (int y = 0; y < of.height(); ++y)
            for (int x = 1; x < of.width(); ++x) sum += std::abs(of.at(x, y, 1) - of.at(x - 1, y, 1));
        return sum;
    };
    CHECK(contrast(read_picture(out / "sharp.tif").value()) > 1.1 * contrast(read_picture(out / "small.tif").value()));
    // What is not made smaller is not sharpened, nor enlarged.
    pile.exporting.long_edge_px = 9000;
    REQUIRE(export_picture(pile, out / "large.tif", {}, job).ok());
    pile.exporting = {};
    REQUIRE(export_picture(pile, out / "plain.tif", {}, job).ok());
    CHECK(test::bytes_of(out / "large.tif") == test::bytes_of(out / "plain.tif"));
}

TEST_CASE("a picture that is given too few rows is no picture, and nobody waits for the rest") {
    const Folder out;
    const Raster16 picture = test::speckle({40, 30}, 3, 1);
    for (const char* name : {"short.png", "short.jpg", "short.webp", "short.jxl"}) {
        INFO(name);
        const Status written = write_picture(out / name, {picture.size(), 3, {}, {}}, {}, [&](RowWriter& writer) {
            const std::uint16_t* row = picture.row(0);
            return writer.write(std::span(&row, 1));
        });
        CHECK_FALSE(written.ok());
        CHECK_FALSE(fs::exists(out / name));
    }
}
