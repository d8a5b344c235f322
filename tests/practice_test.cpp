#include "practice/practice.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <nlohmann/json.hpp>

#include "engine/open.h"
#include "pile/edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

nlohmann::json truth_of(const fs::path& folder) {
    std::ifstream in(folder / "truth/truth.json");
    return nlohmann::json::parse(in);
}

void practise(const char* scene, const fs::path& folder, int frames, std::uint64_t seed = 1) {
    practice::PracticeOptions options;
    options.frames = frames;
    options.size = {320, 214};
    options.seed = seed;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named(scene), folder, options, job).ok());
}

// The share of samples that are plainly not what they should be.
double share_off(const Raster16& a, const Raster16& b) {
    constexpr int plainly = 65535 / 16;
    int off = 0;
    for (std::size_t i = 0; i < a.data().size(); ++i) off += std::abs(int(a.data()[i]) - int(b.data()[i])) > plainly;
    return double(off) / double(a.data().size());
}

}  // namespace

TEST_CASE("the same seed gives the same bytes, another one does not") {
    const Folder folder;
    for (const practice::SceneEntry& scene : practice::scenes()) {
        const std::string name(scene.name);
        practise(name.c_str(), folder / (name + "-a"), 2);
        practise(name.c_str(), folder / (name + "-b"), 2);
        practise(name.c_str(), folder / (name + "-c"), 2, 5);
        // Of the boat all exposures but the first are lit frames.
        const std::string frame = name == "hull" ? "foreground/foreground-0001.jpg" : name + "-0002.jpg";
        INFO(frame);
        const std::string a = test::bytes_of(folder / (name + "-a") / frame);
        REQUIRE(a.size() > 1000);
        CHECK(a == test::bytes_of(folder / (name + "-b") / frame));
        CHECK(a != test::bytes_of(folder / (name + "-c") / frame));
        CHECK(test::bytes_of(folder / (name + "-a") / "truth/truth.json") ==
              test::bytes_of(folder / (name + "-b") / "truth/truth.json"));
    }
}

TEST_CASE("the lighthouse has its times, darks, foreground, bump, cloud, streaks and lens") {
    const Folder folder;
    practise("lighthouse", folder.path(), 0);
    Job job;
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    CHECK(pile.frames.size() == 51);
    CHECK(merged_ids(pile).size() == 48);
    const CaptureData& second = pile.frames[1].file->capture;
    CHECK(*second.captured - *pile.frames[0].file->capture.captured == Approx(90));
    CHECK(second.exposure_s == 75.0);
    CHECK(second.iso == 800.0);
    int long_pauses = 0;
    for (std::size_t k = 1; k < 48; ++k)
        long_pauses += *pile.frames[k].file->capture.captured - *pile.frames[k - 1].file->capture.captured > 100;
    CHECK(long_pauses == 1);
    const auto truth = truth_of(folder.path());
    int bumped = 0, cloudy = 0, aircraft = 0, meteors = 0;
    for (const auto& f : truth["frames"]) {
        bumped += f["to_reference"][2].get<double>() != 0;
        cloudy += f["cloud"].get<double>() > 0;
    }
    for (const auto& s : truth["streaks"]) {
        aircraft += s["kind"] == "aircraft";
        meteors += s["kind"] == "meteor";
    }
    CHECK(bumped == 1);
    CHECK(cloudy == 2);
    CHECK(aircraft >= 2);
    CHECK(meteors == 3);
    CHECK(truth["hot_pixels"].size() == 90);
    CHECK(truth["lens"].contains("k1"));
    CHECK(fs::exists(folder / "truth/trails.tif"));
    // The truth without breaks is nowhere darker.
    const Raster16 broken = read_picture(folder / "truth/trails.tif").value();
    const Raster16 whole = read_picture(folder / "truth/knitted.tif").value();
    std::size_t darker = 0, brighter = 0;
    for (std::size_t i = 0; i < broken.data().size(); ++i) {
        darker += whole.data()[i] < broken.data()[i];
        brighter += whole.data()[i] > broken.data()[i] + 2000;
    }
    CHECK(darker == 0);
    CHECK(brighter > 300);
}

TEST_CASE("the median clears the quay down to its truth, but for the man who stays") {
    const Folder folder;
    practise("quay", folder.path(), 0);
    Job job;
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::clear, Order::captured, job).value();
    const Raster16 cleared = test::render_all(pile).value();
    const Raster16 truth = read_picture(folder / "truth/clear.tif").value();
    const Raster16 one = test::render_all(with_mode(pile, Mode::one)).value();
    CHECK(share_off(cleared, truth) < 0.01);
    CHECK(share_off(one, truth) > 3 * share_off(cleared, truth));
}

TEST_CASE("the light of the cats changes between frames, and the best of them is known") {
    const Folder folder;
    practise("harbour-cats", folder.path(), 0);
    const auto truth = truth_of(folder.path());
    CHECK(truth["frames"].size() == 5);
    CHECK(truth["frames"][0]["gain"].get<double>() != truth["frames"][1]["gain"].get<double>());
    CHECK(fs::exists(folder / "truth/best.tif"));
}

TEST_CASE("the heron has a box and a mask in every frame, and a sensor spot") {
    const Folder folder;
    practise("heron", folder.path(), 6);
    const auto truth = truth_of(folder.path());
    double before = -1e9;
    for (const auto& f : truth["frames"]) {
        REQUIRE(f.contains("subject_box"));
        const double left = f["subject_box"][0].get<double>();
        CHECK(left > before);
        before = left;
        const Raster16 mask = read_picture(folder / ("truth/" + f["subject_mask"].get<std::string>())).value();
        int kept = 0;
        for (const auto v : mask.data()) kept += v > 0;
        CHECK(kept > 50);
    }
    CHECK(truth.contains("sensor_spot"));
}

TEST_CASE("a run that is stopped says so") {
    const Folder folder;
    Job job;
    job.stop();
    practice::PracticeOptions options;
    options.size = {64, 64};
    const auto run = practice::practise(*practice::scene_named("shelf"), folder.path(), options, job);
    REQUIRE_FALSE(run.ok());
    CHECK(run.failure().fault == Fault::stopped);
}
