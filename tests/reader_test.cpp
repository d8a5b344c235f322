// Reading rows: what the decoders of each format give, at every level, and without holding files open.
#include "io/reader.h"

#include <tiffio.h>
#include <vips/vips.h>

#include <bit>
#include <catch2/catch.hpp>
#include <cstring>
#include <filesystem>
#include <fstream>

#include "engine/open.h"
#include "engine/render.h"
#include "even/tone.h"
#include "image/profile.h"
#include "io/file_bytes.h"
#include "kernels/colours_apart.h"
#include "kernels/extremes.h"
#include "support/fixtures.h"
#include "support/jpeg.h"

using namespace bp;
using test::Folder;
using test::Scans;
using test::Stored;
using test::write_jpeg;

namespace {

std::size_t open_files() {
    std::size_t out = 0;
    for ([[maybe_unused]] const auto& entry : fs::directory_iterator("/proc/self/fd")) ++out;
    return out;
}

// A TIFF in tiles, as the program itself never writes it.
void write_tiled(const fs::path& path, const Raster16& picture, int bits) {
    constexpr int side = 64;
    TIFF* file = TIFFOpen(path.c_str(), "w");
    REQUIRE(file != nullptr);
    TIFFSetField(file, TIFFTAG_IMAGEWIDTH, picture.width());
    TIFFSetField(file, TIFFTAG_IMAGELENGTH, picture.height());
    TIFFSetField(file, TIFFTAG_SAMPLESPERPIXEL, picture.channels());
    TIFFSetField(file, TIFFTAG_BITSPERSAMPLE, bits);
    TIFFSetField(file, TIFFTAG_PHOTOMETRIC, picture.channels() == 3 ? PHOTOMETRIC_RGB : PHOTOMETRIC_MINISBLACK);
    TIFFSetField(file, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(file, TIFFTAG_TILEWIDTH, side);
    TIFFSetField(file, TIFFTAG_TILELENGTH, side);
    TIFFSetField(file, TIFFTAG_COMPRESSION, COMPRESSION_LZW);
    for (int top = 0; top < picture.height(); top += side)
        for (int left = 0; left < picture.width(); left += side) {
            std::vector<std::uint16_t> wide(std::size_t(side) * side * std::size_t(picture.channels()));
            std::vector<std::uint8_t> narrow(wide.size());
            for (int y = 0; y < std::min(side, picture.height() - top); ++y)
                for (int i = 0; i < std::min(side, picture.width() - left) * picture.channels(); ++i) {
                    const auto at = std::size_t(y) * side * std::size_t(picture.channels()) + std::size_t(i);
                    wide[at] = picture.row(top + y)[left * picture.channels() + i];
                    narrow[at] = std::uint8_t(wide[at] / 257);
                }
            void* samples = bits == 8 ? static_cast<void*>(narrow.data()) : static_cast<void*>(wide.data());
            TIFFWriteTile(file, samples, std::uint32_t(left), std::uint32_t(top), 0, 0);
        }
    TIFFClose(file);
}

double mean_of(const Raster16& picture) {
    double sum = 0;
    for (const std::uint16_t v : picture.data()) sum += v;
    return sum / double(picture.data().size());
}

}  // namespace

TEST_CASE("a JPEG of many scans is the JPEG of one scan, at every level") {
    const Folder folder;
    const Raster16 picture = test::landscape({333, 217}, {});
    write_jpeg(folder / "one.jpg", picture, Scans::one, Stored::ycc);
    write_jpeg(folder / "many.jpg", picture, Scans::many, Stored::ycc);
    REQUIRE(test::bytes_of(folder / "one.jpg") != test::bytes_of(folder / "many.jpg"));
    for (int level = 0; level <= 6; ++level) {
        INFO(level);
        const Raster16 one = read_picture(folder / "one.jpg", level).value();
        CHECK(one.size() == at_level(Size{333, 217}, level));
        CHECK(test::difference(one, read_picture(folder / "many.jpg", level).value()) == "");
        CHECK(mean_of(one) == Approx(mean_of(picture)).epsilon(0.02));
    }
}

TEST_CASE("rows that are passed over change nothing of those that are read") {
    const Folder folder;
    const Raster16 picture = test::landscape({333, 217}, {});
    write_jpeg(folder / "one.jpg", picture, Scans::one, Stored::ycc);
    write_jpeg(folder / "many.jpg", picture, Scans::many, Stored::ycc);
    test::write(folder / "rows.tif", picture, 8);
    for (const char* name : {"one.jpg", "many.jpg", "rows.tif"})
        for (const int level : {0, 1, 3}) {
            const Raster16 all = read_picture(folder / name, level).value();
            for (const int above : {1, 2, 7, 8, 15, 16, 17, 40, 100, 200}) {
                if (above + 3 > all.height()) continue;
                INFO(name << " at level " << level << ", " << above << " rows passed over");
                const auto rows = RowReader::open(folder / name, level).value();
                REQUIRE(rows->skip(above - 1).ok());
                REQUIRE(rows->skip(1).ok());
                CHECK(rows->rows_read() == above);
                std::vector<std::uint16_t> memory(rows->row_bytes() / 2 + 1);
                auto* row = reinterpret_cast<std::uint8_t*>(memory.data());
                for (int y = above; y < std::min(above + 20, all.height()); ++y) {
                    REQUIRE(rows->read({&row, 1}).ok());
                    bool same = true;
                    for (std::size_t i = 0; i < std::size_t(all.row_samples()); ++i)
                        same = same && all.row(y)[i] == (rows->bits() == 8 ? 257 * row[i] : memory[i]);
                    REQUIRE(same);
                }
            }
        }
}

namespace {

struct TiffKind {
    int samples, bits, meaning;
    int orientation = ORIENTATION_TOPLEFT;
};

std::uint16_t half_of(double light) {
    // One that needs no rounding: sign, exponent and the first bits of the rest.
    const auto bits = std::bit_cast<std::uint32_t>(float(light));
    return std::uint16_t(light == 0 ? 0 : (bits >> 31 << 15) | ((bits >> 23 & 255) - 112) << 10 | (bits >> 13 & 1023));
}

// All samples are `light`; of inks, the three coloured ones.
void write_tiff(const fs::path& file, const TiffKind& kind, double light) {
    TIFF* tiff = TIFFOpen(file.c_str(), "w");
    REQUIRE(tiff);
    constexpr int width = 24, height = 10;
    const bool inks = kind.meaning == PHOTOMETRIC_SEPARATED;
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, height);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, kind.samples);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, kind.bits);
    TIFFSetField(tiff, TIFFTAG_SAMPLEFORMAT, inks ? SAMPLEFORMAT_UINT : SAMPLEFORMAT_IEEEFP);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, kind.meaning);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, 4);
    TIFFSetField(tiff, TIFFTAG_ORIENTATION, kind.orientation);
    std::vector<std::uint8_t> row(std::size_t(width * kind.samples * kind.bits / 8));
    for (int i = 0; i < width * kind.samples; ++i) {
        const auto wide = float(light);
        const std::uint16_t half = half_of(light);
        if (kind.bits == 32)
            std::memcpy(&row[std::size_t(4 * i)], &wide, sizeof wide);
        else if (!inks)
            std::memcpy(&row[std::size_t(2 * i)], &half, sizeof half);
        else
            row[std::size_t(i)] = i % 4 == 3 ? 0 : std::uint8_t(255 * light);
    }
    for (int y = 0; y < height; ++y) REQUIRE(TIFFWriteScanline(tiff, row.data(), std::uint32_t(y), 0) == 1);
    TIFFClose(tiff);
}

}  // namespace

TEST_CASE("TIFF of floats is read as light, of 32 and of 16 bits, grey and in colour; CMYK by its profile") {
    const Folder folder;
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    for (const TiffKind& kind :
         {TiffKind{3, 32, PHOTOMETRIC_RGB}, TiffKind{4, 32, PHOTOMETRIC_RGB}, TiffKind{1, 32, PHOTOMETRIC_MINISBLACK},
          TiffKind{3, 16, PHOTOMETRIC_RGB}, TiffKind{4, 16, PHOTOMETRIC_RGB}, TiffKind{1, 16, PHOTOMETRIC_MINISBLACK}})
        for (const double light : {0.0, 1 / 64.0, 0.25, 0.5, 1.0, 4.0}) {
            write_tiff(folder / "floats.tif", kind, light);
            const Result<Raster16> read = read_picture(folder / "floats.tif");
            INFO(kind.samples << " of " << kind.bits << " bits, light " << light);
            REQUIRE(read.ok());
            CHECK(read.value().channels() == (kind.samples == 1 ? 1 : 3));
            CHECK(std::abs(int(read.value().at(20, 9, 0)) -
                           int(curve.sample(std::min(light, 1.0) * LightCurve::full))) <= 1);
        }
    // No ink is white; all colours of it are dark; more of them is darker.
    int before = 65536;
    for (const double ink : {0.0, 0.3, 0.6, 1.0}) {
        write_tiff(folder / "inks.tif", {4, 8, PHOTOMETRIC_SEPARATED}, ink);
        const Result<Raster16> read = read_picture(folder / "inks.tif");
        REQUIRE(read.ok());
        const int here = read.value().at(20, 9, 1);
        if (ink == 0) CHECK(here > 65000);
        CHECK(here < before);
        before = here;
    }
    CHECK(before < 20000);
    // One that lies on its side is turned upright.
    for (const int bits : {16, 32}) {
        write_tiff(folder / "floats.tif", {3, bits, PHOTOMETRIC_RGB, ORIENTATION_RIGHTTOP}, 0.5);
        CHECK(probe_picture(folder / "floats.tif").value().size == Size{10, 24});
        CHECK(read_picture(folder / "floats.tif").value().size() == Size{10, 24});
    }
    // Floats of another kind are refused in words.
    write_tiff(folder / "floats.tif", {3, 16, PHOTOMETRIC_MINISBLACK}, 0.5);
    CHECK(read_picture(folder / "floats.tif").failure().english().find("floats of 16 bits") != std::string::npos);
}

TEST_CASE("halves in tiles, and with their samples apart, are the same picture as in rows") {
    const Folder folder;
    // Parts of 64, which halves hold exactly, with another at every place.
    const Size size{50, 37};
    const auto light = [](int x, int y, int c) { return ((x * 7 + y * 3 + c * 11) % 64) / 64.0; };
    const auto write = [&](const fs::path& file, int samples, int tile, int strip, bool apart) {
        TIFF* tiff = TIFFOpen(file.c_str(), "w");
        REQUIRE(tiff);
        TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, size.width);
        TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, size.height);
        TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, samples);
        TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 16);
        TIFFSetField(tiff, TIFFTAG_SAMPLEFORMAT, SAMPLEFORMAT_IEEEFP);
        TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, samples == 1 ? PHOTOMETRIC_MINISBLACK : PHOTOMETRIC_RGB);
        TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, apart ? PLANARCONFIG_SEPARATE : PLANARCONFIG_CONTIG);
        TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_LZW);
        if (tile > 0) {
            TIFFSetField(tiff, TIFFTAG_TILEWIDTH, tile);
            TIFFSetField(tiff, TIFFTAG_TILELENGTH, tile);
        } else {
            TIFFSetField(tiff, TIFFTAG_ROWSPERSTRIP, strip);
        }
        const int wide = tile > 0 ? tile : size.width, high = tile > 0 ? tile : strip;
        const int planes = apart ? samples : 1, together = apart ? 1 : samples;
        for (int plane = 0; plane < planes; ++plane)
            for (int top = 0; top < size.height; top += high)
                for (int left = 0; left < size.width; left += wide) {
                    std::vector<std::uint16_t> block;
                    const int rows = tile > 0 ? high : std::min(high, size.height - top);
                    for (int y = top; y < top + rows; ++y)
                        for (int x = left; x < left + wide; ++x)
                            for (int s = 0; s < together; ++s) block.push_back(half_of(light(x, y, plane + s)));
                    const auto bytes = tmsize_t(2 * block.size());
                    const auto x = std::uint32_t(left), y = std::uint32_t(top);
                    const auto p = std::uint16_t(plane);
                    REQUIRE((tile > 0
                                 ? TIFFWriteEncodedTile(tiff, TIFFComputeTile(tiff, x, y, 0, p), block.data(), bytes)
                                 : TIFFWriteEncodedStrip(tiff, TIFFComputeStrip(tiff, y, p), block.data(), bytes)) ==
                            bytes);
                }
        TIFFClose(tiff);
    };
    for (const int samples : {1, 3, 4}) {
        write(folder / "rows.tif", samples, 0, 5, false);
        const Raster16 rows = read_picture(folder / "rows.tif").value();
        const LightCurve curve = LightCurve::of(Profile::srgb(), rows.channels());
        for (int y = 0; y < size.height; y += 4)
            for (int x = 0; x < size.width; x += 3)
                CHECK(std::abs(int(rows.at(x, y, 0)) - int(curve.sample(light(x, y, 0) * LightCurve::full))) <= 1);
        for (const auto& [tile, strip, apart] :
             {std::tuple(16, 0, false), std::tuple(32, 0, true), std::tuple(0, 5, true), std::tuple(64, 0, false)}) {
            INFO(samples << " samples, tiles of " << tile << ", apart: " << apart);
            write(folder / "blocks.tif", samples, tile, strip, apart);
            const Result<Raster16> blocks = read_picture(folder / "blocks.tif");
            REQUIRE(blocks.ok());
            CHECK(blocks.value().data() == rows.data());
        }
    }
    // One that ends too early says so.
    fs::resize_file(folder / "blocks.tif", fs::file_size(folder / "blocks.tif") / 3);
    CHECK_FALSE(read_picture(folder / "blocks.tif").ok());
}

TEST_CASE("light above white of floats comes back with a darker look or level, and only as much is kept as is needed") {
    const Folder folder;
    const LightCurve curve = LightCurve::of(Profile::srgb(), 3);
    const auto sample = [&](double light) { return int(curve.sample(std::min(light, 1.0) * LightCurve::full)); };
    const auto merged = [](const Pile& pile) {
        FrameStore store(working_space(pile));
        Job job;
        const Result<Raster16> out = render(pile, store, canvas_of(pile), 0, job);
        REQUIRE(out.ok());
        return int(out.value().at(20, 9, 1));
    };
    for (const int bits : {32, 16})
        for (const int samples : {3, 1}) {
            INFO(samples << " of " << bits << " bits");
            const int meaning = samples == 3 ? PHOTOMETRIC_RGB : PHOTOMETRIC_MINISBLACK;
            const std::array files{folder / "a.tif", folder / "b.tif"};
            write_tiff(files[0], {samples, bits, meaning}, 0.5);
            write_tiff(files[1], {samples, bits, meaning}, 3.0);
            Job job;
            Result<Pile> opened = open_frames({{files[0]}, {files[1]}}, Outcome::trails, Order::name, job);
            REQUIRE(opened.ok());
            Pile pile = opened.value();
            pile.methods[Zone::sky].mode = Mode::maximum;
            CHECK(merged(pile) == 65535);
            pile.look.exposure_ev = -1;
            CHECK(merged(pile) == 65535);
            pile.look.exposure_ev = -2;
            CHECK(std::abs(merged(pile) - sample(0.75)) <= 1);
            // A tone that makes white later does the same, and what is below white stays as exact.
            pile.look = {};
            pile.look.peak = -100;
            CHECK(std::abs(merged(pile) - sample(1.0)) <= 1);
            pile.look = {};
            pile.levelling = Levelling::colour;
            pile.frames[1].gains = LightGains{{0.25, 0.25, 0.25}};
            CHECK(std::abs(merged(pile) - sample(0.75)) <= 1);
            pile.frames[1].aside = true;
            CHECK(std::abs(merged(pile) - sample(0.5)) <= 1);
        }
    // No more is kept than the look asks for, because it costs dark tones their steps.
    CHECK(stops_beyond_white({}, {1, 1, 1}, {0.2, 0.7, 0.1}, 3) == 0);
    CHECK(stops_beyond_white({.exposure_ev = 2}, {1, 1, 1}, {0.2, 0.7, 0.1}, 3) == 0);
    CHECK(stops_beyond_white({.exposure_ev = -1}, {1, 1, 1}, {0.2, 0.7, 0.1}, 3) == 1);
    CHECK(stops_beyond_white({.bright = -100}, {1, 1, 1}, {0.2, 0.7, 0.1}, 3) == 1);
    CHECK(stops_beyond_white({}, {1, 0.25, 1}, {0.2, 0.7, 0.1}, 3) == 2);
}

TEST_CASE("JPEG colours: grey stays grey, RGB needs no turning, and four inks are converted") {
    const Folder folder;
    const Raster16 grey = test::landscape({120, 80}, {});
    Raster16 single({120, 80}, 1);
    for (int y = 0; y < 80; ++y)
        for (int x = 0; x < 120; ++x) single.at(x, y, 0) = grey.at(x, y, 1);
    write_jpeg(folder / "grey.jpg", single, Scans::one, Stored::grey);
    CHECK(probe_picture(folder / "grey.jpg").value().channels == 1);
    CHECK(mean_of(read_picture(folder / "grey.jpg").value()) == Approx(mean_of(single)).epsilon(0.01));
    write_jpeg(folder / "rgb.jpg", grey, Scans::one, Stored::rgb);
    const Raster16 back = read_picture(folder / "rgb.jpg").value();
    CHECK(std::abs(int(back.at(60, 40, 0)) - int(grey.at(60, 40, 0))) < 12 * 257);
    write_jpeg(folder / "inks.jpg", grey, Scans::one, Stored::four_inks);
    const Result<Raster16> inks = read_picture(folder / "inks.jpg");
    REQUIRE(inks.ok());
    CHECK(inks.value().size() == grey.size());
    CHECK(probe_picture(folder / "inks.jpg").value().channels == 3);
}

TEST_CASE("a JPEG gives its brightness alone, at every level and upright; other files have none apart") {
    const Folder folder;
    const Raster16 picture = test::landscape({120, 88}, {});
    write_jpeg(folder / "a.jpg", picture, Scans::one, Stored::ycc, 6);
    for (int level = 0; level <= 4; ++level) {
        INFO("level " << level);
        const Raster16 colours = read_picture(folder / "a.jpg", level).value();
        const auto reader = RowReader::open_brightness(folder / "a.jpg", level).value();
        REQUIRE(reader != nullptr);
        REQUIRE(reader->size() == colours.size());
        REQUIRE(reader->channels() == 1);
        std::vector<std::uint16_t> row(std::size_t(colours.width()));
        auto* bytes = reinterpret_cast<std::uint8_t*>(row.data());
        int worst = 0;
        for (int y = 0; y < colours.height(); ++y) {
            REQUIRE(reader->read({&bytes, 1}).ok());
            for (int x = 0; x < colours.width(); ++x) {
                const double sum =
                    0.299 * colours.at(x, y, 0) + 0.587 * colours.at(x, y, 1) + 0.114 * colours.at(x, y, 2);
                const int seen = reader->bits() == 8 ? bytes[x] * 257 : row[std::size_t(x)];
                worst = std::max(worst, int(std::abs(sum - seen)));
            }
        }
        // Colours that were cut off at black or white, and rounding.
        CHECK(worst < 4 * 257);
    }
    test::write(folder / "b.tif", picture);
    CHECK(RowReader::open_brightness(folder / "b.tif", 0).value() == nullptr);
    CHECK_FALSE(RowReader::open_brightness(folder / "none.jpg", 0).ok());
}

TEST_CASE("what a JPEG keeps apart makes its brightness and its colours, to the bit") {
    const Folder folder;
    // Bright and colourful beyond what RGB holds, so that some are cut off.
    Raster16 picture = test::speckle({120, 88}, 3, 5);
    write_jpeg(folder / "a.jpg", picture, Scans::one, Stored::ycc, 6);
    write_jpeg(folder / "b.jpg", picture, Scans::many, Stored::ycc);
    for (const char* name : {"a.jpg", "b.jpg"})
        for (int level = 0; level <= scaled_levels; ++level) {
            INFO(name << " at level " << level);
            const auto apart = RowReader::open_apart(folder / name, level).value();
            const auto colours = RowReader::open(folder / name, level).value();
            const auto brightness = RowReader::open_brightness(folder / name, level).value();
            REQUIRE(apart != nullptr);
            REQUIRE(apart->size() == colours->size());
            REQUIRE(apart->row_bytes() == colours->row_bytes());
            const auto width = std::size_t(apart->size().width);
            std::vector<std::uint8_t> stored(3 * width), rgb(3 * width), wanted(3 * width), light(width);
            std::uint8_t *to_stored = stored.data(), *to_wanted = wanted.data(), *to_light = light.data();
            std::size_t wrong = 0;
            for (int y = 0; y < apart->size().height; ++y) {
                REQUIRE(apart->read({&to_stored, 1}).ok());
                REQUIRE(colours->read({&to_wanted, 1}).ok());
                REQUIRE(brightness->read({&to_light, 1}).ok());
                kernels::colours_apart(stored.data(), width, rgb.data());
                wrong += rgb != wanted;
                for (std::size_t x = 0; x < width; ++x) wrong += stored[3 * x] != light[x];
            }
            CHECK(wrong == 0);
        }
    CHECK(RowReader::open_apart(folder / "a.jpg", scaled_levels + 1).value() == nullptr);
    write_jpeg(folder / "rgb.jpg", picture, Scans::one, Stored::rgb);
    CHECK(RowReader::open_apart(folder / "rgb.jpg", 0).value() == nullptr);
    test::write(folder / "c.tif", picture);
    CHECK(RowReader::open_apart(folder / "c.tif", 0).value() == nullptr);
    CHECK_FALSE(RowReader::open_apart(folder / "none.jpg", 0).ok());
}

TEST_CASE("readers say what they give, and give it in the file's own bits") {
    const Folder folder;
    const Raster16 eight = test::speckle_8({45, 31}, 3, 1);
    const Raster16 sixteen = test::speckle({45, 31}, 3, 2);
    test::write(folder / "a.png", eight, 8);
    test::write(folder / "b.tif", sixteen, 16);
    const auto first_row = [&](const char* name, int level) {
        auto reader = std::move(RowReader::open(folder / name, level)).value();
        std::vector<std::uint16_t> memory(reader->row_bytes() / 2 + 1);
        auto* row = reinterpret_cast<std::uint8_t*>(memory.data());
        REQUIRE(reader->read({&row, 1}).ok());
        CHECK(reader->rows_read() == 1);
        CHECK(reader->memory_bytes() > 0);
        std::vector<std::uint16_t> out(std::size_t(reader->size().width) * 3);
        if (reader->bits() == 8)
            kernels::widen(row, out.size(), out.data());
        else
            out.assign(memory.begin(), memory.begin() + std::ptrdiff_t(out.size()));
        return std::pair(reader->bits(), out);
    };
    CHECK(first_row("a.png", 0) == std::pair(8, std::vector<std::uint16_t>(eight.row(0), eight.row(0) + 135)));
    CHECK(first_row("b.tif", 0) == std::pair(16, std::vector<std::uint16_t>(sixteen.row(0), sixteen.row(0) + 135)));
    const Raster16 half = read_picture(folder / "a.png", 1).value();
    CHECK(first_row("a.png", 1) == std::pair(16, std::vector<std::uint16_t>(half.row(0), half.row(0) + 69)));
}

TEST_CASE("open readers hold no file open") {
    const Folder folder;
    std::vector<std::unique_ptr<RowReader>> readers;
    const std::size_t before = open_files();
    for (int i = 0; i < 12; ++i) {
        const fs::path file = folder / ("f" + std::to_string(i) + (i % 3 == 0 ? ".jpg" : i % 3 == 1 ? ".png" : ".tif"));
        test::write(file, test::speckle({300, 400}, 3, unsigned(i)), 8);
        readers.push_back(std::move(RowReader::open(file, 0)).value());
        std::vector<std::uint8_t> memory(readers.back()->row_bytes());
        std::uint8_t* row = memory.data();
        REQUIRE(readers.back()->read({&row, 1}).ok());
    }
    CHECK(open_files() <= before + 2);
}

TEST_CASE("bytes of a file are read from anywhere, to its end and no further") {
    const Folder folder;
    std::string text;
    for (int i = 0; i < 5000; ++i) text += char('a' + i % 26);
    std::ofstream(folder / "a.bin") << text;
    const io::FileBytes bytes = io::FileBytes::open(folder / "a.bin").value();
    CHECK(bytes.size() == 5000);
    std::vector<std::uint8_t> out(100);
    for (const std::uint64_t offset : {0, 1, 2500, 4900}) {
        REQUIRE(bytes.read(offset, out).value() == 100);
        CHECK(std::string(out.begin(), out.end()) == text.substr(offset, 100));
    }
    CHECK(bytes.read(4950, out).value() == 50);
    CHECK(bytes.read(5000, out).value() == 0);
    CHECK(bytes.read(900000, out).value() == 0);
    fs::remove(folder / "a.bin");
    const Result<std::size_t> gone = bytes.read(0, out);
    REQUIRE_FALSE(gone.ok());
    CHECK(gone.failure().english() == "a.bin is not there. Was it moved or renamed?");
    CHECK_FALSE(io::FileBytes::open(folder / "a.bin").ok());
}

TEST_CASE("the orientation tag turns a picture upright, in all eight ways and at every level") {
    const Folder folder;
    const Raster16 stored = test::landscape({88, 48}, {});
    // The upright pixel that a stored one becomes, by the words of the standard: which side of the picture the stored
    // row 0 and column 0 are.
    const auto upright_place = [](int tag, int x, int y, Size size) -> std::pair<int, int> {
        const int right = size.width - 1 - x, below = size.height - 1 - y;
        switch (tag) {
            case 2:
                return {right, y};  // row 0 on top, column 0 on the right
            case 3:
                return {right, below};  // bottom, right
            case 4:
                return {x, below};  // bottom, left
            case 5:
                return {y, x};  // left, top
            case 6:
                return {below, x};  // right, top
            case 7:
                return {below, right};  // right, bottom
            case 8:
                return {y, right};  // left, bottom
            default:
                return {x, y};
        }
    };
    for (const Scans scans : {Scans::one, Scans::many})
        for (int tag = 1; tag <= 8; ++tag)
            for (int level = 0; level <= 3; ++level) {
                INFO(tag << " at level " << level);
                write_jpeg(folder / "plain.jpg", stored, scans);
                write_jpeg(folder / "tagged.jpg", stored, scans, Stored::ycc, tag);
                const Size full = tag >= 5 ? Size{48, 88} : Size{88, 48};
                REQUIRE(probe_picture(folder / "tagged.jpg").value().size == full);
                const Raster16 plain = read_picture(folder / "plain.jpg", level).value();
                const Raster16 turned = read_picture(folder / "tagged.jpg", level).value();
                REQUIRE(turned.size() == at_level(full, level));
                int wrong = 0;
                for (int y = 0; y < plain.height(); ++y)
                    for (int x = 0; x < plain.width(); ++x) {
                        const auto [u, v] = upright_place(tag, x, y, plain.size());
                        for (int c = 0; c < 3; ++c) wrong += turned.at(u, v, c) != plain.at(x, y, c);
                    }
                CHECK(wrong == 0);
            }
}

TEST_CASE("turned readers say that they take in the whole, and others that they do not") {
    const Folder folder;
    const Raster16 picture = test::landscape({320, 240}, {});
    write_jpeg(folder / "one.jpg", picture, Scans::one);
    write_jpeg(folder / "many.jpg", picture, Scans::many);
    write_jpeg(folder / "turned.jpg", picture, Scans::one, Stored::ycc, 6);
    const auto one = std::move(RowReader::open(folder / "one.jpg", 0)).value();
    const auto many = std::move(RowReader::open(folder / "many.jpg", 0)).value();
    const auto turned = std::move(RowReader::open(folder / "turned.jpg", 0)).value();
    CHECK_FALSE(one->whole());
    CHECK(many->whole());
    CHECK(turned->whole());
    CHECK(many->memory_bytes() > one->memory_bytes() + std::size_t(320 * 240 * 2));
    CHECK(turned->memory_bytes() >= one->memory_bytes() + std::size_t(320 * 240 * 3));
}

TEST_CASE("a TIFF in tiles is read row by row as one in strips, whole and in bands") {
    const Folder folder;
    for (const int channels : {1, 3})
        for (const int bits : {8, 16}) {
            const Raster16 picture =
                bits == 8 ? test::speckle_8({203, 331}, channels, 4) : test::speckle({203, 331}, channels, 4);
            write_tiled(folder / "tiles.tif", picture, bits);
            const auto reader = std::move(RowReader::open(folder / "tiles.tif", 0)).value();
            CHECK(reader->bits() == bits);
            CHECK_FALSE(reader->whole());
            CHECK(test::difference(read_picture(folder / "tiles.tif").value(), picture) == "");
            test::write(folder / "strips.tif", picture, bits);
            for (const int level : {1, 2, 4})
                CHECK(test::difference(read_picture(folder / "tiles.tif", level).value(),
                                       read_picture(folder / "strips.tif", level).value()) == "");
        }
}

TEST_CASE("a PNG in passes is known to be taken in whole, and is the same picture") {
    const Folder folder;
    const Raster16 picture = test::speckle({90, 70}, 3, 4);
    test::write(folder / "rows.png", picture, 16);
    VipsImage* image = vips_image_new_from_file((folder / "rows.png").c_str(), nullptr);
    REQUIRE(image != nullptr);
    REQUIRE(vips_pngsave(image, (folder / "passes.png").c_str(), "interlace", TRUE, nullptr) == 0);
    g_object_unref(image);
    const auto rows = std::move(RowReader::open(folder / "rows.png", 0)).value();
    const auto passes = std::move(RowReader::open(folder / "passes.png", 0)).value();
    CHECK_FALSE(rows->whole());
    CHECK(passes->whole());
    CHECK(passes->memory_bytes() >= rows->memory_bytes() + std::size_t(90) * 70 * 3 * 2);
    CHECK(test::difference(read_picture(folder / "passes.png").value(), picture) == "");
}
