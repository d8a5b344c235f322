#include "engine/export.h"

#include <catch2/catch.hpp>
#include <fstream>

#include "engine/open.h"
#include "engine/render.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

TEST_CASE("an export holds the rendered samples, the profile and the total exposure") {
    const Folder folder;
    CaptureData capture;
    capture.captured = 1789251245.5;
    capture.exposure_s = 4;
    for (int i = 0; i < 3; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".tif"), test::speckle({40, 30}, 3, unsigned(i)), 16, {},
                    capture);
    Job job;
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::clear, Order::captured, job).value();
    const fs::path out = folder / "out.png";
    const Result<Exported> done = export_picture(pile, out, {{16, 90}}, job);
    REQUIRE(done.ok());
    CHECK(test::difference(read_picture(out).value(), test::render_all(pile).value()) == "");
    const CaptureData back = read_capture(out);
    CHECK(*back.exposure_s == Approx(12));
    CHECK(*back.captured == Approx(1789251245.5).epsilon(1e-13));
    CHECK(probe_picture(out).value().profile.is_srgb());
    CHECK(fs::exists(folder / "f0.tif"));
}

TEST_CASE("originals are never written over, whatever they are called") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {20, 20}, 8);
    const std::string before = test::bytes_of(folder / "frame-2.tif");
    fs::create_symlink(folder / "frame-2.tif", folder / "alias.tif");
    Job job;
    for (const char* name : {"frame-2.tif", "alias.tif"}) {
        const Result<Exported> done = export_picture(pile, folder / name, {}, job);
        REQUIRE_FALSE(done.ok());
        CHECK(done.failure().fault == Fault::output);
    }
    CHECK(test::bytes_of(folder / "frame-2.tif") == before);
}

TEST_CASE("a frame that breaks on the way is set aside and the rest is merged anew") {
    const Folder folder;
    std::vector<NamedFile> files;
    for (int i = 0; i < 3; ++i) {
        const fs::path file = folder / ("f" + std::to_string(i) + ".jpg");
        test::write(file, test::landscape({200, 160}, Matrix::shift(i * 9.0, 0)), 8);
        files.push_back({file, Role::scene});
    }
    const std::string bytes = test::bytes_of(folder / "f1.jpg");
    std::ofstream(folder / "f1.jpg", std::ios::binary) << bytes.substr(0, bytes.size() / 2);
    Job job;
    const Pile pile = open_frames(files, Outcome::trails, Order::captured, job).value();
    REQUIRE(usable(pile.frames[1]));
    const Result<Exported> done = export_picture(pile, folder / "out.tif", {}, job);
    REQUIRE(done.ok());
    CHECK_FALSE(usable(done.value().pile.frames[1]));
    CHECK(done.value().pile.frames[1].problem.english().find("f1.jpg") == 0);
    const int broken[] = {pile.frames[1].id};
    CHECK(test::difference(read_picture(folder / "out.tif").value(),
                           test::render_all(with_aside(pile, broken, true)).value()) == "");
}

TEST_CASE("an export that fails or is stopped leaves nothing behind") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {20, 20}, 8);
    const auto before = folder.names();
    Job job;
    CHECK_FALSE(export_picture(pile, folder / "no/a.tif", {}, job).ok());
    CHECK_FALSE(export_picture(pile, folder / "a.xyz", {}, job).ok());
    const int both[] = {1, 2};
    CHECK_FALSE(export_picture(with_aside(pile, both, true), folder / "a.tif", {}, job).ok());
    job.stop();
    const auto stopped = export_picture(pile, folder / "a.tif", {}, job);
    REQUIRE_FALSE(stopped.ok());
    CHECK(stopped.failure().fault == Fault::stopped);
    CHECK(folder.names() == before);
}

TEST_CASE("the crop to full cover is what is written") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 2, {60, 40}, 8);
    Alignment a;
    a.to_reference = Matrix::shift(3, 2);
    pile = with_alignments(std::move(pile), Model::shift, 1, {{1, {}}, {2, a}});
    Job job;
    REQUIRE(export_picture(pile, folder / "full.tif", {}, job).ok());
    CHECK(probe_picture(folder / "full.tif").value().size == Size{57, 38});
    pile.cover = Cover::any;
    REQUIRE(export_picture(pile, folder / "any.tif", {}, job).ok());
    CHECK(probe_picture(folder / "any.tif").value().size == Size{60, 40});
}

TEST_CASE("an export keeps within its memory, and one that has too little says so and writes nothing") {
    const Folder folder;
    const Pile pile = with_mode(test::speckle_pile(folder, 12, {800, 600}, 16), Mode::mean);
    const Folder out;
    Job job;
    std::string first;
    int last_rows = 1000;
    for (const std::size_t megabytes : {std::size_t(400), std::size_t(110), std::size_t(90)}) {
        const Result<Exported> done = export_picture(pile, out / "a.tif", {{}, megabytes << 20}, job);
        REQUIRE(done.ok());
        CHECK(done.value().plan.peak_bytes <= megabytes << 20);
        CHECK(done.value().plan.band_rows <= last_rows);
        last_rows = done.value().plan.band_rows;
        const std::string bytes = test::bytes_of(out / "a.tif");
        if (first.empty()) first = bytes;
        CHECK(bytes == first);
    }
    fs::remove(out / "a.tif");
    const Result<Exported> refused = export_picture(pile, out / "a.tif", {{}, std::size_t(30) << 20}, job);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.failure().english().find("needs at least") != std::string::npos);
    CHECK(out.names().empty());
}

TEST_CASE("a stop in the middle of a merge is heard, in every format") {
    const Folder folder;
    const Pile pile = with_mode(test::speckle_pile(folder, 6, {1000, 900}, 16), Mode::clipped_mean);
    const Folder out;
    for (const char* name : {"a.tif", "a.png", "a.jpg"}) {
        Job* running = nullptr;
        Job job([&](const Progress& p) {
            if (running && p.fraction > 0 && p.fraction < 1) running->stop();
        });
        running = &job;
        const Result<Exported> done = export_picture(pile, out / name, {{}, std::size_t(100) << 20}, job);
        INFO(name);
        REQUIRE_FALSE(done.ok());
        CHECK(done.failure().fault == Fault::stopped);
        CHECK(out.names().empty());
    }
}

TEST_CASE("exports of one or three channels hold the same samples in each lossless format") {
    const Folder folder;
    const Folder out;
    for (const int channels : {1, 3}) {
        test::write(folder / "a.tif", test::speckle({70, 41}, channels, 1));
        test::write(folder / "b.tif", test::speckle({70, 41}, channels, 2));
        Job job;
        const Pile pile =
            with_mode(open_frames({{folder / "a.tif"}, {folder / "b.tif"}}, Outcome::trails, Order::name, job).value(),
                      Mode::minimum);
        for (const char* name : {"o.tif", "o.png"}) {
            REQUIRE(export_picture(pile, out / name, {}, job).ok());
            CHECK(probe_picture(out / name).value().channels == channels);
            CHECK(test::difference(read_picture(out / name).value(), test::render_all(pile).value()) == "");
        }
    }
}

TEST_CASE("fountains placed on a sheet of 20 x 16 inches are exported within the memory, as they are rendered") {
    const Folder folder;
    Pile pile = test::practised(folder, "sparks", 0, Outcome::shower);
    CanvasSettings sheet;
    sheet.measure = Measure::inch;
    sheet.dpi = 300;
    sheet.area = Rect{(pile.size.width - 6000) / 2, (pile.size.height - 4800) / 2, 6000, 4800};
    pile = with_canvas(std::move(pile), sheet);
    pile.cover = Cover::any;
    std::vector<int> all;
    for (const Frame& frame : pile.frames) all.push_back(frame.id);
    pile = with_aside(with_mode(std::move(pile), Mode::lighten), all, true);
    const Point to[] = {{-1250, -1000}, {1150, -950}, {-1300, 1050}, {1450, 1000}};
    for (std::size_t k = 0; k < 4; ++k) {
        int part = 0;
        std::tie(pile, part) = with_new_part(std::move(pile), pile.frames[k].id);
        pile = with_part_mask(std::move(pile), part, Mask::full(pile.size).softened(40));
        pile = with_part_join(std::move(pile), part, Join::add);
        pile = with_part_moved_to(std::move(pile), part, {to[k].x, to[k].y, 10.0 * double(k), 1.8}, k == 2);
    }
    Job job;
    const Folder out;
    const std::size_t budget = std::size_t(120) << 20;
    const Result<Exported> done = export_picture(pile, out / "sheet.tif", {{}, budget}, job);
    REQUIRE(done.ok());
    CHECK(done.value().plan.peak_bytes <= budget);
    CHECK(done.value().area == *sheet.area);
    FrameFile file;
    file.path = out / "sheet.tif";
    file.facts = probe_picture(file.path).value();
    CHECK(file.facts.size == Size{6000, 4800});
    const Raster16 read = read_frame(file, 0, working_space(pile), job).value();
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const Rect piece{-1200, -900, 300, 200};
    const Raster16 rendered = render(pile, store, piece, 0, job).value();
    bool any = false;
    for (int y = 0; y < piece.height; ++y) {
        const std::uint16_t* from = read.row(piece.top - sheet.area->top + y) + (piece.left - sheet.area->left) * 3;
        REQUIRE(std::equal(rendered.row(y), rendered.row(y) + rendered.row_samples(), from));
        any = any || std::any_of(from, from + rendered.row_samples(), [](std::uint16_t v) { return v > 2000; });
    }
    CHECK(any);
    // Beside the fountains the sheet is black, also where nothing else is cut out.
    CHECK(read.at(5, 5, 0) == 0);
    pile = with_crop(std::move(pile), Rect{sheet.area->left, sheet.area->top, 60, 40});
    REQUIRE(export_picture(pile, out / "corner.tif", {{}, budget}, job).ok());
    file.path = out / "corner.tif";
    file.facts = probe_picture(file.path).value();
    const Raster16 corner = read_frame(file, 0, working_space(pile), job).value();
    CHECK(std::all_of(corner.data().begin(), corner.data().end(), [](std::uint16_t v) { return v == 0; }));
}
