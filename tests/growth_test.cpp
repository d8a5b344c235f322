// The picture as it comes into being: every state of it, and the files that show it.
#include "engine/growth.h"

#include <catch2/catch.hpp>
#include <opencv2/core.hpp>
#include <opencv2/videoio.hpp>

#include "engine/grown_rows.h"
#include "engine/open.h"
#include "engine/render.h"
#include "engine/resizing.h"
#include "image/known_profiles.h"
#include "io/gather.h"
#include "io/reader.h"
#include "pile/edits.h"
#include "pile/finish_edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

namespace {

constexpr std::size_t plenty = std::size_t(1) << 30;

// All states of a base, grown `together` at a time.
std::vector<Raster16> grown_states(const Pile& pile, const Rect& region, int together) {
    FrameStore store(working_space(pile), {0, plenty});
    Job job;
    Grown grown(pile, region, 0, nullptr);
    const int count = int(growing_ids(pile).size());
    std::vector<Raster16> out;
    for (int from = 0; from < count; from += together) {
        std::vector<int> until;
        for (int k = from + 1; k <= std::min(count, from + together); ++k) until.push_back(k);
        Result<std::vector<Raster16>> made = grown.next(until, store, job);
        REQUIRE(made.ok());
        for (Raster16& one : made.value()) out.push_back(std::move(one));
    }
    return out;
}

// The same by setting the later frames aside.
Raster16 with_first(const Pile& pile, const Rect& region, int frames) {
    std::vector<int> later = growing_ids(pile);
    later.erase(later.begin(), later.begin() + frames);
    FrameStore store(working_space(pile), {0, plenty});
    Job job;
    return composed(with_aside(pile, later, true), store, region, 0, job).value();
}

struct ReadBack {
    int pictures = 0;
    double rate = 0;
    cv::Mat last;
};
ReadBack read_back(const fs::path& file) {
    cv::VideoCapture clip(file.string());
    ReadBack out;
    out.rate = clip.get(cv::CAP_PROP_FPS);
    for (cv::Mat picture; clip.read(picture); ++out.pictures) out.last = picture.clone();
    return out;
}

}  // namespace

TEST_CASE(
    "every state of a growing picture is that of its frames so far, in every mode, however many are made together") {
    const Folder folder;
    const Size size{61, 47};
    const Pile plain = test::speckle_pile(folder, 6, size, 8);
    const Rect region{3, 2, 50, 40};
    for (const ModeEntry& entry : modes()) {
        if (entry.mode == Mode::one) continue;
        const Pile pile = with_mode(plain, entry.mode);
        CHECK(grows_by_one(pile) == (entry.shows_brightest() || entry.mode == Mode::minimum));
        for (const int together : {1, 4, 6}) {
            const std::vector<Raster16> states = grown_states(pile, region, together);
            REQUIRE(states.size() == 6);
            for (int k = 1; k <= 6; ++k) {
                INFO(entry.name << ", " << k << " frames, " << together << " together");
                CHECK(test::difference(states[std::size_t(k - 1)], with_first(pile, region, k)).empty());
            }
        }
    }
}

TEST_CASE("a growing picture ends as the picture: moved, in zones, faded, left out, by whole pixels") {
    const Folder folder;
    const Size size{70, 52};
    Pile pile = test::speckle_pile(folder, 5, size, 16);
    for (std::size_t k = 0; k < pile.frames.size(); ++k) {
        Alignment there;
        there.to_reference = Matrix::shift(1.3 * double(k), -0.7 * double(k));
        pile.frames[k].places.sky = there;
    }
    pile.methods.sky.model = Model::shift;
    pile.cover = Cover::any;
    const Rect canvas = whole(size);
    const auto ends_alike = [&](const Pile& of) {
        const std::vector<Raster16> states = grown_states(of, canvas, 2);
        FrameStore store(working_space(of), {0, plenty});
        Job job;
        return test::difference(states.back(), composed(of, store, canvas, 0, job).value());
    };
    CHECK(ends_alike(pile).empty());
    Pile faded = pile;
    Taper taper;
    taper.end = TaperEnd::old_one;
    taper.over = 0.8;
    faded = with_taper(std::move(faded), taper);
    CHECK(ends_alike(faded).empty());
    Mask hidden(size);
    hidden.edit({10, 5, 30, 30}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    std::vector<int> some{pile.frames[1].id, pile.frames[3].id};
    CHECK(ends_alike(with_left_out(pile, some, hidden)).empty());
    // Where nobody votes at all.
    CHECK(ends_alike(with_left_out(pile, growing_ids(pile), hidden)).empty());
    Pile by_pixel = pile;
    by_pixel.methods.sky.mode = Mode::maximum;
    by_pixel.methods.sky.by = By::pixel;
    CHECK(ends_alike(by_pixel).empty());
    Mask sky(size);
    sky.edit({0, 0, 70, 26}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    Pile divided = with_zones(pile, sky);
    divided.methods.land.mode = Mode::minimum;
    CHECK(ends_alike(divided).empty());
    divided.methods.land.mode = Mode::mean;
    CHECK(ends_alike(divided).empty());
}

TEST_CASE("a growth is planned by frames, seconds and pictures a second, and never enlarges") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 6, {300, 200}, 8);
    pile.growth = {".mp4", 10, 0, 2, 100, 80};
    GrowthPlan plan = growth_plan(pile);
    REQUIRE(plan.pictures.size() == 6);
    CHECK(plan.pictures.front().until == 1);
    CHECK(plan.pictures.back().until == 6);
    CHECK(plan.count() == 6 + 20);
    CHECK(plan.seconds == Approx(2.6));
    CHECK(plan.size == Size{150, 100});
    // Few pictures: several frames in one. Many: pictures stay.
    pile.growth.seconds = 0.3;
    pile.growth.hold_s = 0;
    plan = growth_plan(pile);
    REQUIRE(plan.pictures.size() == 3);
    CHECK(plan.pictures[0].until == 2);
    CHECK(plan.count() == 3);
    pile.growth.seconds = 2.4;
    plan = growth_plan(pile);
    REQUIRE(plan.pictures.size() == 6);
    CHECK(plan.count() == 24);
    pile.growth.lines = 2160;
    CHECK(growth_plan(pile).size == Size{300, 200});
    pile.exporting.long_edge_px = 90;
    CHECK(growth_plan(pile).size == Size{90, 60});
}

TEST_CASE("a growth is written as a clip that other libraries read, finished, and its parts come last") {
    const Folder folder, out;
    const Size size{160, 120};
    for (int k = 0; k < 4; ++k) {
        Raster16 picture = test::landscape(size, Matrix());
        for (int y = 20; y < 50; ++y)
            for (int x = 10 + 30 * k; x < 34 + 30 * k; ++x)
                for (int c = 0; c < 3; ++c) picture.at(x, y, c) = 60000;
        test::write(folder / ("g" + std::to_string(k) + ".png"), picture);
    }
    Job job;
    Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    Look look;
    look.exposure_ev = -0.5;
    pile = with_finish_look(std::move(pile), look);
    auto [with_part, part] = with_new_part(pile, pile.frames[2].id);
    Mask mask(size);
    mask.edit({100, 80, 40, 30}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    pile = with_part_mask(std::move(with_part), part, mask);
    pile.growth = {".mp4", 8, 0, 1, 120, 95};
    for (const char* name : {"g.mp4", "g.webm"}) {
        const GrownFile grown = export_growth(pile, out / name, {}, job).value();
        CHECK(grown.plan.pictures.size() == 5);
        const ReadBack back = read_back(out / name);
        CHECK(back.pictures == 5 + 8);
        CHECK(back.rate == Approx(8));
        REQUIRE(back.last.size() == cv::Size(size.width, size.height));
        const Raster16 whole_one = test::render_all(pile).value();
        double off = 0;
        for (int y = 0; y < size.height; ++y)
            for (int x = 0; x < size.width; ++x)
                for (int c = 0; c < 3; ++c)
                    off += std::abs(int(back.last.at<cv::Vec3b>(y, x)[2 - c]) - int(whole_one.at(x, y, c) / 257));
        // What an encoder of clips takes away; another look, or another order of colours, would be many times that.
        CHECK(off / (3.0 * size.width * size.height) < 4);
    }
}

TEST_CASE("numbered pictures go into a new folder, the last is the picture, and what was begun is taken back") {
    const Folder folder, out;
    Pile pile = test::speckle_pile(folder, 3, {64, 48}, 16);
    pile.growth = {"", 4, 0, 0.5, 2160, 80};
    Job job;
    REQUIRE(export_growth(pile, out / "growing", {}, job).ok());
    std::vector<std::string> names;
    for (const auto& one : fs::directory_iterator(out / "growing")) names.push_back(one.path().filename().string());
    std::sort(names.begin(), names.end());
    CHECK(names == std::vector<std::string>{"0001.png", "0002.png", "0003.png", "0004.png", "0005.png"});
    CHECK(test::difference(read_picture(out / "growing" / "0005.png").value(), test::render_all(pile).value()).empty());
    // Never mixed with what is there.
    const auto again = export_growth(pile, out / "growing", {}, job);
    REQUIRE_FALSE(again.ok());
    CHECK(again.failure().sentence.english().find("holds something already") != std::string::npos);
    // Stopped on the way.
    Job stopping([&](const Progress& p) {
        if (p.fraction > 0.6) stopping.stop();
    });
    CHECK_FALSE(export_growth(pile, out / "stopped", {}, stopping).ok());
    CHECK_FALSE(fs::exists(out / "stopped"));
    const auto no_clip = export_growth(pile, out / "growth.gif", {}, job);
    REQUIRE_FALSE(no_clip.ok());
    CHECK(no_clip.failure().fault == Fault::wrong_call);
}

TEST_CASE("a broken frame is left out of a growth, and grey frames grow, too") {
    const Folder folder, out;
    Pile pile = test::speckle_pile(folder, 4, {64, 48}, 8, 1);
    pile.growth = {".mp4", 4, 0, 0, 1080, 80};
    fs::resize_file(pile.frames[2].file->path, fs::file_size(pile.frames[2].file->path) / 2);
    Job job;
    const GrownFile grown = export_growth(pile, out / "grey.mp4", {}, job).value();
    CHECK_FALSE(usable(grown.pile.frames[2]));
    CHECK(read_back(out / "grey.mp4").pictures == 3);
}

TEST_CASE("a growth is never written over the clip that its frames come from") {
    const Folder folder;
    {
        cv::VideoWriter writer((folder / "run.mp4").string(), cv::VideoWriter::fourcc('m', 'p', '4', 'v'), 10,
                               cv::Size(64, 48));
        REQUIRE(writer.isOpened());
        for (int k = 0; k < 6; ++k) writer.write(cv::Mat(48, 64, CV_8UC3, cv::Scalar(20 * k, 90, 200)));
    }
    const std::string before = test::bytes_of(folder / "run.mp4");
    Job job;
    const Pile pile =
        open_frames(gather_run({(folder / "run.mp4").string()}).value(), Outcome::trails, Order::captured, job).value();
    REQUIRE(pile.frames.size() == 6);
    const auto over = export_growth(pile, folder / "run.mp4", {}, job);
    REQUIRE_FALSE(over.ok());
    CHECK(over.failure().sentence.english().find("Originals are never written over") != std::string::npos);
    CHECK(test::bytes_of(folder / "run.mp4") == before);
}
