#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>

#include "base/files.h"
#include "io/capture.h"
#include "io/gather.h"
#include "io/reader.h"
#include "io/writer.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

void cut(const fs::path& from, const fs::path& to, double share) {
    const std::string bytes = test::bytes_of(from);
    std::ofstream(to, std::ios::binary) << bytes.substr(0, std::size_t(double(bytes.size()) * share));
}

}  // namespace

TEST_CASE("lossless formats give back what was written, grey and RGB, 8 and 16 bit") {
    const Folder folder;
    for (const char* ending : {".tif", ".png"})
        for (const int channels : {1, 3})
            for (const int bits : {8, 16}) {
                INFO(ending << ' ' << channels << " channels " << bits << " bit");
                const Raster16 picture =
                    bits == 8 ? test::speckle_8({37, 29}, channels, 4) : test::speckle({37, 29}, channels, 4);
                const fs::path file = folder / ("picture" + std::string(ending));
                test::write(file, picture, bits);
                const Result<PictureFacts> facts = probe_picture(file);
                REQUIRE(facts.ok());
                CHECK(facts.value().size == Size{37, 29});
                CHECK(facts.value().channels == channels);
                CHECK(facts.value().bits == bits);
                const Result<Raster16> back = read_picture(file);
                REQUIRE(back.ok());
                CHECK(test::difference(picture, back.value()).empty());
            }
}

TEST_CASE("16-bit samples round to the nearest 8-bit ones") {
    const Folder folder;
    Raster16 picture({3, 1}, 1);
    picture.at(0, 0, 0) = 257 * 7 + 128;
    picture.at(1, 0, 0) = 257 * 7 + 129;
    picture.at(2, 0, 0) = 65535;
    test::write(folder / "a.png", picture, 8);
    const Raster16 back = read_picture(folder / "a.png").value();
    CHECK(back.at(0, 0, 0) == 7 * 257);
    CHECK(back.at(1, 0, 0) == 8 * 257);
    CHECK(back.at(2, 0, 0) == 65535);
}

TEST_CASE("rows come in order in bands of any height") {
    const Folder folder;
    const Raster16 picture = test::speckle({41, 50}, 3, 8);
    test::write(folder / "a.tif", picture);
    for (const int band : {1, 3, 7, 50}) {
        auto reader = std::move(RowReader::open(folder / "a.tif", 0)).value();
        Raster16 back({41, 50}, 3);
        for (int y = 0; y < 50; y += band) {
            std::vector<std::uint8_t*> rows;
            for (int r = y; r < std::min(y + band, 50); ++r)
                rows.push_back(reinterpret_cast<std::uint8_t*>(back.row(r)));
            REQUIRE(reader->read(rows).ok());
        }
        CHECK(test::difference(picture, back).empty());
    }
}

TEST_CASE("a level is the mean of its pixels, also at odd edges") {
    const Folder folder;
    const Raster16 picture = test::speckle({37, 22}, 3, 15);
    test::write(folder / "a.tif", picture);
    for (const int level : {1, 2, 3}) {
        const Raster16 small = read_picture(folder / "a.tif", level).value();
        REQUIRE(small.size() == at_level(Size{37, 22}, level));
        const int unit = 1 << level;
        for (int y = 0; y < small.height(); ++y)
            for (int x = 0; x < small.width(); ++x) {
                double sum = 0;
                int count = 0;
                for (int v = y * unit; v < std::min(22, (y + 1) * unit); ++v)
                    for (int u = x * unit; u < std::min(37, (x + 1) * unit); ++u, ++count) sum += picture.at(u, v, 1);
                REQUIRE(std::abs(small.at(x, y, 1) - sum / count) <= 0.51);
            }
    }
}

TEST_CASE("a JPEG at a level has the size of the level and looks the same") {
    const Folder folder;
    const Raster16 picture = test::landscape({333, 211}, {});
    test::write(folder / "a.jpg", picture);
    for (const int level : {0, 1, 2, 3, 4}) {
        const Raster16 small = read_picture(folder / "a.jpg", level).value();
        REQUIRE(small.size() == at_level(Size{333, 211}, level));
        double a = 0, b = 0;
        for (const auto v : picture.data()) a += v;
        for (const auto v : small.data()) b += v;
        CHECK(b / double(small.data().size()) == Approx(a / double(picture.data().size())).epsilon(0.01));
    }
}

TEST_CASE("capture data come back, with sub-seconds") {
    const Folder folder;
    CaptureData data;
    data.captured = 1789251245.25;
    data.exposure_s = 25;
    data.iso = 1600;
    data.aperture = 2.8;
    data.focal_mm = 20;
    data.camera = "Skerrow practice camera";
    for (const char* name : {"a.jpg", "a.tif", "a.png"}) {
        INFO(name);
        test::write(folder / name, test::speckle({20, 20}, 3, 1), 8, {}, data);
        const CaptureData back = read_capture(folder / name);
        REQUIRE(back.captured.has_value());
        CHECK(*back.captured == Approx(1789251245.25).epsilon(1e-13));
        CHECK(back.exposure_s == 25.0);
        CHECK(back.iso == 1600.0);
        CHECK(*back.aperture == Approx(2.8));
        CHECK(back.camera == data.camera);
    }
    // Totals of exposures are no whole part of a second.
    for (const double exposure : {3.0 / 8000, 1.0 / 32000, 1.0 / 3, 0.0167, 20001.0, 12345.678}) {
        data.exposure_s = exposure;
        test::write(folder / "total.jpg", test::speckle({20, 20}, 3, 1), 8, {}, data);
        CHECK(read_capture(folder / "total.jpg").exposure_s.value_or(0) == Approx(exposure).epsilon(1e-6));
    }
    CHECK(time_text(1789251245.25) == "2026-09-12T22:14:05.250");
    CHECK_FALSE(read_capture(folder / "none.jpg").captured.has_value());
}

TEST_CASE("capture data may be sparse or beyond what its fields hold") {
    const Folder folder;
    CaptureData only_iso;
    only_iso.iso = 409600;
    CaptureData only_camera;
    only_camera.camera = "Skerrow practice camera";
    for (const char* name : {"a.jpg", "a.tif", "a.png"}) {
        INFO(name);
        test::write(folder / name, test::speckle({20, 20}, 3, 1), 8, {}, only_iso);
        CHECK(read_capture(folder / name).iso == 65535.0);
        CHECK_FALSE(read_capture(folder / name).exposure_s.has_value());
        test::write(folder / name, test::speckle({20, 20}, 3, 1), 8, {}, only_camera);
        CHECK(read_capture(folder / name).camera == only_camera.camera);
        CHECK_FALSE(read_capture(folder / name).iso.has_value());
        test::write(folder / name, test::speckle({20, 20}, 3, 1), 8);
        CHECK(read_capture(folder / name) == CaptureData{});
    }
}

TEST_CASE("short exposures stay fractions of one") {
    const Folder folder;
    CaptureData data;
    data.exposure_s = 1.0 / 320;
    test::write(folder / "a.jpg", test::speckle({20, 20}, 3, 1), 8, {}, data);
    CHECK(*read_capture(folder / "a.jpg").exposure_s == Approx(1.0 / 320).epsilon(1e-9));
}

TEST_CASE("what cannot be read is refused with a sentence that names it") {
    const Folder folder;
    test::write(folder / "good.jpg", test::landscape({400, 300}, {}), 8);
    test::write(folder / "good.png", test::speckle({60, 60}, 3, 2), 8);
    cut(folder / "good.jpg", folder / "cut.jpg", 0.5);
    cut(folder / "good.png", folder / "cut.png", 0.5);
    cut(folder / "good.jpg", folder / "head.jpg", 0.002);
    std::ofstream(folder / "text.jpg") << "this is a letter, not a picture";
    std::ofstream(folder / "empty.tif");
    for (const char* name : {"cut.jpg", "cut.png", "head.jpg", "text.jpg", "empty.tif", "missing.jpg"}) {
        INFO(name);
        const Result<Raster16> read = read_picture(folder / name);
        REQUIRE_FALSE(read.ok());
        CHECK(read.failure().fault == Fault::input);
        CHECK(read.failure().file == (folder / name).string());
        CHECK(read.failure().english().find(name) == 0);
        CHECK(read.failure().english().back() != ' ');
    }
    CHECK(read_picture(folder / "missing.jpg").failure().english().find("not there") != std::string::npos);
}

TEST_CASE("a JPEG with damage in its middle is refused, not painted over") {
    const Folder folder;
    test::write(folder / "good.jpg", test::landscape({400, 300}, {}), 8);
    const std::string good = test::bytes_of(folder / "good.jpg");
    int refused = 0;
    for (const double place : {0.3, 0.5, 0.7, 0.9}) {
        std::string bad = good;
        for (std::size_t i = std::size_t(place * double(good.size())); i < bad.size() && i % 40 != 0; ++i)
            bad[i] = char(0xff);
        std::ofstream(folder / "bad.jpg", std::ios::binary) << bad;
        const Result<Raster16> read = read_picture(folder / "bad.jpg");
        refused += !read.ok();
        if (!read.ok()) CHECK(read.failure().english().find("bad.jpg is broken") == 0);
    }
    CHECK(refused == 4);
}

TEST_CASE("a file that changes between two bands is noticed") {
    const Folder folder;
    for (const char* name : {"a.jpg", "a.png", "a.tif"}) {
        test::write(folder / name, test::speckle({700, 900}, 3, 1), 8);
        auto reader = std::move(RowReader::open(folder / name, 0)).value();
        std::vector<std::uint8_t> memory(reader->row_bytes());
        std::uint8_t* row = memory.data();
        REQUIRE(reader->read({&row, 1}).ok());
        test::write(folder / name, test::speckle({700, 900}, 3, 2), 8);
        Status last = Done{};
        while (last.ok() && reader->rows_read() < 900) last = reader->read({&row, 1});
        INFO(name);
        REQUIRE_FALSE(last.ok());
        CHECK(last.failure().english().find("changed while it was read") != std::string::npos);
    }
}

TEST_CASE("rows given one by one make the same file as a whole picture") {
    const Folder folder;
    CaptureData data;
    data.exposure_s = 2.5;
    for (const char* name : {"a.tif", "a.png", "a.jpg"})
        for (const int channels : {1, 3}) {
            const Raster16 picture = test::speckle({150, 230}, channels, 5);
            const WriteOptions options{16, 90, Sync::no};
            REQUIRE(write_picture(folder / name, picture, {}, options, data).ok());
            const std::string whole = test::bytes_of(folder / name);
            const Status done = write_picture(folder / name, {picture.size(), channels, {}, data}, options,
                                              [&](RowWriter& writer) -> Status {
                                                  for (int y = 0; y < picture.height(); ++y) {
                                                      const std::uint16_t* row = picture.row(y);
                                                      Status written = writer.write({&row, 1});
                                                      if (!written.ok()) return written;
                                                  }
                                                  return Done{};
                                              });
            INFO(name << " of " << channels);
            REQUIRE(done.ok());
            CHECK(test::bytes_of(folder / name) == whole);
        }
}

TEST_CASE("a picture whose rows end early leaves nothing, and the reason comes back") {
    const Folder folder;
    const Raster16 picture = test::speckle({50, 80}, 3, 5);
    for (const char* name : {"a.tif", "a.png", "a.jpg"}) {
        const Status done =
            write_picture(folder / name, {picture.size(), 3, {}, {}}, {}, [&](RowWriter& writer) -> Status {
                const std::uint16_t* row = picture.row(0);
                Status first = writer.write({&row, 1});
                if (!first.ok()) return first;
                return Failure{Fault::input, "b.tif", "b.tif is broken"};
            });
        REQUIRE_FALSE(done.ok());
        CHECK(done.failure().fault == Fault::input);
        CHECK(done.failure().english() == "b.tif is broken");
        CHECK(folder.names().empty());
    }
}

TEST_CASE("nothing is written to a place that cannot be written to") {
    const Raster16 picture = test::speckle({5, 5}, 3, 1);
    const Folder folder;
    CHECK_FALSE(write_picture(folder / "no/such/a.tif", picture, {}, {}, {}).ok());
    const Status odd = write_picture(folder / "a.bmp", picture, {}, {}, {});
    REQUIRE_FALSE(odd.ok());
    CHECK(odd.failure().fault == Fault::wrong_call);
    CHECK(folder.names().empty());
}

TEST_CASE("files, folders and globs are gathered once each, in natural order") {
    const Folder folder;
    for (const char* name : {"b10.jpg", "b9.jpg", "note.txt", ".hidden.jpg", "c.TIF"})
        std::ofstream(folder / name) << "x";
    const auto names = [](const Result<std::vector<fs::path>>& r) {
        std::vector<std::string> out;
        for (const auto& p : r.value()) out.push_back(p.filename().string());
        return out;
    };
    using Names = std::vector<std::string>;
    CHECK(names(gather_files({folder.path().string()})) == Names{"b9.jpg", "b10.jpg", "c.TIF"});
    CHECK(names(gather_files({(folder / "b*.jpg").string()})) == Names{"b9.jpg", "b10.jpg"});
    CHECK(names(gather_files({(folder / "c.TIF").string(), folder.path().string()})) ==
          Names{"c.TIF", "b9.jpg", "b10.jpg"});
    CHECK_FALSE(gather_files({(folder / "none*.jpg").string()}).ok());
    const Folder empty;
    const auto nothing = gather_files({empty.path().string()});
    REQUIRE_FALSE(nothing.ok());
    CHECK(nothing.failure().english().find("holds no") != std::string::npos);
}
