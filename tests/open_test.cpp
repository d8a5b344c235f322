#include "engine/open.h"

#include <catch2/catch.hpp>
#include <fstream>

#include "engine/store.h"
#include "engine/survey.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

CaptureData at(double seconds) {
    CaptureData out;
    out.captured = 1789251245.0 + seconds;
    out.exposure_s = 2;
    return out;
}

Result<Pile> open(const std::vector<std::string>& names, Order order = Order::captured) {
    Job job;
    Result<std::vector<NamedFile>> files = gather_run(names);
    if (!files.ok()) return files.failure();
    return open_frames(files.value(), Outcome::trails, order, job);
}

std::vector<std::string> names_of(const Pile& pile) {
    std::vector<std::string> out;
    for (const Frame& f : pile.frames) out.push_back(f.file->path.filename().string());
    return out;
}

}  // namespace

TEST_CASE("a run is ordered by time or name, and gaps are told") {
    const Folder folder;
    const Raster16 picture = test::speckle_8({24, 16}, 3, 1);
    test::write(folder / "f2.jpg", picture, 8, {}, at(0));
    test::write(folder / "f10.jpg", picture, 8, {}, at(7.5));
    test::write(folder / "f1.jpg", picture, 8, {}, at(3));
    using Names = std::vector<std::string>;
    const Result<Pile> by_time = open({folder.path().string()});
    REQUIRE(by_time.ok());
    CHECK(names_of(by_time.value()) == Names{"f2.jpg", "f1.jpg", "f10.jpg"});
    CHECK(names_of(open({folder.path().string()}, Order::name).value()) == Names{"f1.jpg", "f2.jpg", "f10.jpg"});
    CHECK(names_of(open({(folder / "f10.jpg").string(), (folder / "f2.jpg").string()}, Order::given).value()) ==
          Names{"f10.jpg", "f2.jpg"});
    const std::vector<Findings> known = know(by_time.value(), {});
    CHECK_FALSE(known[0].measures.gap_s.has_value());
    CHECK(*known[1].measures.gap_s == Approx(1.0));
    CHECK(*known[2].measures.gap_s == Approx(2.5));
}

TEST_CASE("broken and odd-sized frames are set aside with the reason, and the rest goes on") {
    const Folder folder;
    test::write(folder / "a.jpg", test::speckle_8({24, 16}, 3, 1), 8);
    test::write(folder / "b.jpg", test::speckle_8({24, 16}, 3, 2), 8);
    test::write(folder / "c.jpg", test::speckle_8({30, 16}, 3, 3), 8);
    std::ofstream(folder / "d.jpg") << "nothing";
    const Result<Pile> pile = open({folder.path().string()});
    REQUIRE(pile.ok());
    CHECK(pile.value().size == Size{24, 16});
    CHECK(merged_ids(pile.value()).size() == 2);
    CHECK(pile.value().frames[2].problem.english().find("30 x 16") != std::string::npos);
    CHECK(pile.value().frames[3].problem.english().find("d.jpg") == 0);
}

TEST_CASE("nothing usable is a failure that says why") {
    const Folder folder;
    std::ofstream(folder / "d.jpg") << "nothing";
    const Result<Pile> pile = open({folder.path().string()});
    REQUIRE_FALSE(pile.ok());
    CHECK(pile.failure().english().find("d.jpg") != std::string::npos);
}

TEST_CASE("subfolders give darks and foregrounds their roles") {
    const Folder folder;
    fs::create_directories(folder / "darks");
    fs::create_directories(folder / "foreground");
    const Raster16 picture = test::speckle_8({24, 16}, 3, 1);
    for (const char* name : {"a.png", "darks/x.png", "foreground/y.png"}) test::write(folder / name, picture, 8);
    const Pile pile = open({folder.path().string()}).value();
    int dark = 0, foreground = 0;
    for (const Frame& f : pile.frames) {
        dark += f.role == Role::dark;
        foreground += f.role == Role::foreground;
    }
    CHECK(dark == 1);
    CHECK(foreground == 1);
    CHECK(merged_ids(pile).size() == 1);
}

TEST_CASE("added frames join; known ones are passed over") {
    const Folder folder;
    test::write(folder / "a.png", test::speckle_8({24, 16}, 3, 1), 8);
    test::write(folder / "b.png", test::speckle_8({24, 16}, 3, 2), 8);
    const Pile pile = open({(folder / "b.png").string()}).value();
    Job job;
    const Pile more = add_frames(pile, {{folder / "a.png"}, {folder / "b.png"}}, job).value();
    CHECK(names_of(more) == std::vector<std::string>{"a.png", "b.png"});
    CHECK(more.frames[1].id == pile.frames[0].id);
}

TEST_CASE("grey frames stay grey, and mixed ones become colour without changing a sample") {
    const Folder folder;
    const Raster16 grey = test::speckle_8({24, 16}, 1, 1);
    test::write(folder / "a.png", grey, 8);
    CHECK(open({folder.path().string()}).value().channels == 1);
    test::write(folder / "b.png", test::speckle_8({24, 16}, 3, 2), 8);
    const Pile pile = open({folder.path().string()}).value();
    REQUIRE(pile.channels == 3);
    Job job;
    const Raster16 read = read_frame(*pile.frames[0].file, 0, {pile.profile, 3, {}}, job).value();
    int wrong = 0;
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 24; ++x)
            for (int c = 0; c < 3; ++c) wrong += read.at(x, y, c) != grey.at(x, y, 0);
    CHECK(wrong == 0);
}

TEST_CASE("a stopped job stops opening") {
    const Folder folder;
    test::write(folder / "a.png", test::speckle_8({24, 16}, 3, 1), 8);
    Job job;
    job.stop();
    const auto pile = open_frames({{folder / "a.png"}}, Outcome::trails, Order::captured, job);
    REQUIRE_FALSE(pile.ok());
    CHECK(pile.failure().fault == Fault::stopped);
}

TEST_CASE("the store keeps within its budget and gives the same frames again") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 4, {40, 30}, 8);
    const std::size_t each = 40 * 30 * 3;
    FrameStore store({pile.profile, 3, {}}, {each * 2, 0});
    Job job;
    for (const Frame& f : pile.frames) REQUIRE(store.load(*f.file, 0, job).ok());
    CHECK(store.bytes() <= each * 2);
    CHECK(store.held(*pile.frames[3].file, 0) != nullptr);
    CHECK(store.held(*pile.frames[0].file, 0) == nullptr);
    CHECK(test::difference(store.load(*pile.frames[0].file, 0, job).value()->widened(), test::speckle_8({40, 30}, 3, 7))
              .empty());
    store.clear();
    CHECK(store.bytes() == 0);
}
