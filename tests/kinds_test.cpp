// Every kind of picture that is promised can be read.
#include "io/kinds.h"

#include <ImfRgbaFile.h>
#include <vips/vips.h>

#include <catch2/catch.hpp>

#include "io/gather.h"
#include "io/reader.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

// Saves by libvips a picture whose left half is dark and whose right half is bright.
void save_halves(const fs::path& file, bool grey_16, const char* options) {
    Raster16 picture(Size{96, 64}, 3);
    for (int y = 0; y < 64; ++y)
        for (int x = 0; x < 96; ++x)
            for (int c = 0; c < 3; ++c) picture.at(x, y, c) = std::uint16_t(x < 48 ? 257 * 40 : 257 * 200);
    const Folder folder;
    test::write(folder / "a.tif", picture, 8);
    VipsImage* image = vips_image_new_from_file((folder / "a.tif").c_str(), nullptr);
    REQUIRE(image);
    if (grey_16) {
        VipsImage* grey = nullptr;
        REQUIRE(vips_colourspace(image, &grey, VIPS_INTERPRETATION_GREY16, nullptr) == 0);
        g_object_unref(image);
        image = grey;
    }
    INFO(file);
    REQUIRE(vips_image_write_to_file(image, (file.string() + options).c_str(), nullptr) == 0);
    g_object_unref(image);
}

void expect_halves(const fs::path& file, double tolerance) {
    INFO(file);
    const auto facts = probe_picture(file);
    REQUIRE(facts.ok());
    CHECK(facts.value().size == Size{96, 64});
    const Raster16 full = read_picture(file).value();
    CHECK(full.at(10, 30, 0) / 257.0 == Approx(40).margin(tolerance));
    CHECK(full.at(80, 30, 0) / 257.0 == Approx(200).margin(tolerance));
    const Raster16 small = read_picture(file, 3).value();
    CHECK(small.size() == Size{12, 8});
    CHECK(small.at(1, 4, 0) / 257.0 == Approx(40).margin(tolerance));
}

}  // namespace

TEST_CASE("WebP, HEIF, JPEG XL and FITS are read") {
    const Folder folder;
    save_halves(folder / "a.webp", false, "[lossless]");
    expect_halves(folder / "a.webp", 0.6);
    save_halves(folder / "a.avif", false, "[Q=95]");
    expect_halves(folder / "a.avif", 4);
    save_halves(folder / "a.jxl", false, "[lossless]");
    expect_halves(folder / "a.jxl", 0.6);
    save_halves(folder / "a.fits", true, "");
    expect_halves(folder / "a.fits", 1.5);
}

TEST_CASE("OpenEXR is read as sRGB; light above white is white") {
    const Folder folder;
    const fs::path file = folder / "a.exr";
    {
        std::vector<Imf::Rgba> pixels(96 * 64, Imf::Rgba(0.5F, 0.5F, 0.5F));
        for (std::size_t i = 0; i < pixels.size(); i += 2) pixels[i] = Imf::Rgba(4, 4, 4);
        Imf::RgbaOutputFile out(file.c_str(), 96, 64, Imf::WRITE_RGB);
        out.setFrameBuffer(pixels.data(), 1, 96);
        out.writePixels(64);
    }
    const PictureFacts facts = probe_picture(file).value();
    CHECK(facts.size == Size{96, 64});
    CHECK(facts.bits == 16);
    CHECK(facts.profile.is_srgb());
    const Raster16 picture = read_picture(file).value();
    CHECK(picture.at(40, 10, 1) == 65535);
    CHECK(picture.at(41, 10, 1) / 257.0 == Approx(187.5).margin(0.6));  // light 0.5 by IEC 61966-2-1
}

TEST_CASE("kinds go by their endings, and a folder gives what can be read") {
    CHECK(kind_of("a/B.JPG")->name == "JPEG");
    CHECK(kind_of("x.NEF")->way == ReadBy::raw);
    CHECK(kind_of("x.mov")->way == ReadBy::clip);
    CHECK_FALSE(kind_of("x.txt"));
    CHECK_FALSE(kind_of("x"));
    CHECK_FALSE(kind_of("x.jp"));
    CHECK_FALSE(is_frame_file("x.mp4"));
    const Folder folder;
    fs::create_directories(folder / "inner/deeper");
    fs::create_directories(folder / "another");
    for (const char* name : {"b.png", "inner/a.png", "inner/deeper/c.png", "another/d.png"})
        test::write(folder / name, test::speckle_8({8, 8}, 3, 1), 8);
    const auto names = [&](Inner inner) {
        std::vector<std::string> out;
        const auto found = gather_files({folder.path().string()}, inner);
        REQUIRE(found.ok());
        for (const fs::path& file : found.value()) out.push_back(fs::relative(file, folder.path()).string());
        return out;
    };
    using Names = std::vector<std::string>;
    CHECK(names(Inner::no) == Names{"b.png"});
    CHECK(names(Inner::yes) == Names{"b.png", "another/d.png", "inner/a.png", "inner/deeper/c.png"});
}
