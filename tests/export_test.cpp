#include "engine/export.h"

#include <catch2/catch.hpp>
#include <fstream>

#include "engine/open.h"
#include "pile/edits.h"
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
    CHECK(done.value().pile.frames[1].problem.find("f1.jpg") == 0);
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
