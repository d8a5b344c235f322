// Frames of clips: the right ones, with their times, like any other frame.
#include "io/clip.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <chrono>
#include <cstdlib>
#include <fstream>
#include <opencv2/videoio.hpp>

#include "engine/open.h"
#include "pile/file.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

// The cache goes where the test can look into it.
class OwnCache {
  public:
    OwnCache() {
        if (const char* old = std::getenv("XDG_CACHE_HOME")) old_ = old;
        ::setenv("XDG_CACHE_HOME", folder_.path().c_str(), 1);
    }
    ~OwnCache() {
        if (old_.empty())
            ::unsetenv("XDG_CACHE_HOME");
        else
            ::setenv("XDG_CACHE_HOME", old_.c_str(), 1);
    }
    OwnCache(const OwnCache&) = delete;
    OwnCache& operator=(const OwnCache&) = delete;
    long files() const {
        long count = 0;
        for (const auto& entry : fs::recursive_directory_iterator(folder_.path())) count += entry.is_regular_file();
        return count;
    }
    fs::path clips() const { return folder_.path() / "bright-pile" / "clips"; }
    void empty() const { fs::remove_all(folder_.path() / "bright-pile"); }

  private:
    Folder folder_;
    std::string old_;
};

// Frame n is grey with a value of 8 n.
void film(const fs::path& file, int frames) {
    cv::VideoWriter writer(file.string(), cv::VideoWriter::fourcc('M', 'J', 'P', 'G'), 10, cv::Size(64, 48));
    REQUIRE(writer.isOpened());
    for (int n = 0; n < frames; ++n) writer.write(cv::Mat(48, 64, CV_8UC3, cv::Scalar(8 * n, 8 * n, 8 * n)));
}

int grey_of(const fs::path& name) {
    return read_picture(name).value().at(20, 20, 1) / 257;
}

}  // namespace

TEST_CASE("a clip tells its size, rate and number of frames") {
    const OwnCache cache;
    const Folder folder;
    film(folder / "run.avi", 20);
    const ClipFacts facts = probe_clip(folder / "run.avi").value();
    CHECK(facts.size == Size{64, 48});
    CHECK(facts.rate == Approx(10));
    CHECK(facts.frames == 20);
    CHECK_FALSE(probe_clip(folder / "none.avi").ok());
    std::ofstream(folder / "no.mp4") << "no clip at all";
    const auto no = probe_clip(folder / "no.mp4");
    REQUIRE_FALSE(no.ok());
    CHECK(no.failure().english().find("no.mp4 is not a clip") == 0);
}

TEST_CASE("a range and a rate pick frames") {
    ClipFacts facts;
    facts.rate = 10;
    facts.frames = 30;
    CHECK(pick_frames(facts, 0, 1, 2) == std::vector<long>{0, 5, 10});
    CHECK(pick_frames(facts, 0.5, 0.8, 10) == std::vector<long>{5, 6, 7, 8});
    CHECK(pick_frames(facts, 2.8, 9, 10) == std::vector<long>{28, 29});
    CHECK(pick_frames(facts, 0, 0.3, 1000).size() == 4);
    CHECK(pick_frames(facts, 0, 1, 0).empty());
}

TEST_CASE("names of clip frames are told from other names") {
    const auto frame = clip_frame_of("/a/run.mp4#120");
    REQUIRE(frame);
    CHECK(frame->clip == "/a/run.mp4");
    CHECK(frame->number == 120);
    CHECK(name_of_clip_frame(*frame) == "/a/run.mp4#120");
    for (const char* other :
         {"/a/run.mp4", "/a/run.mp4#", "/a/run.mp4#x", "/a/run.mp4#-1", "/a/shot#12.jpg", "/a/b#12"})
        CHECK_FALSE(clip_frame_of(other));
}

TEST_CASE("every frame of a clip is the right one, and only the cache grows") {
    const OwnCache cache;
    const Folder folder;
    film(folder / "run.avi", 24);
    const std::string clip = (folder / "run.avi").string();
    Job job;
    const Pile pile =
        open_frames(gather_run({clip + "#3", clip + "#9", clip + "#20"}).value(), Outcome::trails, Order::captured, job)
            .value();
    REQUIRE(pile.frames.size() == 3);
    CHECK(cache.files() == 3);
    CHECK(folder.names() == std::vector<std::string>{"run.avi"});
    for (const Frame& frame : pile.frames) {
        const long n = clip_frame_of(frame.file->path)->number;
        CHECK(grey_of(frame.file->path) == Approx(8 * n).margin(4));
    }
    CHECK(*pile.frames[1].file->capture.captured - *pile.frames[0].file->capture.captured == Approx(0.6));
    // All frames of a clip that is named itself.
    CHECK(gather_run({clip}).value().size() == 24);
    // An emptied cache costs time and nothing else.
    cache.empty();
    CHECK(grey_of(clip + "#20") == Approx(160).margin(4));
}

TEST_CASE("a pile of clip frames is saved and opened again, also without the cache") {
    const OwnCache cache;
    const Folder folder;
    film(folder / "run.avi", 12);
    const std::string clip = (folder / "run.avi").string();
    Job job;
    const Pile pile =
        open_frames(gather_run({clip + "#2", clip + "#5"}).value(), Outcome::trails, Order::captured, job).value();
    REQUIRE(save_pile(pile, folder / "p.pile").ok());
    cache.empty();
    const LoadedPile loaded = load_pile(folder / "p.pile").value();
    CHECK(loaded.missing.empty());
    CHECK(loaded.changed.empty());
    for (std::size_t i = 0; i < 2; ++i) {
        CHECK(loaded.pile.frames[i].file->path == pile.frames[i].file->path);
        CHECK(loaded.pile.frames[i].file->hash == pile.frames[i].file->hash);
        CHECK(loaded.pile.frames[i].file->capture == pile.frames[i].file->capture);
    }
    fs::remove(folder / "run.avi");
    CHECK(load_pile(folder / "p.pile").value().missing.size() == 2);
}

TEST_CASE("a clip that ends early says where") {
    const OwnCache cache;
    const Folder folder;
    film(folder / "run.avi", 6);
    Job job;
    const Status done = unroll_clip(folder / "run.avi", {2, 40}, job);
    REQUIRE_FALSE(done.ok());
    CHECK(done.failure().english().find("run.avi ends at frame 6") == 0);
    // Frames that are there are used, the others say why not.
    const std::string clip = (folder / "run.avi").string();
    const Pile pile =
        open_frames(gather_run({clip + "#3", clip + "#40", clip + "#41"}).value(), Outcome::trails, Order::given, job)
            .value();
    CHECK(merged_ids(pile) == std::vector<int>{pile.frames[0].id});
    CHECK(pile.frames[2].problem.english().find("run.avi ends at frame 6") == 0);
}

TEST_CASE("frames of clips that are not in use make room, the ones used longest ago first") {
    const OwnCache cache;
    const Folder folder;
    film(folder / "run.avi", 6);
    // What other runs of the program have left, of a thousand bytes each.
    for (int days = 1; days <= 3; ++days) {
        const fs::path left = cache.clips() / std::to_string(days);
        fs::create_directories(left);
        std::ofstream(left / "0.png") << std::string(1000, 'x');
        fs::last_write_time(left, fs::file_time_type::clock::now() - std::chrono::hours(24 * days));
    }
    Job job;
    REQUIRE(unroll_clip(folder / "run.avi", {2}, job).ok());
    long own = 0;
    for (const auto& entry : fs::recursive_directory_iterator(cache.clips()))
        if (entry.is_regular_file()) own += long(entry.file_size());
    own -= 3000;
    REQUIRE(own > 0);
    const auto there = [&](const char* name) { return fs::exists(cache.clips() / name); };
    limit_clip_frames(std::uint64_t(own) + 2500);
    sweep_clip_frames();
    CHECK_FALSE(there("3"));
    CHECK(there("2"));
    // What is in use stays, whatever it takes, also when more of it is decoded.
    limit_clip_frames(0);
    REQUIRE(unroll_clip(folder / "run.avi", {4}, job).ok());
    CHECK_FALSE(there("2"));
    CHECK_FALSE(there("1"));
    CHECK(cache.files() == 2);
    limit_clip_frames(std::uint64_t(2) << 30);
}
