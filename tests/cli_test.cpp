#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <fstream>
#include <nlohmann/json.hpp>
#include <random>

#include "engine/aligning.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/source.h"
#include "io/reader.h"
#include "parts/brush.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/finish_file.h"
#include "pile/part_edits.h"
#include "support/program.h"

using namespace bp;
using bp::test::Folder;
using bp::test::run_program;
using nlohmann::json;

namespace {

std::string at(const Folder& folder, const std::string& name) {
    return (folder / name).string();
}

}  // namespace

TEST_CASE("wrong calls exit with 2, unknown settings too") {
    CHECK(run_program("").code == 2);
    CHECK(run_program("merge").code == 2);
    CHECK(run_program("frobnicate").code == 2);
    const Folder folder;
    test::speckle_pile(folder, 2, {20, 20}, 8);
    const std::string call = "merge " + folder.path().string() + " -o " + at(folder, "o.png");
    for (const char* option : {"--mode brightest",
                               "--mode added",
                               "--knit on",
                               "--knit auto --mode mean",
                               "--knit-longest 5",
                               "--leave-out 3",
                               "--leave-out 3:x.png",
                               "--leave-out x:x.png",
                               "--leave-out 1:",
                               "--taper 0",
                               "--taper 40 --mode median",
                               "--taper-end new",
                               "--head 0",
                               "--head 2 --mode median",
                               "--head-apart 3",
                               "--head 1 --head-light dim",
                               "--white soft",
                               "--align bend",
                               "--hot-pixels manual",
                               "--by light",
                               "--by pixel --mode median",
                               "--memory much",
                               "--long-edge 0",
                               "--sharpen -1",
                               "--depth 12",
                               "--reference 7",
                               "--streaks drop-birds"}) {
        INFO(option);
        const auto ran = run_program(call + " " + option);
        CHECK(ran.code == 2);
        CHECK_FALSE(ran.error.empty());
    }
    CHECK_FALSE(fs::exists(folder / "o.png"));
    CHECK(run_program("merge " + folder.path().string() + " -o " + at(folder, "o.bmp")).code == 2);
    CHECK(run_program("--version").code == 0);
    CHECK(run_program("merge --help").code == 0);
    CHECK(run_program("practice volcano -o " + at(folder, "x")).code == 2);
}

TEST_CASE("merge leaves out what masks say, of frames by their number, and knits when it is told") {
    const Folder in, out;
    const Pile pile = test::speckle_pile(in, 3, {60, 40}, 8);
    Mask first(pile.size), second(pile.size);
    first.edit({5, 5, 20, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    second.edit({18, 10, 30, 9}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    Mask both = first;
    both.edit({18, 10, 30, 9}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    const auto write_mask = [&](const Mask& mask, const char* name) {
        Raster16 grey(pile.size, 1);
        for (int y = 0; y < pile.size.height; ++y)
            for (int x = 0; x < pile.size.width; ++x) grey.at(x, y, 0) = std::uint16_t(mask.at(x, y) * 257);
        test::write(out / name, grey, 8, Profile::srgb());
    };
    write_mask(first, "a.png");
    write_mask(second, "b.png");
    test::write(out / "small.png", Raster16({8, 8}, 1), 8, Profile::srgb());
    const std::string call = "merge " + in.path().string() + " --quiet -o " + at(out, "o.tif") + " --mode maximum ";
    REQUIRE(run_program(call + "--leave-out 2:" + at(out, "a.png") + " --leave-out 2:" + at(out, "b.png")).code == 0);
    const int id[] = {pile.frames[1].id};
    const Pile expected = with_left_out(with_mode(pile, Mode::maximum), id, both);
    FrameFile file;
    file.path = out / "o.tif";
    file.facts = probe_picture(file.path).value();
    Job job;
    CHECK(test::difference(read_frame(file, 0, working_space(pile), job).value(), test::render_all(expected).value()) ==
          "");
    const auto wrong = run_program(call + "--leave-out 2:" + at(out, "small.png"));
    CHECK(wrong.code == 3);
    CHECK(wrong.error.find("small.png") != std::string::npos);
    // Nothing moves here, so nothing is added, and that is said.
    const auto knitted = run_program(call + "--knit auto --knit-longest 30");
    REQUIRE(knitted.code == 0);
    CHECK(knitted.error.find("Nothing was knitted") != std::string::npos);
    CHECK(test::difference(read_frame(file, 0, working_space(pile), job).value(),
                           test::render_all(with_mode(pile, Mode::maximum)).value()) == "");
}

TEST_CASE("streaks tells what it found as JSON, and merge leaves it out") {
    const Folder folder;
    REQUIRE(run_program("practice night-watch --quiet --frames 6 --size 960x640 -o " + at(folder, "run")).code == 0);
    std::string frames;
    for (int i = 1; i <= 6; ++i) frames += at(folder, "run") + "/night-watch-000" + std::to_string(i) + ".jpg ";
    const auto ran = run_program("streaks --json --quiet " + frames);
    REQUIRE(ran.code == 0);
    const auto streaks = nlohmann::json::parse(ran.out)["streaks"];
    REQUIRE(streaks.size() >= 4);
    for (const auto& s : streaks) {
        CHECK(s["kind"] == "meteor");
        CHECK(s["polyline"].size() == 2);
        CHECK(s["file"].get<std::string>().find("night-watch-000" + std::to_string(s["frame"].get<int>())) !=
              std::string::npos);
        CHECK(s["confidence"].get<double>() > 0.5);
        CHECK(s["width_px"].get<double>() > 1);
    }
    CHECK(run_program("streaks --quiet " + frames).out.find("meteor") != std::string::npos);
    const auto merged = [&](const std::string& how) {
        REQUIRE(run_program("merge --quiet " + frames + how + " -o " + at(folder, "o.tif")).code == 0);
        return test::bytes_of(folder / "o.tif");
    };
    const std::string kept = merged("--streaks keep");
    CHECK(merged("") == kept);
    CHECK(merged("--streaks drop-aircraft") == kept);
    CHECK(merged("--streaks drop-all") != kept);
}

TEST_CASE("merge tapers and chooses whole pixels as the core does, of the sky where there is one") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 5, {33, 21}, 8);
    const Folder out;
    const std::string call = "merge --quiet " + folder.path().string() + " -o " + at(out, "o.tif") + " ";
    const auto merged = [&](const std::string& options) {
        const auto ran = run_program(call + options);
        CHECK(ran.error == "");
        REQUIRE(ran.code == 0);
        return read_picture(out / "o.tif", 0).value();
    };
    const auto is = [&](const std::string& options, const Pile& expected) {
        INFO(options);
        CHECK(test::difference(merged(options), test::render_all(expected).value()) == "");
    };
    const Taper old_end{TaperEnd::old_one, 0.4, {0.5, 0.5}}, both{TaperEnd::both, 0.5, {0.5, 0.5}};
    is("--taper 40", with_taper(pile, old_end));
    is("--mode add --taper 50 --taper-end both", with_taper(with_mode(pile, Mode::add), both));
    is("--by pixel --taper 40", with_choice_by(with_taper(pile, old_end), By::pixel));
    is("--head 1 --head-apart 2", with_head(pile, {true, 1, 2, {0, true}}));
    is("--taper 40 --head 2 --head-radius 3 --head-light spread",
       with_head(with_taper(pile, old_end), {true, 2, 0, {3, false}}));
    is("--mode add --white soft", with_soft_white(with_mode(pile, Mode::add), true));
    // Half a sky.
    Raster16 sky({33, 21}, 1);
    for (int y = 0; y < 10; ++y) std::fill_n(sky.row(y), 33, std::uint16_t{65535});
    test::write(out / "sky.png", sky, 8);
    const Raster16 zoned = merged("--sky " + at(out, "sky.png") + " --taper 40");
    const Raster16 whole = test::render_all(pile).value();
    CHECK(test::difference(zoned, whole) != "");
    CHECK(std::equal(zoned.row(20), zoned.row(20) + 33 * 3, whole.row(20)));
}

TEST_CASE("merge writes what the core renders, in every mode") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 4, {33, 21}, 8);
    const Folder out;
    for (const ModeEntry& entry : modes()) {
        INFO(entry.name);
        const auto ran = run_program("merge " + folder.path().string() + " --quiet --mode " + std::string(entry.name) +
                                     " -o " + at(out, "o.tif"));
        REQUIRE(ran.code == 0);
        CHECK(ran.out.empty());
        CHECK(test::difference(read_picture(out / "o.tif").value(),
                               test::render_all(with_mode(pile, entry.mode)).value()) == "");
    }
    REQUIRE(
        run_program("merge " + folder.path().string() + " --mode mean --light encoded --depth 8 -o " + at(out, "e.png"))
            .code == 0);
    CHECK(probe_picture(out / "e.png").value().bits == 8);
    REQUIRE(run_program("merge " + folder.path().string() + " --mode one --reference 3 -o " + at(out, "3.tif")).code ==
            0);
    CHECK(test::difference(read_picture(out / "3.tif").value(), read_picture(folder / "frame-3.tif").value()) == "");
    REQUIRE(run_program("merge " + folder.path().string() + " --mode one --reference " + at(folder, "frame-2.tif") +
                        " -o " + at(out, "2.tif"))
                .code == 0);
    CHECK(test::difference(read_picture(out / "2.tif").value(), read_picture(folder / "frame-2.tif").value()) == "");
}

TEST_CASE("nothing that is written of a merge is written over a frame, or over what is written beside it") {
    const Folder folder, out;
    for (int i = 0; i < 2; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".tif"), test::speckle({60, 40}, 3, unsigned(i)));
    const fs::path first = folder / "f0.tif";
    const std::string before = test::bytes_of(first);
    const std::string call = "merge " + folder.path().string() + " --quiet -o " + at(out, "o.tif");
    fs::create_symlink(first, out / "link.pile");
    for (const std::string& other : {"--report " + first.string(), "--pile " + at(out, "link.pile")}) {
        INFO(other);
        const auto refused = run_program(call + " " + other);
        CHECK(refused.code != 0);
        CHECK(refused.error.find("Originals are never written over") != std::string::npos);
        CHECK(test::bytes_of(first) == before);
        // It is said before the work.
        CHECK_FALSE(fs::exists(out / "o.tif"));
    }
    const auto refused = run_program(call + " --report " + at(out, "../" + out.path().filename().string() + "/o.tif"));
    CHECK(refused.code == 2);
    CHECK(refused.error.find("--report would write over") != std::string::npos);
    CHECK(run_program(call + " --report " + at(out, "r.json")).code == 0);
}

TEST_CASE("memory bounds a merge and changes no bit; too little says what is needed") {
    const Folder folder;
    const Folder out;
    for (int i = 0; i < 40; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".tif"), test::speckle({900, 300}, 3, unsigned(i)));
    const std::string call =
        "merge " + folder.path().string() + " --mode median --quiet --report " + at(out, "r.json") + " -o ";
    const auto plan_of = [&] { return json::parse(std::ifstream(out / "r.json"))["plan"]; };
    REQUIRE(run_program(call + at(out, "much.tif") + " --memory 2G").code == 0);
    const json roomy = plan_of();
    CHECK(roomy["memory_bytes"] == 2147483648);
    const std::size_t tight_bytes = roomy["reckoned_bytes"].get<std::size_t>() * 4 / 5;
    REQUIRE(run_program(call + at(out, "little.tif") + " --memory " + std::to_string(tight_bytes)).code == 0);
    const json tight = plan_of();
    CHECK(tight["band_rows"] < roomy["band_rows"]);
    CHECK(tight["reckoned_bytes"] <= tight_bytes);
    CHECK(test::bytes_of(out / "much.tif") == test::bytes_of(out / "little.tif"));
    const auto refused = run_program(call + at(out, "none.tif") + " --memory 20M");
    CHECK(refused.code == 2);
    CHECK(refused.error.find("needs at least") != std::string::npos);
    CHECK_FALSE(fs::exists(out / "none.tif"));
}

TEST_CASE("frames beyond the limit of open files are merged all the same") {
    const Folder folder;
    const Folder out;
    constexpr int frames = 90;
    for (int i = 0; i < frames; ++i) {
        const char* ending = i % 3 == 0 ? ".jpg" : i % 3 == 1 ? ".png" : ".tif";
        test::write(folder / ("f" + std::to_string(i) + ending), test::speckle({64, 300}, 3, unsigned(i)), 8);
    }
    const auto ran =
        run_program("merge " + folder.path().string() + " --mode maximum -o " + at(out, "o.tif"), "ulimit -n 40; ");
    INFO(ran.error);
    CHECK(ran.code == 0);
    CHECK(fs::exists(out / "o.tif"));
}

TEST_CASE("threads change no bit") {
    const Folder folder;
    test::speckle_pile(folder, 3, {64, 48}, 16);
    const Folder out;
    for (const char* n : {"1", "2", "5"})
        REQUIRE(run_program("merge " + folder.path().string() + " --mode mean --threads " + n + " -o " +
                            at(out, std::string(n) + ".tif"))
                    .code == 0);
    CHECK(test::bytes_of(out / "1.tif") == test::bytes_of(out / "2.tif"));
    CHECK(test::bytes_of(out / "1.tif") == test::bytes_of(out / "5.tif"));
}

TEST_CASE("frames that cannot be used give 1 and a sentence; none at all gives 3; no place to write gives 4") {
    const Folder folder;
    test::speckle_pile(folder, 2, {20, 20}, 8);
    std::ofstream(folder / "broken.jpg") << "no picture";
    const Folder out;
    const auto some =
        run_program("merge " + folder.path().string() + " -o " + at(out, "o.png") + " --report " + at(out, "r.json"));
    CHECK(some.code == 1);
    CHECK(some.error.find("broken.jpg") != std::string::npos);
    CHECK(fs::exists(out / "o.png"));
    std::ifstream in(out / "r.json");
    const json report = json::parse(in);
    CHECK(report["frames"].size() == 3);
    int unused = 0;
    for (const auto& f : report["frames"]) {
        unused += !f["merged"].get<bool>();
        if (!f["merged"].get<bool>()) CHECK(f["reason"].get<std::string>().find("broken.jpg") != std::string::npos);
    }
    CHECK(unused == 1);
    CHECK(report["peak_memory_bytes"].get<long>() > 1000000);
    CHECK(report["time_s"].contains("merge"));
    CHECK(report["time_s"]["lights"] == 0);  // none were asked for
    for (const char* work : {"decode", "merge", "write"}) CHECK(report["thread_s"][work].get<double>() > 0);
    CHECK(report["plan"]["bands"].get<int>() >= 1);
    CHECK(report["plan"]["frames_in_scratch"] == 0);
    CHECK(report["noise"]["root_ev"].get<double>() == Approx(0.5));
    CHECK(run_program("merge " + at(folder, "broken.jpg") + " -o " + at(out, "x.png")).code == 3);
    CHECK(run_program("merge " + at(folder, "none.jpg") + " -o " + at(out, "x.png")).code == 3);
    CHECK(run_program("merge " + at(folder, "frame-1.tif") + " -o " + at(out, "no/x.png")).code == 4);
    CHECK(run_program("merge " + folder.path().string() + " -o " + at(folder, "frame-1.tif")).code == 4);
}

TEST_CASE("a report tells the noise of the result beside that of a frame") {
    const Folder folder, out;
    std::mt19937 dice(7);
    std::normal_distribution<double> noise(0, 900);
    for (int i = 0; i < 4; ++i) {
        Raster16 frame({320, 240}, 3);
        for (std::uint16_t& v : frame.data())
            v = std::uint16_t(std::lround(std::clamp(26000 + noise(dice), 0.0, 65535.0)));
        test::write(folder / ("n" + std::to_string(i) + ".tif"), frame, 16);
    }
    REQUIRE(run_program("merge " + folder.path().string() + " --mode mean --quiet -o " + at(out, "o.tif") +
                        " --report " + at(out, "r.json"))
                .code == 0);
    std::ifstream in(out / "r.json");
    const json told = json::parse(in)["noise"];
    CHECK(told["root_ev"].get<double>() == Approx(1));
    CHECK(told["gain_ev"].get<double>() == Approx(1).margin(0.08));
    REQUIRE(told["levels"].size() == 1);
    CHECK(told["levels"][0]["brightness_percent"].get<double>() == Approx(100 * 26000 / 65535.0).margin(1));
    CHECK(told["levels"][0]["frame_percent"].get<double>() == Approx(100 * 900 / 65535.0).epsilon(0.06));
    // One frame has no noise of a merge.
    REQUIRE(run_program("merge " + at(folder, "n0.tif") + " --quiet -o " + at(out, "p.tif") + " --report " +
                        at(out, "p.json"))
                .code == 0);
    std::ifstream one(out / "p.json");
    CHECK_FALSE(json::parse(one).contains("noise"));
}

TEST_CASE("inspect prints size, time, exposure, gap and brightness") {
    const Folder folder;
    CaptureData capture;
    capture.exposure_s = 25;
    capture.iso = 1600;
    for (int i = 0; i < 2; ++i) {
        capture.captured = 1789251245.25 + 30 * i;
        Raster16 grey({40, 20}, 3);
        std::fill(grey.data().begin(), grey.data().end(), std::uint16_t(257 * 188));
        test::write(folder / ("f" + std::to_string(i) + ".png"), grey, 8, {}, capture);
    }
    const auto ran = run_program("inspect --json " + folder.path().string());
    REQUIRE(ran.code == 0);
    const json frames = json::parse(ran.out)["frames"];
    REQUIRE(frames.size() == 2);
    CHECK(frames[0]["file"] == at(folder, "f0.png"));
    CHECK(frames[0]["width_px"] == 40);
    CHECK(frames[0]["height_px"] == 20);
    CHECK(frames[0]["captured"] == "2026-09-12T22:14:05.250");
    CHECK(frames[0]["exposure_s"] == 25.0);
    CHECK(frames[0]["iso"] == 1600.0);
    CHECK(frames[0]["gap_s"].is_null());
    CHECK(frames[1]["gap_s"].get<double>() == Approx(5));
    // Half of the light.
    CHECK(frames[0]["brightness"].get<double>() == Approx(0.503).margin(0.002));
    // As given, not as it is resolved.
    const std::string crooked = folder.path().string() + "/../" + folder.path().filename().string() + "/f1.png";
    CHECK(json::parse(run_program("inspect --json " + crooked).out)["frames"][0]["file"] == crooked);
    const auto table = run_program("inspect " + folder.path().string());
    CHECK(table.out.find("40x20") != std::string::npos);
}

TEST_CASE("align prints matrices and a grid that agrees with them") {
    const Folder folder;
    for (int i = 0; i < 2; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".tif"),
                    test::landscape({240, 180}, Matrix::shift(3.25 * i, -1.5 * i)));
    const auto ran = run_program("align --model shift --grid 3x2 --json --quiet " + folder.path().string());
    REQUIRE(ran.code == 0);
    const json frames = json::parse(ran.out)["frames"];
    REQUIRE(frames.size() == 2);
    CHECK(frames[1]["aligned"] == true);
    CHECK(frames[1]["matrix"][2].get<double>() == Approx(3.25).margin(0.05));
    CHECK(frames[1]["matrix"][5].get<double>() == Approx(-1.5).margin(0.05));
    REQUIRE(frames[1]["grid"].size() == 6);
    const auto corner = frames[1]["grid"][5];
    CHECK(corner[0] == 239);
    CHECK(corner[1] == 179);
    CHECK(corner[2].get<double>() - 239 == Approx(frames[1]["matrix"][2].get<double>()));
    CHECK(run_program("align --model shift --grid 3 " + folder.path().string()).code == 2);
    CHECK(run_program("align --model bend " + folder.path().string()).code == 2);
    const Folder out;
    REQUIRE(run_program("merge --align shift --mode mean " + folder.path().string() + " -o " + at(out, "o.tif")).code ==
            0);
    CHECK(probe_picture(out / "o.tif").value().size.width < 240);
}

TEST_CASE("frames that do not belong are set aside with a sentence, and the others merge as if they were not there") {
    constexpr Size size{320, 240};
    const Folder folder, out;
    const auto path = [&](const std::string& name) { return at(folder, name); };
    const auto scene = [&](const Matrix& to_scene, unsigned seed) {
        return test::landscape(size, to_scene, seed, 0.005);
    };
    test::write(folder / "a.tif", scene({}, 1));
    test::write(folder / "b.tif", scene(Matrix::shift(2.5, -1.25), 2));
    test::write(folder / "c.tif", scene(Matrix::shift(-3.5, 2), 3));
    const std::string good = path("a.tif") + " " + path("b.tif") + " " + path("c.tif");
    const std::string call = "merge --quiet --mode median --align rigid --reference 1 --report " + at(out, "r.json");
    REQUIRE(run_program(call + " -o " + at(out, "good.tif") + " " + good).code == 0);

    struct Stray {
        const char* what;
        Raster16 picture;
    };
    Raster16 white(size, 3);
    std::fill(white.data().begin(), white.data().end(), std::uint16_t(65535));
    std::array<Stray, 3> strays{{{"another scene", scene(Matrix::shift(4000, 3000), 4)},
                                 {"black", Raster16(size, 3)},
                                 {"white", std::move(white)}}};
    for (const Stray& stray : strays) {
        INFO(stray.what);
        test::write(folder / "stray.tif", stray.picture);
        const auto ran = run_program(call + " -o " + at(out, "o.tif") + " " + good + " " + path("stray.tif"));
        CHECK(ran.code == 1);
        CHECK(ran.error.find("stray.tif could not be aligned to the reference") != std::string::npos);
        const json frames = json::parse(test::bytes_of(out / "r.json"))["frames"];
        REQUIRE(frames.size() == 4);
        for (std::size_t i = 0; i < frames.size(); ++i) {
            const bool belongs = i < 3;
            CHECK(frames[i]["aligned"] == belongs);
            CHECK(frames[i]["merged"] == belongs);
        }
        const auto with = read_picture(out / "o.tif");
        const auto without = read_picture(out / "good.tif");
        REQUIRE((with.ok() && without.ok()));
        CHECK(test::difference(with.value(), without.value()).empty());
    }
}

TEST_CASE("a frame upside down is turned into place or set aside, four stops of exposure are no hindrance") {
    constexpr Size size{320, 240};
    const Folder folder, out;
    const Matrix over = Matrix::rigid(std::acos(-1.0), {(size.width - 1) / 2.0, (size.height - 1) / 2.0}, 0, 0);
    test::write(folder / "a.tif", test::landscape(size, {}, 1, 0.005));
    test::write(folder / "dark.tif", test::lit(test::landscape(size, Matrix::shift(1.75, 3.5), 3, 0.001), 1 / 16.0));
    test::write(folder / "over.tif", test::landscape(size, over, 2, 0.005));
    const auto ran = run_program("align --model rigid --reference 1 --json --quiet " + at(folder, "a.tif") + " " +
                                 at(folder, "dark.tif") + " " + at(folder, "over.tif"));
    const json frames = json::parse(ran.out)["frames"];
    REQUIRE(frames.size() == 3);
    const auto lies_at = [&](const json& frame, const Matrix& truth) {
        const Matrix found(frame["matrix"].get<std::array<double, 9>>());
        return rms_distance(found, truth, size) < 0.2;
    };
    CHECK(frames[1]["aligned"] == true);
    CHECK(lies_at(frames[1], Matrix::shift(1.75, 3.5)));
    const bool turned = frames[2]["aligned"].get<bool>();
    CHECK(turned == lies_at(frames[2], over));
    CHECK(ran.code == (turned ? 0 : 1));
}

TEST_CASE("merge levels, mends hot pixels and trusts a mask, and its report says so") {
    const Folder folder;
    for (unsigned i = 0; i < 4; ++i) {
        Raster16 picture = test::lit(test::landscape({240, 180}, {}, i, 0.004), i == 2 ? 0.4 : 0.5);
        for (int c = 0; c < 3; ++c) picture.at(50, 60, c) = 65535;
        test::write(folder / ("f" + std::to_string(i) + ".tif"), picture);
    }
    const Folder out;
    const std::string frames = folder.path().string();
    const std::string to = " -o " + at(out, "o.tif") + " --report " + at(out, "r.json");
    REQUIRE(run_program("merge --quiet --mode mean --even light --hot-pixels auto " + frames + to).code == 0);
    const json report = json::parse(test::bytes_of(out / "r.json"));
    CHECK(report["even"] == "light");
    CHECK(report["hot_pixels"] == 1);
    CHECK(report["frames"][2]["level_gain"][1].get<double>() == Approx(1.25).epsilon(0.01));
    CHECK(read_picture(out / "o.tif").value().at(50, 60, 1) < 60000);

    Raster16 trust({240, 180}, 1);
    std::fill(trust.data().begin(), trust.data().end(), std::uint16_t(65535));
    test::write(out / "trust.png", trust, 8);
    CHECK(run_program("merge --quiet --align shift --trust " + at(out, "trust.png") + " " + frames + to).code == 0);
    const auto ignored = run_program("merge --quiet --trust " + at(out, "trust.png") + " " + frames + to);
    CHECK(ignored.code == 2);
    CHECK(ignored.error.find("--align") != std::string::npos);
    test::write(out / "small.png", test::speckle_8({24, 18}, 1, 1), 8);
    const auto small = run_program("merge --quiet --align shift --trust " + at(out, "small.png") + " " + frames + to);
    CHECK(small.code == 3);
    CHECK(small.error.find("small.png is not of the size of the frames") != std::string::npos);
    CHECK(run_program("merge --quiet --align shift --trust " + at(out, "none.png") + " " + frames + to).code == 3);
    const auto stars = run_program("align --quiet --model stars " + frames);
    CHECK(stars.code == 3);
    CHECK(stars.error.find("capture times") != std::string::npos);
    const auto few = run_program("merge --quiet --hot-pixels auto " + at(folder, "f0.tif") + to);
    CHECK(few.code == 2);
    CHECK(few.error.find("four frames") != std::string::npos);
}

TEST_CASE("merge subtracts darks and says which do not fit") {
    const Folder folder;
    CaptureData capture;
    capture.exposure_s = 4;
    capture.iso = 400;
    for (int i = 0; i < 2; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".tif"), test::landscape({120, 90}, {}, unsigned(i), 0.01), 16,
                    {}, capture);
    const Folder out;
    Raster16 dark({120, 90}, 3);
    std::fill(dark.data().begin(), dark.data().end(), std::uint16_t(9000));
    test::write(out / "dark.tif", dark, 16, {}, capture);
    capture.iso = 800;
    test::write(out / "other.tif", dark, 16, {}, capture);
    const std::string frames = folder.path().string();
    const std::string to = " -o " + at(out, "o.tif") + " --report " + at(out, "r.json");
    REQUIRE(run_program("merge --quiet --mode mean " + frames + to).code == 0);
    const Raster16 with_all = read_picture(out / "o.tif").value();
    REQUIRE(run_program("merge --quiet --mode mean " + frames + " --dark " + at(out, "dark.tif") + to).code == 0);
    CHECK(read_picture(out / "o.tif").value().at(60, 45, 1) < with_all.at(60, 45, 1));
    const json report = json::parse(test::bytes_of(out / "r.json"));
    // The dark stands first: none of them has a capture time.
    CHECK(report["frames"][1]["less_darks"]["count"] == 1);
    // Before the frames as well, and more than once.
    REQUIRE(run_program("merge --quiet --mode mean --dark " + at(out, "dark.tif") + " --dark " + at(out, "dark.tif") +
                        " " + frames + to)
                .code == 0);
    CHECK(json::parse(test::bytes_of(out / "r.json"))["frames"].size() >= 3);
    const auto misfit = run_program("merge --quiet --mode mean " + frames + " --dark " + at(out, "other.tif") + to);
    CHECK(misfit.code == 1);
    CHECK(misfit.error.find("other.tif was taken at ISO 800, the frames at 400") != std::string::npos);
    CHECK(test::difference(read_picture(out / "o.tif").value(), with_all).empty());
    CHECK(run_program("merge --quiet --scale-darks " + frames + to).code == 2);
}

TEST_CASE("merge takes sky and land apart under a mask") {
    const Folder folder;
    test::write_moving(folder, 3, {240, 180}, {4, -2});
    const Folder out;
    Raster16 sky({240, 180}, 1);
    std::fill_n(sky.data().begin(), 240 * 90, std::uint16_t(65535));
    test::write(out / "sky.png", sky, 8);
    const std::string frames = folder.path().string();
    const std::string to = " --cover any -o " + at(out, "o.tif") + " --report " + at(out, "r.json");
    const std::string mask = " --sky " + at(out, "sky.png");
    REQUIRE(run_program("merge --quiet" + mask + " --mode mean --sky-align shift --land-mode maximum " + frames + to)
                .code == 0);
    const json report = json::parse(test::bytes_of(out / "r.json"));
    CHECK(report["align"] == "shift");
    CHECK(report["mode"] == "mean");
    CHECK(report["land"]["align"] == "none");
    CHECK(report["land"]["mode"] == "maximum");
    const Raster16 both = read_picture(out / "o.tif").value();
    REQUIRE(run_program("merge --quiet --mode maximum --cover any " + frames + " -o " + at(out, "land.tif")).code == 0);
    const Raster16 land = read_picture(out / "land.tif").value();
    for (int x = 0; x < 240; x += 7) CHECK(both.at(x, 140, 1) == land.at(x, 140, 1));
    const auto needs = run_program("merge --quiet --land-mode median " + frames + to);
    CHECK(needs.code == 2);
    CHECK(needs.error.find("--land-mode needs --sky") != std::string::npos);
    CHECK(run_program("merge --quiet --sky " + at(out, "none.png") + " " + frames + to).code == 3);
}

TEST_CASE("render writes a saved pile as the core renders it") {
    const Folder folder;
    Pile pile = with_mode(test::speckle_pile(folder, 3, {40, 30}, 16), Mode::median);
    auto [with, part] = with_new_part(std::move(pile), 2);
    Stroke stroke(Mask({40, 30}), {16, 0.5, 1, true});
    stroke.extend({20, 15});
    with = with_part_mask(std::move(with), part, stroke.mask());
    REQUIRE(save_pile(with, folder / "p.pile").ok());
    REQUIRE(run_program("render " + at(folder, "p.pile") + " -o " + at(folder, "o.tif")).code == 0);
    CHECK(test::difference(read_picture(folder / "o.tif").value(), test::render_all(with).value()) == "");
    fs::remove(folder / "frame-3.tif");
    CHECK(run_program("render " + at(folder, "p.pile") + " -o " + at(folder, "o.tif")).code == 1);
    std::ofstream(folder / "bad.pile") << "x";
    CHECK(run_program("render " + at(folder, "bad.pile") + " -o " + at(folder, "o.tif")).code == 3);
}

TEST_CASE("practice writes frames and truth in each format; order and progress can be chosen") {
    const Folder folder;
    for (const auto& [format, ending] :
         {std::pair{"jpeg", ".jpg"}, std::pair{"png", ".png"}, std::pair{"tiff", ".tif"}, std::pair{"dng", ".dng"}}) {
        const std::string to = at(folder, format);
        const auto ran = run_program(std::string("practice harbour-cats -o ") + to +
                                     " --frames 2 --size 160x107 --progress json --format " + format);
        REQUIRE(ran.code == 0);
        CHECK(fs::exists(fs::path(to) / (std::string("harbour-cats-0002") + ending)));
        CHECK(fs::exists(fs::path(to) / "truth/truth.json"));
        const json last = json::parse(ran.error.substr(ran.error.rfind('\n', ran.error.size() - 2) + 1));
        CHECK(last["fraction"] == 1.0);
    }
    CHECK(probe_picture(folder / "tiff/harbour-cats-0001.tif").value().bits == 16);
    CHECK(run_program("practice quay -o " + at(folder, "q") + " --size 3x3").code == 2);
    CHECK(run_program("practice quay -o " + at(folder, "q") + " --format bmp").code == 2);
    CHECK(run_program("practice quay -o " + at(folder, "q") + " --live 0").code == 2);
    // Frames come one by one, none before its time.
    const auto begin = fs::file_time_type::clock::now();
    REQUIRE(
        run_program("practice harbour-cats -o " + at(folder, "live") + " --frames 3 --size 160x107 --live 0.3").code ==
        0);
    const auto written = [&](int n) {
        return fs::last_write_time(folder / ("live/harbour-cats-000" + std::to_string(n) + ".jpg"));
    };
    CHECK(written(2) - begin > std::chrono::milliseconds(250));
    CHECK(written(3) - begin > std::chrono::milliseconds(550));
}

TEST_CASE("inspect tells which frames are odd, and why") {
    const Folder folder;
    for (int i = 1; i <= 9; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".png"),
                    test::landscape({320, 240}, i == 4 ? Matrix::shift(6, 2) : Matrix{}, unsigned(i), 0.01), 16);
    const json frames = json::parse(run_program("inspect --json " + folder.path().string()).out)["frames"];
    for (std::size_t i = 0; i < 9; ++i) CHECK(frames[i]["odd"].size() == (i == 3 ? 1 : 0));
    CHECK(frames[3]["odd"][0] == "moved 6.3 px");
    CHECK(frames[3]["shift_px"].get<double>() == Approx(std::hypot(6, 2)).margin(0.1));
    CHECK(frames[3]["shift_x_px"].get<double>() == Approx(6).margin(0.1));
    CHECK(frames[8]["sharpness"].get<double>() == Approx(1).margin(0.1));
    CHECK(run_program("inspect " + folder.path().string()).out.find("moved 6.3 px") != std::string::npos);
}

TEST_CASE("a full disk gives 4 and leaves the old file whole, in every format") {
    const Folder folder;
    test::speckle_pile(folder, 2, {300, 200}, 16);
    for (const char* name : {"o.tif", "o.png", "o.jpg"}) {
        const Folder out;
        std::ofstream(out / name) << "what was there before";
        // A limit on the size of files does to the program what a full disk does.
        const auto ran =
            run_program("merge " + folder.path().string() + " -o " + at(out, name), "trap '' XFSZ; ulimit -f 8; ");
        INFO(name << ": " << ran.error);
        CHECK(ran.code == 4);
        CHECK(ran.error.find(name) != std::string::npos);
        CHECK(test::bytes_of(out / name) == "what was there before");
        CHECK(out.names() == std::vector<std::string>{name});
    }
}

TEST_CASE("a kill in the middle of a merge leaves the old file whole, and the next run is not hindered") {
    const Folder folder;
    const Folder out;
    for (int i = 0; i < 30; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".png"), test::speckle({900, 700}, 3, unsigned(i)), 8);
    std::ofstream(out / "o.tif") << "what was there before";
    const std::string call = "merge " + folder.path().string() + " --mode clipped-mean --quiet -o " + at(out, "o.tif");
    const auto killed = run_program(call, "timeout -s KILL 0.15 ");
    CHECK(killed.code != 0);
    CHECK(test::bytes_of(out / "o.tif") == "what was there before");
    REQUIRE(run_program(call).code == 0);
    CHECK(read_picture(out / "o.tif").value().size() == Size{900, 700});
}

TEST_CASE("an interrupt in the middle of a merge stops with 130 and leaves no half-written file") {
    const Folder folder;
    const Folder out;
    for (int i = 0; i < 40; ++i)
        test::write(folder / ("f" + std::to_string(i) + ".png"), test::speckle({1200, 900}, 3, unsigned(i)), 8);
    const auto ran =
        run_program("merge " + folder.path().string() + " --mode clipped-mean --quiet -o " + at(out, "o.tif"),
                    "timeout --preserve-status -s INT 0.3 ");
    CHECK(ran.code == 130);
    CHECK(out.names().empty());
}

TEST_CASE("an interrupt stops with 130 and leaves no half-written file") {
    const Folder folder;
    const int own = std::system((std::string("timeout --preserve-status -s INT 0.3 ") + CLI_PROGRAM +
                                 " practice lighthouse -o " + at(folder, "m") + " --size 800x534 --quiet 2>/dev/null")
                                    .c_str());
    CHECK(WEXITSTATUS(own) == 130);
    for (const auto& entry : fs::recursive_directory_iterator(folder.path()))
        CHECK(entry.path().filename().string().find("partial") == std::string::npos);
}

TEST_CASE("merge --pile writes a pile whose render is the merge to the bit, for every model and mode") {
    const Folder folder;
    test::write_moving(folder, 4, {200, 150}, {3, -2});
    test::write(
        folder / "sky.png",
        [] {
            Raster16 sky(Size{200, 150}, 1);
            for (int y = 0; y < 70; ++y)
                for (int x = 0; x < 200; ++x) sky.at(x, y, 0) = 65535;
            return sky;
        }(),
        8);
    std::string frames;
    for (int i = 1; i <= 4; ++i) frames += " " + at(folder, "f" + std::to_string(i) + ".tif");
    std::vector<std::string> kinds;
    for (const ModelEntry& model : models())
        if (model.model != Model::stars) kinds.push_back("--align " + std::string(model.name) + " --mode median");
    for (const ModeEntry& mode : modes()) kinds.push_back("--align rigid --mode " + std::string(mode.name));
    kinds.push_back("--align rigid --even colour --hot-pixels auto --depth 8 --cover any --mode mean --light encoded");
    kinds.push_back("--sky " + at(folder, "sky.png") +
                    " --sky-align shift --land-align rigid --sky-mode maximum --land-mode mean");
    kinds.push_back("--reference 3 --align similarity --order given --mode clipped-mean");
    for (const std::string& kind : kinds) {
        INFO(kind);
        const auto merged = run_program("merge " + kind + " --quiet --pile " + at(folder, "p.pile") + " -o " +
                                        at(folder, "merged.tif") + frames);
        INFO(merged.error);
        REQUIRE(merged.code == 0);
        REQUIRE(run_program("render --quiet " + at(folder, "p.pile") + " -o " + at(folder, "rendered.tif")).code == 0);
        CHECK(test::bytes_of(folder / "merged.tif") == test::bytes_of(folder / "rendered.tif"));
        fs::remove(folder / "rendered.tif");
        // Alone, without a picture.
        REQUIRE(run_program("merge " + kind + " --quiet --pile " + at(folder, "q.pile") + frames).code == 0);
        CHECK(test::bytes_of(folder / "q.pile") == test::bytes_of(folder / "p.pile"));
        fs::remove(folder / "p.pile");
        fs::remove(folder / "q.pile");
    }
}

TEST_CASE("a pile of frames aligned by the stars renders as the merge did, through the lens") {
    const Folder folder;
    REQUIRE(run_program("practice lighthouse --quiet --frames 10 --size 960x640 -o " + at(folder, "run")).code == 0);
    const std::string run = " " + at(folder, "run");
    const auto merged = run_program("merge --align stars --mode maximum --quiet --pile " + at(folder, "p.pile") +
                                    " -o " + at(folder, "a.tif") + run);
    INFO(merged.error);
    REQUIRE(merged.code <= 1);
    REQUIRE(run_program("render --quiet " + at(folder, "p.pile") + " -o " + at(folder, "b.tif")).code == merged.code);
    CHECK(test::bytes_of(folder / "a.tif") == test::bytes_of(folder / "b.tif"));
}

TEST_CASE("merge --like makes other frames like a pile, before what else is given, and says what it leaves") {
    const Folder folder, other, out;
    test::write_moving(folder, 5, {320, 240}, {2, -1});
    test::write_moving(other, 4, {240, 180}, {-1, 1});
    const auto merged = [&](const std::string& options, const std::string& picture) {
        const auto ran = run_program("merge --quiet " + options + " -o " + at(out, picture));
        INFO(ran.error);
        REQUIRE(ran.code == 0);
        return ran.error;
    };
    const std::string settings =
        " --align shift --mode lighten --taper 60 --taper-end both --even light --hot-pixels auto --by pixel --light "
        "encoded --cover any --depth 8 --long-edge 200 ";
    merged(settings + "--pile " + at(out, "a.pile") + " " + folder.path().string(), "a.png");
    // The same frames are the same picture, other frames the picture that the settings give.
    CHECK(merged("--like " + at(out, "a.pile") + " " + folder.path().string(), "b.png").empty());
    CHECK(test::bytes_of(out / "b.png") == test::bytes_of(out / "a.png"));
    merged(settings + other.path().string(), "c.png");
    CHECK(merged("--like " + at(out, "a.pile") + " " + other.path().string(), "d.png").empty());
    CHECK(test::bytes_of(out / "d.png") == test::bytes_of(out / "c.png"));
    // What is given beside it counts more; what is not given stays the pile's.
    const std::string others =
        " --mode median --even off --depth 16 --cover full --by channel --hot-pixels off --light linear ";
    merged(" --align shift --long-edge 200" + others + other.path().string(), "e.png");
    merged("--like " + at(out, "a.pile") + others + other.path().string(), "f.png");
    CHECK(test::bytes_of(out / "f.png") == test::bytes_of(out / "e.png"));

    // What is the frames' own is left, and said.
    Pile own = load_pile(out / "a.pile").value().pile;
    const int ids[] = {own.frames[1].id};
    own = with_aside(std::move(own), ids, true);
    own = with_crop(std::move(own), Rect{20, 20, 100, 80});
    Mask mask(own.size);
    mask.edit({10, 10, 40, 40}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    own = with_left_out(std::move(own), ids, mask);
    REQUIRE(save_pile(own, out / "own.pile").ok());
    const std::string said = merged("--like " + at(out, "own.pile") + " " + folder.path().string(), "g.png");
    CHECK(said.find("set aside is not taken") != std::string::npos);
    CHECK(said.find("crop") != std::string::npos);
    CHECK(said.find("left out areas of single frames") != std::string::npos);
    CHECK(test::bytes_of(out / "g.png") == test::bytes_of(out / "a.png"));

    const auto wrong = run_program("merge --quiet --like " + at(folder, folder.names().front()) + " " +
                                   folder.path().string() + " -o " + at(out, "h.png"));
    CHECK(wrong.code == 3);
    CHECK(wrong.error.find(folder.names().front()) != std::string::npos);
}

TEST_CASE("align --pile writes the aligned pile; a name that is none of a pile is refused") {
    const Folder folder;
    test::write_moving(folder, 3, {160, 120}, {2, 1});
    const std::string frames = " " + at(folder, "f1.tif") + " " + at(folder, "f2.tif") + " " + at(folder, "f3.tif");
    REQUIRE(run_program("align --model shift --quiet --pile " + at(folder, "p.pile") + frames).code == 0);
    const Result<LoadedPile> loaded = load_pile(folder / "p.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().pile.methods.sky.model == Model::shift);
    CHECK(loaded.value().pile.frames[2].places.sky->to_reference.m()[2] == Approx(4).margin(0.05));
    const auto refused = run_program("merge --quiet --pile " + at(folder, "p.tif") + frames);
    CHECK(refused.code == 2);
    CHECK(refused.error.find("must end in .pile") != std::string::npos);
    CHECK_FALSE(fs::exists(folder / "p.tif"));
    CHECK(run_program("merge --quiet" + frames).code == 2);
}

TEST_CASE("a place for temporary files that is not there, and a cache that cannot be written, stop nothing") {
    const Folder folder;
    test::write_moving(folder, 2, {80, 60}, {1, 1});
    const std::string frames = " " + at(folder, "f1.tif") + " " + at(folder, "f2.tif");
    std::ofstream(folder / "file") << "no folder";
    for (const std::string& before :
         {std::string("TMPDIR=/no/such/folder "), "XDG_CACHE_HOME=" + at(folder, "file") + " ",
          std::string("TMPDIR=/no/such XDG_CACHE_HOME=/proc/none HOME=/proc/none ")}) {
        INFO(before);
        const auto ran = run_program("merge --quiet -o " + at(folder, "o.tif") + frames, "export " + before + "; ");
        INFO(ran.error);
        CHECK(ran.code == 0);
    }
}

TEST_CASE("sequence shows what moves in places that lie apart, and its pile renders the same") {
    const Folder folder;
    REQUIRE(run_program("practice heron --quiet --frames 6 --size 800x533 -o " + at(folder, "run")).code == 0);
    const std::string frames = at(folder, "run");
    const auto ran = run_program("sequence --json --quiet --on-top early --spacing 0 --pile " + at(folder, "s.pile") +
                                 " -o " + at(folder, "s.tif") + " " + frames);
    REQUIRE(ran.code == 0);
    const auto told = nlohmann::json::parse(ran.out);
    REQUIRE(told["frames"].size() >= 3);
    CHECK(told["overlaps"].empty());
    for (const auto& f : told["frames"]) {
        CHECK(f["subject"] == 1);
        CHECK(f["box"][0] < f["box"][2]);
        CHECK(f["file"].get<std::string>().find("heron-000" + std::to_string(f["frame"].get<int>())) !=
              std::string::npos);
    }
    REQUIRE(run_program("render --quiet " + at(folder, "s.pile") + " -o " + at(folder, "r.tif")).code == 0);
    CHECK(test::bytes_of(folder / "r.tif") == test::bytes_of(folder / "s.tif"));
    CHECK(run_program("sequence --spacing -1 -o " + at(folder, "x.tif") + " " + frames).code == 2);
    CHECK(run_program("sequence --on-top middle -o " + at(folder, "x.tif") + " " + frames).code == 2);
    // Names need not be UTF-8, and a pile says in which format its picture was written.
    fs::rename(folder / "run", folder / "m\xf6we");
    const auto wide = run_program("sequence --json --quiet --spacing 400 --pile " + at(folder, "w.pile") + " -o " +
                                  at(folder, "w.ora") + " " + at(folder, "m\xf6we"));
    REQUIRE(wide.code == 0);
    CHECK(nlohmann::json::parse(wide.out)["frames"].size() == 1);
    CHECK(load_pile(folder / "w.pile").value().pile.exporting.ending == ".ora");
}

TEST_CASE("shower lays the meteors of all frames over one, and its pile renders the same") {
    const Folder folder;
    REQUIRE(run_program("practice night-watch --quiet --frames 6 --size 960x640 -o " + at(folder, "run")).code == 0);
    const auto ran = run_program("shower --json --quiet --pile " + at(folder, "s.pile") + " -o " + at(folder, "s.tif") +
                                 " " + at(folder, "run"));
    REQUIRE(ran.code == 0);
    const auto meteors = nlohmann::json::parse(ran.out)["meteors"];
    REQUIRE(meteors.size() >= 2);
    for (const auto& m : meteors) CHECK(m["frame"] != 1);
    REQUIRE(run_program("render --quiet " + at(folder, "s.pile") + " -o " + at(folder, "r.tif")).code == 0);
    CHECK(test::bytes_of(folder / "r.tif") == test::bytes_of(folder / "s.tif"));
    fs::rename(folder / "run", folder /
                                   "n\xe4"
                                   "chte");
    const auto streaks = run_program("streaks --json --quiet " + at(folder,
                                                                    "n\xe4"
                                                                    "chte"));
    REQUIRE(streaks.code == 0);
    CHECK(nlohmann::json::parse(streaks.out)["streaks"].size() >= meteors.size());
}

TEST_CASE("names that are not UTF-8 are reported as far as they can be") {
    const Folder folder;
    test::write_moving(folder, 2, {80, 60}, {1, 1});
    fs::rename(folder / "f2.tif", folder / "m\xf6we.tif");
    const std::string frames = " " + folder.path().string() + "/*.tif";
    for (const std::string& call : {"inspect --json --quiet" + frames, "align --model shift --json --quiet" + frames}) {
        const auto ran = run_program(call);
        CHECK(ran.code == 0);
        CHECK(json::parse(ran.out)["frames"].size() == 2);
    }
    REQUIRE(
        run_program("merge --quiet --report " + at(folder, "r.json") + " -o " + at(folder, "o.png") + frames).code ==
        0);
    CHECK(json::parse(test::bytes_of(folder / "r.json"))["frames"].size() == 2);
}

TEST_CASE("a finish file, a profile and a size count in a merge, in its pile and in what is rendered of it") {
    const Folder folder, out;
    test::write_moving(folder, 3, {96, 64}, {0, 0});
    Finish finish;
    finish.look.exposure_ev = -1;
    finish.detail.sharpen = 80;
    finish.edges.stops = -1;
    REQUIRE(save_finish(finish, {96, 64}, out / "dusk.finish").ok());
    const std::string call = "merge --quiet --mode median " + folder.path().string();
    REQUIRE(run_program(call + " -o " + at(out, "plain.tif")).code == 0);
    REQUIRE(run_program(call + " --finish " + at(out, "dusk.finish") +
                        " --profile p3 --long-edge 48 --sharpen 50 --pile " + at(out, "dusk.pile") + " -o " +
                        at(out, "dusk.tif"))
                .code == 0);
    const PictureFacts facts = probe_picture(out / "dusk.tif").value();
    CHECK(facts.size == Size{48, 32});
    CHECK(facts.profile.name() == "Display P3");
    CHECK(read_picture(out / "dusk.tif").value().at(24, 16, 1) < read_picture(out / "plain.tif").value().at(48, 32, 1));
    REQUIRE(run_program("render " + at(out, "dusk.pile") + " -o " + at(out, "again.tif")).code == 0);
    CHECK(test::bytes_of(out / "again.tif") == test::bytes_of(out / "dusk.tif"));
    // A pile gives its finish, too.
    REQUIRE(run_program(call + " --finish " + at(out, "dusk.pile") + " --profile p3 --long-edge 48 --sharpen 50 -o " +
                        at(out, "third.tif"))
                .code == 0);
    CHECK(test::bytes_of(out / "third.tif") == test::bytes_of(out / "dusk.tif"));
    for (const char* ending : {"exr", "jxl", "webp"})
        CHECK(run_program(call + " -o " + at(out, std::string("o.") + ending)).code == 0);
    for (const auto& [option, words] : {std::pair{"--finish", "is not a finish file"},
                                        {"--profile", "is not a colour profile for pictures in colour"}}) {
        const auto ran = run_program(call + " " + option + " " + at(folder, "f1.tif") + " -o " + at(out, "none.tif"));
        CHECK(ran.code == 3);
        CHECK(ran.error.find("f1.tif " + std::string(words)) != std::string::npos);
    }
    CHECK_FALSE(fs::exists(out / "none.tif"));
}

TEST_CASE("killed at 200 random moments of saving and exporting: each file is the old one or the new one, whole") {
    const Folder folder, out;
    test::write_moving(folder, 3, {160, 120}, {2, 1});
    const std::string frames = " " + at(folder, "f1.tif") + " " + at(folder, "f2.tif") + " " + at(folder, "f3.tif");
    const auto call = [&](const char* mode) {
        return "merge --quiet --mode " + std::string(mode) + " --pile " + at(out, "p.pile") + " -o " +
               at(out, "o.tif") + frames;
    };
    // What each of the two modes leaves when it is let to its end.
    const std::array<const char*, 2> both{"maximum", "minimum"};
    std::array<std::string, 2> pictures, piles;
    double seconds = 0;
    for (std::size_t i = 0; i < 2; ++i) {
        const auto begin = std::chrono::steady_clock::now();
        REQUIRE(run_program(call(both[i])).code == 0);
        seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
        pictures[i] = test::bytes_of(out / "o.tif");
        piles[i] = test::bytes_of(out / "p.pile");
    }
    REQUIRE(pictures[0] != pictures[1]);
    std::mt19937 dice(7);
    std::uniform_real_distribution<double> share(0.3, 1.05);
    int killed = 0, left_beside = 0;
    for (int i = 0; i < 200; ++i) {
        const auto ran = run_program(call(both[std::size_t(i % 2)]),
                                     "timeout -s KILL " + std::to_string(share(dice) * seconds) + " ");
        const bool was_killed = ran.code != 0;
        killed += was_killed ? 1 : 0;
        // How long a run takes changes with what else the machine does: a run that got to its end says that the moments
        // lie too late. Two in three are killed so, most of them while they write.
        seconds *= was_killed ? 1.02 : 0.96;
        const std::string picture = test::bytes_of(out / "o.tif");
        const std::string pile = test::bytes_of(out / "p.pile");
        INFO("kill " << i);
        REQUIRE((picture == pictures[0] || picture == pictures[1]));
        REQUIRE((pile == piles[0] || pile == piles[1]));
        left_beside += int(out.names().size()) - 2;
    }
    CHECK(killed > 50);
    // Between the moments in which a file gets its name and takes the other's place there is hardly time to be killed;
    // on a busy machine a little more. What stayed behind for good would be counted from then on every time.
    CHECK(left_beside < killed / 4);
    REQUIRE(run_program(call("maximum")).code == 0);
    CHECK(out.names() == std::vector<std::string>{"o.tif", "p.pile"});
}

TEST_CASE("a full disk leaves the old pile whole, too") {
    const Folder folder, out;
    test::write_moving(folder, 3, {160, 120}, {2, 1});
    const std::string call = "merge --quiet --pile " + at(out, "p.pile") + " " + folder.path().string();
    REQUIRE(run_program(call).code == 0);
    const std::string before = test::bytes_of(out / "p.pile");
    const auto ran = run_program(call + " --mode mean", "trap '' XFSZ; ulimit -f 0; ");
    CHECK(ran.code != 0);
    CHECK(test::bytes_of(out / "p.pile") == before);
    CHECK(out.names() == std::vector<std::string>{"p.pile"});
}
