// The scratch disk, frames that are read from it, and merges that cannot do without.
#include "base/scratch.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "engine/export.h"
#include "engine/open.h"
#include "engine/plan.h"
#include "engine/tiled_frame.h"
#include "pile/edits.h"
#include "support/fixtures.h"
#include "support/jpeg.h"

using namespace bp;
using test::Folder;

namespace {

constexpr std::size_t megabyte = std::size_t(1) << 20;

FrameFile file_of(const fs::path& path) {
    FrameFile file;
    file.path = path;
    file.facts = probe_picture(path).value();
    return file;
}

SharedTiles tiles_of(const fs::path& path, int channels, Scratch& scratch) {
    Job job;
    auto open = std::move(open_frame(file_of(path), 0, {Profile::srgb(), channels, {}})).value();
    return TiledFrame::make(*open, scratch, job).value();
}

Matrix turned(double degrees, double dx, double dy) {
    return Matrix::rigid(degrees * 3.14159265358979 / 180, {0, 0}, dx, dy);
}

}  // namespace

TEST_CASE("pieces of scratch hold what is written, have no name, and give their room back") {
    const Folder folder;
    const auto scratch = Scratch::in(folder / "cache", 10 * megabyte);
    CHECK_FALSE(fs::exists(folder / "cache"));
    {
        auto piece = scratch->take(3 * megabyte).value();
        CHECK(fs::is_empty(folder / "cache"));
        CHECK(piece->bytes().empty());
        std::vector<std::uint8_t> bytes(2 * megabyte);
        for (std::size_t i = 0; i < bytes.size(); ++i) bytes[i] = std::uint8_t(i * 7 / 3);
        REQUIRE(piece->write(megabyte, bytes).ok());
        REQUIRE(piece->seal().ok());
        REQUIRE(piece->bytes().size() == 3 * megabyte);
        CHECK(piece->bytes()[megabyte - 1] == 0);
        piece->let_go(100, 2 * megabyte);
        std::size_t wrong = 0;
        for (std::size_t i = 0; i < bytes.size(); ++i) wrong += piece->bytes()[megabyte + i] != bytes[i];
        CHECK(wrong == 0);
        CHECK(scratch->used() == 3 * megabyte);
        const auto refused = scratch->take(8 * megabyte);
        REQUIRE_FALSE(refused.ok());
        CHECK(refused.failure().fault == Fault::output);
        CHECK(refused.failure().english().find("8 MB are needed") != std::string::npos);
        CHECK(refused.failure().english().find("only 7 MB are left") != std::string::npos);
        CHECK(scratch->room() == 7 * megabyte);
    }
    CHECK(scratch->used() == 0);
    CHECK(scratch->take(8 * megabyte).ok());
}

TEST_CASE("scratch that cannot be had is a sentence, and takes no room") {
    const Folder folder;
    test::write(folder / "file.png", test::speckle_8({4, 4}, 3, 1), 8);
    const auto scratch = Scratch::in(folder / "file.png" / "cache", megabyte);
    const auto refused = scratch->take(1000);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().english().find("cannot be had") != std::string::npos);
    CHECK(scratch->room() == megabyte);
}

TEST_CASE("a tiled frame is the frame, box by box") {
    const Folder folder;
    const auto scratch = Scratch::in(folder / "cache", 100 * megabyte);
    for (const int channels : {1, 3})
        for (const int bits : {8, 16}) {
            const Raster16 picture =
                bits == 8 ? test::speckle_8({203, 131}, channels, 3) : test::speckle({203, 131}, channels, 3);
            test::write(folder / "a.tif", picture, bits);
            const SharedTiles tiles = tiles_of(folder / "a.tif", channels, *scratch);
            REQUIRE(tiles->bits() == bits);
            for (const Rect& box :
                 {Rect{0, 0, 203, 131}, Rect{63, 64, 2, 1}, Rect{130, 5, 73, 126}, Rect{1, 1, 1, 1}}) {
                std::vector<std::uint16_t> memory(std::size_t(box.width) * std::size_t(box.height) * 3);
                auto* bytes = reinterpret_cast<std::uint8_t*>(memory.data());
                tiles->read(box, bytes, std::size_t(box.width) * tiles->pixel_bytes());
                std::size_t wrong = 0;
                for (int y = 0; y < box.height; ++y)
                    for (int i = 0; i < box.width * channels; ++i) {
                        const std::size_t at =
                            (std::size_t(y) * std::size_t(box.width)) * std::size_t(channels) + std::size_t(i);
                        const int got = bits == 8 ? bytes[at] * 257 : memory[at];
                        wrong += got != picture.row(box.top + y)[box.left * channels + i];
                    }
                CHECK(wrong == 0);
            }
        }
    CHECK(scratch->used() == 0);
}

TEST_CASE("rows of a tiled frame come in windows, from the columns that are asked for") {
    const Folder folder;
    const auto scratch = Scratch::in(folder / "cache", 100 * megabyte);
    const Raster16 picture = test::speckle_8({150, 400}, 3, 8);
    test::write(folder / "a.png", picture, 8);
    const auto rows = tiled_rows(tiles_of(folder / "a.png", 3, *scratch), {70, 131}, 50);
    CHECK(rows->left() == 70);
    std::size_t wrong = 0;
    for (const auto& [first, last] : {std::pair{0, 50}, {30, 80}, {75, 76}, {200, 250}, {380, 430}}) {
        REQUIRE(rows->require(first, last).ok());
        for (int y = first; y < std::min(last, 400); ++y)
            for (int i = 0; i < 61 * 3; ++i) wrong += rows->row(y).narrow[i] * 257 != picture.row(y)[70 * 3 + i];
    }
    CHECK(wrong == 0);
}

TEST_CASE("a frame turned far is resampled from tiles as from rows") {
    const Folder folder;
    const auto scratch = Scratch::in(folder / "cache", 100 * megabyte);
    const Rect region{-20, 10, 700, 90};
    for (const int bits : {8, 16}) {
        const Raster16 picture = test::speckle_8({420, 300}, 3, 5);
        test::write(folder / "a.tif", picture, bits);
        const SharedTiles tiles = tiles_of(folder / "a.tif", 3, *scratch);
        for (const Matrix& placed :
             {turned(0, 3.25, -2.5), turned(90, 300, 5), turned(-33, 40, 250), turned(180, 420, 300)}) {
            const RowReaches reaches(placed, 0, {420, 300}, region);
            for (const int height : {7, 64}) {
                std::vector<Band> bands;
                for (int y = region.top; y < region.bottom(); y += height)
                    bands.emplace_back(y, std::min(y + height, region.bottom()));
                auto open = std::move(open_frame(file_of(folder / "a.tif"), 0, {Profile::srgb(), 3, {}})).value();
                RowNeeds needs;
                needs.add(reaches);
                const std::shared_ptr<FrameRows> read = open->window(needs.window(bands), 0);
                const PlacedRows by_rows(read, reaches, 3);
                const PlacedRows by_tiles(tiles, {}, reaches, 3);
                for (std::size_t b = 0; b < bands.size(); ++b) {
                    const auto by_band = needs.of(bands);
                    REQUIRE(read->require(by_band[b == 0 ? b : b - 1].first, by_band[b].second).ok());
                    for (const Rect& piece : pieces_of(bands[b], region, {256, 8})) {
                        std::vector<std::uint16_t> from_rows(std::size_t(piece.width * piece.height) * 3, 0);
                        std::vector<std::uint16_t> from_tiles = from_rows;
                        std::vector<FrameRow> a(std::size_t(piece.height)), t(std::size_t(piece.height));
                        by_rows.take(piece, from_rows.data(), a.data());
                        by_tiles.take(piece, from_tiles.data(), t.data());
                        REQUIRE(from_rows == from_tiles);
                        for (std::size_t i = 0; i < a.size(); ++i) REQUIRE(a[i].cover == t[i].cover);
                    }
                }
            }
        }
    }
}

TEST_CASE("pictures of many scans, turned ones and turned frames merge within little memory by way of scratch") {
    const Folder folder;
    const Size size{1100, 1500};
    Job job;
    std::vector<NamedFile> files;
    for (int i = 0; i < 4; ++i) {
        const fs::path path = folder / ("f" + std::to_string(i) + ".jpg");
        const Raster16 picture = test::landscape(size, Matrix::shift(i, 0), unsigned(i), 900);
        test::write_jpeg(path, picture, i % 2 == 0 ? test::Scans::many : test::Scans::one);
        files.push_back({path});
    }
    Pile pile = with_mode(open_frames(files, Outcome::clear, Order::given, job).value(), Mode::median);
    Alignment across, still;
    across.to_reference = turned(90, 1300, 200);
    pile = with_alignments(pile, Model::rigid, pile.frames[0].id,
                           {{pile.frames[0].id, still},
                            {pile.frames[1].id, across},
                            {pile.frames[2].id, still},
                            {pile.frames[3].id, still}});
    pile.cover = Cover::any;
    const Folder out;
    const auto roomy =
        export_picture(pile, out / "roomy.tif", {{}, 2000 * megabyte, Scratch::in(folder / "c", 0)}, job);
    REQUIRE(roomy.ok());
    CHECK(roomy.value().plan.frames_in_scratch == 0);
    const auto scratch = Scratch::in(folder / "c", 200 * megabyte);
    const auto tight = export_picture(pile, out / "tight.tif", {{}, 72 * megabyte, scratch}, job);
    INFO((tight.ok() ? "" : tight.failure().english()));
    REQUIRE(tight.ok());
    CHECK(tight.value().plan.frames_in_scratch == 3);
    CHECK(tight.value().plan.peak_bytes <= 72 * megabyte);
    CHECK(test::bytes_of(out / "roomy.tif") == test::bytes_of(out / "tight.tif"));
    CHECK(scratch->used() == 0);
    CHECK(fs::is_empty(folder / "c"));
    const auto no_disk =
        export_picture(pile, out / "none.tif", {{}, 72 * megabyte, Scratch::in(folder / "c", megabyte)}, job);
    REQUIRE_FALSE(no_disk.ok());
    CHECK(no_disk.failure().english().find("working files") != std::string::npos);
    CHECK_FALSE(fs::exists(out / "none.tif"));
}
