#include <sys/resource.h>

#include <catch2/catch.hpp>
#include <fstream>
#include <functional>
#include <map>
#include <nlohmann/json.hpp>

#include "engine/open.h"
#include "engine/relink.h"
#include "image/known_profiles.h"
#include "parts/brush.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/part_edits.h"
#include "pile/schema.h"
#include "pile/streak_edits.h"
#include "pile/zip.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;
using nlohmann::json;

namespace {

Pile rich_pile(const Folder& folder) {
    Pile pile = test::speckle_pile(folder, 3, {90, 70}, 8);
    const int one[] = {pile.frames[1].id};
    pile = with_aside(std::move(pile), one, true);
    pile = with_strength(std::move(pile), one, 0.25);
    Alignment a;
    a.to_reference = Matrix::rigid(0.01, {4, 5}, 1.5, -2);
    a.residual_px = 0.07;
    a.confidence = 0.9;
    pile = with_alignments(pile, Model::rigid, pile.frames[0].id, {{pile.frames[2].id, a}});
    Look look;
    look.exposure_ev = 0.35;
    look.floor = 12;
    pile = with_look(std::move(pile), look);
    look.pale_colours = -20;
    pile = with_own_look(std::move(pile), one, look);
    pile = with_gains(std::move(pile), Levelling::colour, {{pile.frames[2].id, LightGains{{1.1, 1, 0.93}, false}}});
    pile = with_gain_by_person(std::move(pile), pile.frames[1].id, -0.5);
    pile = with_hot_pixels(std::move(pile), std::make_shared<const HotPixels>(HotPixels{{4, 5}, {60, 33}}));
    pile = with_darks(std::move(pile), Darks::on);
    pile = with_spot(std::move(pile), {{20, 21}, 3, {16, 17, 9, 9}, std::make_shared<const Raster16>([] {
                                           Raster16 passes({9, 9}, 1);
                                           for (std::uint16_t& v : passes.data()) v = 40000;
                                           return passes;
                                       }())});
    Mask sky(pile.size);
    sky.edit({0, 0, 90, 30}, [](int, int, std::uint8_t) { return std::uint8_t{255}; });
    pile = with_zones(std::move(pile), sky);
    Alignment bent = a;
    bent.flex = std::make_shared<const Flex>(Flex::Grid{{-1.5, 2}, 32, 3, 2}, std::vector<float>{0, 1, 2, 3, 4, 0.5F},
                                             std::vector<float>{1, 1, 0, 0, -1, 0.25F});
    pile = with_alignments(std::move(pile), Model::flex, pile.frames[0].id, {{pile.frames[2].id, bent}}, Zone::land);
    pile = with_crop(std::move(pile), Rect{3, 4, 70, 50});
    auto [with, part] = with_new_part(std::move(pile), one[0]);
    Stroke stroke(with.parts[0].mask, {30, 0.5, 0.8, true});
    stroke.extend({40, 30});
    stroke.extend({60, 40});
    with = with_part_mask(std::move(with), part, stroke.mask());
    with = with_part_name(std::move(with), part, "gull on the mole");
    auto [more, hidden] = with_new_part(std::move(with), one[0]);
    more = with_part_on(std::move(more), hidden, false);
    more = with_mode(std::move(more), Mode::median);
    more.light = Light::encoded;
    more = with_canvas(std::move(more), {Rect{-20, -10, 160, 110}, {0.125, 0, 1}});
    more.cover = Cover::any;
    more.outcome = Outcome::quiet;
    more.exporting = {".jpg", 8, 77, ExportProfile::file, Profile::linear_srgb(), 1600, 40, false, "{pile} {width}"};
    more.also = {{".ora", 16, 92, ExportProfile::own, {}, 0, 0, true, ""}, more.exporting};
    more.also[1].from_file = known_profile(KnownProfile::rec2020);
    more.growth = {".webm", 30, 4.5, 1, 720, 60};
    more = with_turn(std::move(more), -2.25);
    more = with_note(std::move(more), 1, "first light");
    return more;
}

Bytes bytes_in(const std::string& text) {
    return Bytes(text.begin(), text.end());
}

void write_pieces(const fs::path& file, const Pieces& pieces) {
    const Bytes bytes = zipped(pieces).value();
    REQUIRE(write_bytes(file, {reinterpret_cast<const char*>(bytes.data()), bytes.size()}).ok());
}

// As another program, or a fault on the disk, might leave it.
void save_changed(const Pile& pile, const fs::path& file, const std::function<void(json&)>& change) {
    REQUIRE(save_pile(pile, file).ok());
    Pieces pieces = read_zip(file, 1 << 30).value();
    json in = json::parse(pieces["pile.json"]);
    change(in);
    pieces["pile.json"] = bytes_in(in.dump());
    write_pieces(file, pieces);
}

}  // namespace

TEST_CASE("a pile is never written over one of its frames, by whatever link") {
    const Folder folder;
    const Pile pile = test::speckle_pile(folder, 2, {40, 30}, 16);
    const fs::path frame = pile.frames[1].file->path;
    const std::string before = test::bytes_of(frame);
    fs::create_symlink(frame, folder / "night.pile");
    const Status saved = save_pile(pile, folder / "night.pile");
    REQUIRE_FALSE(saved.ok());
    CHECK(saved.failure().sentence.english().find("Originals are never written over") != std::string::npos);
    CHECK(test::bytes_of(frame) == before);
    fs::remove(folder / "night.pile");
    CHECK(save_pile(pile, folder / "night.pile").ok());
}

TEST_CASE("a saved pile is the same pile when it is opened") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().missing.empty());
    CHECK(loaded.value().changed.empty());
    CHECK(loaded.value().remarks.empty());
    CHECK(loaded.value().pile == pile);
    REQUIRE(save_pile(loaded.value().pile, folder / "b.pile").ok());
    CHECK(test::bytes_of(folder / "a.pile") == test::bytes_of(folder / "b.pile"));
}

namespace {

// Every value of it away from where it begins.
Look look_of_all() {
    Look out;
    for (const LookValue& v : look_values()) out.*v.value = v.least + 0.75 * (v.most - v.least);
    return out;
}

// What rich_pile() has as it begins.
Pile with_the_rest(Pile pile) {
    pile.profile = Profile::linear_srgb();
    pile.balance = WhiteBalance{2, 1, 1.5F};
    for (const Zone zone : both_zones) {
        auto& place = pile.frames[2].places[zone];
        if (!place) place.emplace();
        place->insisted = place->by_clock = place->by_hand = true;
        place->aligned = false;
    }
    FrameStreak streak{StreakKind::meteor, 3, {{4, 5}, {40, 30}, 2.5, 900, 0.1, 0.8, 0.7}, true, false};
    pile.frames[2].streaks = {streak};
    pile.frames[2].silence = silence_of(pile.frames[2], pile.size);
    pile.parts[0].look = look_of_all();
    Finish& finish = pile.finish;
    finish.look = look_of_all();
    finish.detail = {80, 1.1, 40, 10, 30, 20, 15, 25, 35, -20};
    finish.give_back = true;
    finish.tints.bright_hue = 210;
    finish.curves.red.points = finish.curves.green.points = finish.curves.blue.points = {{0, 0}, {0.4, 0.5}, {1, 1}};
    FinishPlace place;
    place.id = 1;
    place.name = "the far shore";
    place.shape = DrawnShape{ShapeKind::ramp, {3, 4}, {40, 50}, 6};
    place.soft = 0.25;
    place.mask = Mask(pile.size);
    place.look = look_of_all();
    place.detail = finish.detail;
    finish.places = {place};
    Mended mended;
    mended.id = 1;
    mended.way = {{20, 20}};
    mended.from = {25, 4};
    mended.on = false;
    finish.mended = {mended};
    return pile;
}

void keep_in_corpus(const Pile& pile, const Folder& folder, const std::string& name) {
    const fs::path file = SOURCE_DIR "/tests/piles/" + name;
    if (fs::exists(file)) return;
    const Status saved = save_pile(pile, folder / "p.pile");
    if (!saved.ok()) FAIL(saved.failure().english());
    REQUIRE(fs::copy_file(folder / "p.pile", file));
}

}  // namespace

// Asked for by its name when the corpus is to grow: what is in it already is not written again.
TEST_CASE("piles of everything for the corpus", "[.corpus]") {
    const Folder folder, grey;
    const Pile pile = rich_pile(folder);
    keep_in_corpus(pile, folder, "everything.pile");
    keep_in_corpus(with_the_rest(pile), folder, "the-rest.pile");
    keep_in_corpus(test::speckle_pile(grey, 3, {90, 70}, 16, 1), grey, "grey.pile");
}

TEST_CASE("a pile and its frames may move together") {
    const Folder folder;
    fs::create_directory(folder / "here");
    for (int i = 1; i <= 2; ++i)
        test::write(folder / ("here/f" + std::to_string(i) + ".png"), test::speckle_8({20, 20}, 3, unsigned(i)), 8);
    Pile pile;
    pile.size = {20, 20};
    for (int i = 1; i <= 2; ++i) {
        Frame frame;
        frame.id = i;
        frame.file =
            std::make_shared<FrameFile>(read_frame_file(folder / ("here/f" + std::to_string(i) + ".png")).value());
        pile.frames.push_back(frame);
    }
    pile.reference = pile.base = 1;
    REQUIRE(save_pile(pile, folder / "here/p.pile").ok());
    fs::rename(folder / "here", folder / "there");
    const Result<LoadedPile> loaded = load_pile(folder / "there/p.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().missing.empty());
}

TEST_CASE("missing and changed frames are told, take no part, and can be pointed to anew") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const fs::path moved = folder / "moved";
    fs::create_directory(moved);
    fs::rename(folder / "frame-1.tif", moved / "other name.tif");
    test::write(folder / "frame-3.tif", test::speckle_8({90, 70}, 3, 999), 8);
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().missing == std::vector<int>{1});
    CHECK(loaded.value().changed == std::vector<int>{3});
    const Pile& hurt = loaded.value().pile;
    CHECK(hurt.frames[0].problem.english().find("frame-1.tif") == 0);
    CHECK_FALSE(merged(hurt, hurt.frames[0]));
    CHECK(hurt.frames[0].file->hash == pile.frames[0].file->hash);

    Job job;
    const Result<Relinked> found = relink(hurt, moved, job);
    REQUIRE(found.ok());
    CHECK(found.value().files.size() == 1);
    CHECK(found.value().still_missing == 1);
    const Pile nearly = with_files(hurt, found.value().files);
    CHECK(usable(nearly.frames[0]));
    CHECK_FALSE(usable(nearly.frames[2]));
    // The changed one is taken when the person points to its folder, or takes it as it is.
    for (const Result<Relinked>& both : {relink(nearly, folder.path(), job), take_changed(nearly, job)}) {
        REQUIRE(both.ok());
        CHECK(both.value().still_missing == 0);
        CHECK(usable(with_files(nearly, both.value().files).frames[2]));
    }
    // Nothing is given to a frame that has none to find, or is no more in the pile.
    CHECK(with_files(pile, found.value().files) == pile);
}

TEST_CASE("what is no pile is refused with a sentence") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const std::string bytes = test::bytes_of(folder / "a.pile");
    const auto refused = [&](const std::string& name) {
        const Result<LoadedPile> loaded = load_pile(folder / name);
        REQUIRE_FALSE(loaded.ok());
        CHECK(loaded.failure().fault == Fault::input);
        CHECK(loaded.failure().english().find(name) == 0);
    };
    const auto put = [&](const std::string& name, const std::string& what) {
        std::ofstream(folder / name, std::ios::binary) << what;
    };
    put("text.pile", "not a zip at all");
    refused("text.pile");
    put("cut.pile", bytes.substr(0, bytes.size() / 2));
    refused("cut.pile");
    put("empty.pile", "");
    refused("empty.pile");
    refused("missing.pile");

    write_pieces(folder / "nojson.pile", {{"other.txt", bytes_in("x")}});
    refused("nojson.pile");
    write_pieces(folder / "broken.pile", {{"pile.json", bytes_in("{\"format\": ")}});
    refused("broken.pile");
    write_pieces(folder / "lacks.pile", {{"pile.json", bytes_in("{\"format\": \"bright-pile\"}")}});
    refused("lacks.pile");
    for (const auto& [name, change] : std::map<std::string, std::function<void(json&)>>{
             {"newer.pile", [](json& j) { j["version"] = 99; }},
             {"other.pile", [](json& j) { j["format"] = "another"; }},
             {"huge.pile",
              [](json& j) {
                  j["size"] = {2000000000, 10};
              }},
             {"negative.pile",
              [](json& j) {
                  j["size"] = {10, -5};
              }},
             {"types.pile", [](json& j) { j["frames"] = "none"; }},
             {"empty-run.pile", [](json& j) { j["frames"] = json::array(); }}}) {
        save_changed(pile, folder / name, change);
        refused(name);
    }
    CHECK_FALSE(read_zip(folder / "a.pile", 100).ok());
}

TEST_CASE("what in a pile cannot be read or cannot be true is left out with a sentence, and the pile opens") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    const std::string second = pile.frames[1].file->path.filename().string();
    struct Case {
        std::string name;
        std::function<void(json&)> change;
        std::string said;
        std::function<bool(const Pile&)> holds;
    };
    const json place{{"residual_px", 0}, {"confidence", 1}, {"aligned", true}};
    const auto placed = [&](const json& matrix) {
        return [place, matrix](json& j) {
            j["frames"][1]["places"]["sky"] = place;
            j["frames"][1]["places"]["sky"]["to_reference"] = matrix;
        };
    };
    const auto not_merged = [](const Pile& p) { return p.frames.size() == 3 && !p.frames[1].places.sky->aligned; };
    const std::vector<Case> cases{
        {"flat", placed({0, 0, 0, 0, 0, 0, 0, 0, 1}), second, not_merged},
        {"far", placed({1, 0, 1e300, 0, 1, 0, 0, 0, 1}), second, not_merged},
        {"null", placed({1, 0, nullptr, 0, 1, 0, 0, 0, 1}), second, not_merged},
        {"not normalised", placed({2, 0, 0, 0, 2, 0, 0, 0, 2}), second, not_merged},
        {"short flex", [](json& j) { j["frames"][2]["places"]["land"]["flex"].erase("columns"); }, "frame-3.tif",
         [](const Pile& p) { return p.frames[2].places.land && !p.frames[2].places.land->aligned; }},
        {"twice", [](json& j) { j["frames"][1]["id"] = j["frames"][0]["id"]; }, second,
         [](const Pile& p) { return p.frames.size() == 2; }},
        {"no path", [](json& j) { j["frames"][1]["file"].erase("path"); }, "left out",
         [](const Pile& p) { return p.frames.size() == 2; }},
        {"strength", [](json& j) { j["frames"][1]["strength"] = 7; }, "strength",
         [](const Pile& p) { return p.frames[1].strength == 1; }},
        {"look", [](json& j) { j["look"]["deep"] = "much"; }, "deep", [](const Pile& p) { return p.look.floor == 12; }},
        {"level", [](json& j) { j["frames"][2]["gains"]["gain"][0] = 0; }, "gain",
         [](const Pile& p) { return p.frames[2].gains == LightGains{}; }},
        {"mode", [](json& j) { j["methods"]["sky"]["mode"] = "sparkle"; }, "mode",
         [](const Pile& p) { return p.methods.sky.mode == Mode::lighten && p.light == Light::encoded; }},
        {"spot",
         [](json& j) {
             j["spots"][0]["area"] = {80, 60, 90, 90};
         },
         "spot", [](const Pile& p) { return !p.spots; }},
        {"hot",
         [](json& j) {
             j["hot_pixels"][0] = {900, 5};
         },
         "hot_pixels", [](const Pile& p) { return !p.hot; }},
        {"places", [](json& j) { j["frames"][1]["places"] = 7; }, second, not_merged},
        {"canvas",
         [](json& j) {
             j["canvas"]["area"] = {0, 0, 0, 5};
         },
         "area", [](const Pile& p) { return !p.canvas.area && p.canvas.background[2] == 1; }},
        {"crop",
         [](json& j) {
             j["crop"] = {80, 60, 90, 90};
         },
         "crop", [](const Pile& p) { return !p.crop; }},
        {"mask", [](json& j) { j["parts"][0]["mask"]["left"] = 1e9; }, "mask",
         [](const Pile& p) { return p.parts.size() == 2 && p.parts[0].mask.empty(); }},
        {"lost mask", [](json& j) { j["parts"][0]["mask"]["file"] = "masks/none.png"; }, "mask",
         [](const Pile& p) { return p.parts[0].mask.empty(); }},
        {"colours", [](json& j) { j["finish"]["colours"] = json::array({7}); }, "range of colours",
         [](const Pile& p) { return p.finish.colours.empty(); }},
        {"exports", [](json& j) { j["also"] = json::array({7}); }, "picture of the export",
         [](const Pile& p) { return p.also.empty(); }},
        {"part of nobody", [](json& j) { j["parts"][0]["frame"] = 99; }, "gull on the mole",
         [](const Pile& p) { return p.parts.size() == 1; }},
        {"sky", [](json& j) { j["zones"]["sky"]["file"] = 3; }, "sky",
         [](const Pile& p) { return p.zones && p.zones->sky.empty(); }},
        {"zones", [](json& j) { j["zones"] = "none"; }, "zones", [](const Pile& p) { return !p.zones; }},
        {"reference", [](json& j) { j["reference"] = 99; }, "reference",
         [](const Pile& p) { return p.reference == p.frames[0].id; }},
        {"profile", [](json& j) { j["profile"] = "none.icc"; }, "profile",
         [](const Pile& p) { return p.profile.is_srgb(); }}};
    for (const Case& c : cases) {
        INFO(c.name);
        const fs::path file = folder / (c.name + ".pile");
        save_changed(pile, file, c.change);
        const Result<LoadedPile> loaded = load_pile(file);
        REQUIRE(loaded.ok());
        REQUIRE_FALSE(loaded.value().remarks.empty());
        INFO(loaded.value().remarks[0].english());
        CHECK(loaded.value().remarks[0].english().find(c.said) != std::string::npos);
        CHECK(c.holds(loaded.value().pile));
        // What was left is whole: it is saved and opened without a word.
        REQUIRE(save_pile(loaded.value().pile, file).ok());
        CHECK(load_pile(file).value().remarks.empty());
    }
}

TEST_CASE("a pile of the first version opens as what it was") {
    const Folder folder;
    Pile pile = with_canvas(rich_pile(folder), {});
    save_changed(pile, folder / "old.pile", [](json& j) {
        j["version"] = 1;
        j["model"] = "rigid";
        j["merge"] = {{"mode", "median"}, {"light", "encoded"}};
        j["zones"]["land_model"] = "flex";  // its mode is the usual one, so nothing is said of it
        for (json& frame : j["frames"]) {
            if (frame.contains("gains")) frame["level"] = frame["gains"];
            frame.erase("gains");
            if (!frame.contains("places")) continue;
            if (frame["places"].contains("sky")) frame["alignment"] = frame["places"]["sky"];
            if (frame["places"].contains("land")) frame["on_land"] = frame["places"]["land"];
            frame.erase("places");
        }
        for (const char* name : {"methods", "light"}) j.erase(name);
    });
    const Result<LoadedPile> loaded = load_pile(folder / "old.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().remarks.empty());
    CHECK(loaded.value().pile == pile);
    // Nonsense in it is told as in any other.
    for (const auto& [change, said] :
         std::vector<std::pair<std::function<void(json&)>, std::string>>{{[](json& j) { j["merge"] = 3; }, "new pile"},
                                                                         {[](json& j) {
                                                                              j["zones"] = {1, 2};
                                                                          },
                                                                          "zones"},
                                                                         {[](json& j) {
                                                                              j["frames"] = {5, {{"alignment", true}}};
                                                                          },
                                                                          ""}}) {
        save_changed(pile, folder / "odd.pile", [&](json& j) {
            j["version"] = 1;
            change(j);
        });
        const Result<LoadedPile> odd = load_pile(folder / "odd.pile");
        CHECK(odd.ok() == (said != ""));
    }
}

TEST_CASE("parts of every edge, join and place that were written by hand show as those that were set by hand") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 5, {120, 90}, 8);
    pile.methods.sky.mode = Mode::median;
    for (int k = 0; k < 4; ++k) {
        int part = 0;
        std::tie(pile, part) = with_new_part(std::move(pile), pile.frames[std::size_t(k)].id);
        Mask mask(pile.size);
        mask.edit({10 + 20 * k, 15 + 8 * k, 40, 40}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
        pile = with_part_mask(std::move(pile), part, mask);
    }
    save_changed(pile, folder / "a.pile", [](json& j) {
        j["parts"][0]["edge"] = "seam";
        j["parts"][0]["band_px"] = 12;
        j["parts"][1]["edge"] = "blended";
        j["parts"][1]["join"] = "lighter";
        j["parts"][2]["join"] = "darker";
        j["parts"][2]["place"] = {{"moved_px", {20, -5}}, {"turn_degrees", 30}, {"scale", 1.5}, {"mirrored", true}};
        j["parts"][3]["join"] = "add";
        j["parts"][3]["look"] = {{"exposure_ev", -0.5}};
        j["canvas"] = {{"area", {-20, -10, 170, 120}}, {"measure", "mm"}, {"dpi", 240}};
        j["cover"] = "any";
    });
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().remarks.empty());
    Pile set = pile;
    set = with_part_band(with_part_edge(std::move(set), pile.parts[0].id, Edge::seam), pile.parts[0].id, 12);
    set = with_part_join(with_part_edge(std::move(set), pile.parts[1].id, Edge::blended), pile.parts[1].id,
                         Join::lighter);
    set = with_part_place(with_part_join(std::move(set), pile.parts[2].id, Join::darker), pile.parts[2].id,
                          PartPlace{{20, -5}, 30, 1.5, true});
    Look darker;
    darker.exposure_ev = -0.5;
    set = with_part_look(with_part_join(std::move(set), pile.parts[3].id, Join::add), pile.parts[3].id, darker);
    set = with_canvas(std::move(set), {Rect{-20, -10, 170, 120}, {}, Measure::mm, 240});
    set.cover = Cover::any;
    CHECK(loaded.value().pile == set);
    CHECK(test::difference(test::render_all(loaded.value().pile).value(), test::render_all(set).value()) == "");
    CHECK(test::difference(test::render_all(set).value(), test::render_all(pile).value()) != "");
}

TEST_CASE("a pile that could not be opened again is not written, and the old one stays") {
    const Folder folder;
    Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const std::string before = test::bytes_of(folder / "a.pile");
    // As no edit gives it.
    pile.frames[2].places.sky->residual_px = std::nan("");
    const Status saved = save_pile(pile, folder / "a.pile");
    REQUIRE_FALSE(saved.ok());
    CHECK(saved.failure().fault == Fault::output);
    CHECK(saved.failure().english().find("a.pile was not written") != std::string::npos);
    CHECK(test::bytes_of(folder / "a.pile") == before);
    pile = rich_pile(folder);
    pile.reference = 77;
    CHECK_FALSE(save_pile(pile, folder / "a.pile").ok());
    CHECK(test::bytes_of(folder / "a.pile") == before);
}

TEST_CASE("frames of 3000 x 2000 pixels that were tilted at a smaller size are saved and opened equal") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 2, {90, 70}, 8);
    pile.size = {3000, 2000};
    const Matrix small({1.002, 0.004, 1.5, -0.003, 0.998, -2.5, 1.5e-5, -2e-5, 1});
    Alignment tilted;
    tilted.to_reference = from_level(small, 2);
    pile = with_alignments(std::move(pile), Model::perspective, 1, {{1, Alignment{}}, {2, tilted}});
    pile = with_reference(std::move(pile), 2);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().remarks.empty());
    CHECK(loaded.value().pile.frames[0].places.sky == pile.frames[0].places.sky);
    CHECK(loaded.value().pile.frames[1].places.sky == pile.frames[1].places.sky);
}

TEST_CASE("frames are found through linked folders, and wherever the pile was moved to") {
    const Folder folder;
    fs::create_directories(folder / "disk/evening");
    fs::create_directories(folder / "disk/frames");
    for (int i = 1; i <= 2; ++i)
        test::write(folder / ("disk/frames/f" + std::to_string(i) + ".png"), test::speckle_8({20, 20}, 3, unsigned(i)),
                    8);
    fs::create_directory_symlink(folder / "disk/evening", folder / "desk");
    Job job;
    const Pile pile = open_frames({{folder / "disk/frames/f1.png"}, {folder / "disk/evening/../frames/f2.png"}},
                                  Outcome::trails, Order::given, job)
                          .value();
    REQUIRE(save_pile(pile, folder / "desk/p.pile").ok());
    CHECK(load_pile(folder / "desk/p.pile").value().missing.empty());
    CHECK(load_pile(folder / "disk/evening/p.pile").value().missing.empty());
    // The pile alone is moved: frames are known from the root, too.
    fs::create_directories(folder / "elsewhere/deep");
    fs::copy_file(folder / "desk/p.pile", folder / "elsewhere/deep/p.pile");
    CHECK(load_pile(folder / "elsewhere/deep/p.pile").value().missing.empty());
    // Both are moved together.
    fs::rename(folder / "disk", folder / "other");
    CHECK(load_pile(folder / "other/evening/p.pile").value().missing.empty());
}

TEST_CASE("a changed frame stays changed when the pile is saved and opened, until a person takes it") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    test::write(folder / "frame-3.tif", test::speckle_8({90, 70}, 3, 999), 8);
    Pile hurt = load_pile(folder / "a.pile").value().pile;
    for (int i = 0; i < 2; ++i) {
        CHECK(hurt.frames[2].changed);
        CHECK_FALSE(usable(hurt.frames[2]));
        REQUIRE(save_pile(hurt, folder / "a.pile").ok());
        const LoadedPile again = load_pile(folder / "a.pile").value();
        CHECK(again.changed == std::vector<int>{3});
        hurt = again.pile;
    }
    const Pile taken =
        with_file(hurt, 3, std::make_shared<const FrameFile>(read_frame_file(folder / "frame-3.tif").value()));
    CHECK(usable(taken.frames[2]));
    REQUIRE(save_pile(taken, folder / "a.pile").ok());
    CHECK(load_pile(folder / "a.pile").value().changed.empty());
}

TEST_CASE("a piece that claims gigabytes takes no memory for them") {
    const Folder folder;
    REQUIRE(save_pile(rich_pile(folder), folder / "a.pile").ok());
    std::string bytes = test::bytes_of(folder / "a.pile");
    // The size before packing, in the list at the archive's end and at each piece: 4 bytes, 22 or 24 after the mark.
    int changed = 0;
    for (const auto& [mark, offset] : {std::pair{std::string("PK\x03\x04", 4), 22}, {std::string("PK\x01\x02", 4), 24}})
        for (std::size_t at = bytes.find(mark); at != std::string::npos; at = bytes.find(mark, at + 1), ++changed)
            for (std::size_t i = 0; i < 4; ++i) bytes[at + std::size_t(offset) + i] = char(i == 3 ? 0xE0 : 0);
    REQUIRE(changed >= 2);
    std::ofstream(folder / "b.pile", std::ios::binary) << bytes;
    rusage usage{};
    ::getrusage(RUSAGE_SELF, &usage);
    const long peak_before = usage.ru_maxrss;
    CHECK_FALSE(load_pile(folder / "b.pile").ok());
    ::getrusage(RUSAGE_SELF, &usage);
    CHECK(usage.ru_maxrss - peak_before < 200 * 1024);
}

TEST_CASE("frames of any name are saved and found: not UTF-8, with line ends and per cent signs, and long") {
    const Folder folder;
    const std::vector<std::string> names{"m\xf6we.png", "two\nlines.png", "100%41.png", std::string(251, 'x') + ".png",
                                         "g\xc3\xbcl \xe2\x98\x83.png"};
    std::vector<NamedFile> files;
    unsigned n = 0;
    for (const std::string& name : names) {
        test::write(folder / "plain.png", test::speckle_8({20, 10}, 3, ++n), 8);
        fs::rename(folder / "plain.png", folder / name);
        files.push_back({folder / name});
    }
    Job job;
    const Pile pile = open_frames(files, Outcome::trails, Order::given, job).value();
    REQUIRE(save_pile(pile, folder / "p.pile").ok());
    const LoadedPile loaded = load_pile(folder / "p.pile").value();
    CHECK(loaded.missing.empty());
    CHECK(loaded.pile == pile);
}

TEST_CASE("a pile that cannot be saved leaves the old one whole") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const std::string before = test::bytes_of(folder / "a.pile");
    CHECK_FALSE(save_pile(pile, folder / "no/such/b.pile").ok());
    REQUIRE(save_pile(with_mode(pile, Mode::mean), folder / "a.pile").ok());
    CHECK(test::bytes_of(folder / "a.pile") != before);
    for (const std::string& name : folder.names()) CHECK(name.find("partial") == std::string::npos);
}

TEST_CASE("the schema in docs is what the tables of fields say, and a saved pile keeps to it") {
    std::ifstream in(SOURCE_DIR "/docs/pile.schema.json", std::ios::binary);
    const std::string written((std::istreambuf_iterator<char>(in)), {});
    CHECK((written == pile_schema()));  // scripts/schema writes it anew
    const json schema = json::parse(written);
    const Folder folder;
    REQUIRE(save_pile(rich_pile(folder), folder / "a.pile").ok());
    const Pieces pieces = read_zip(folder / "a.pile", 1 << 30).value();
    int checked = 0;
    const std::function<void(const json&, const json&, const std::string&)> check =
        [&](const json& value, const json& rule, const std::string& where) {
            INFO(where);
            ++checked;
            if (rule.contains("enum")) CHECK(std::count(rule["enum"].begin(), rule["enum"].end(), value) == 1);
            if (rule.contains("minimum")) CHECK(value.get<double>() >= rule["minimum"].get<double>());
            if (rule.contains("maximum")) CHECK(value.get<double>() <= rule["maximum"].get<double>());
            if (rule.value("type", "") == "array") {
                REQUIRE(value.is_array());
                for (const json& item : value) check(item, rule["items"], where + "[]");
            }
            if (!value.is_object()) return;
            REQUIRE(rule.contains("properties"));
            for (const auto& [name, inner] : value.items()) {
                INFO(name);
                REQUIRE(rule["properties"].contains(name));
                check(inner, rule["properties"][name], where + "." + name);
            }
            for (const auto& name : rule.value("required", json::array()))
                CHECK(value.contains(name.get<std::string>()));
        };
    check(json::parse(pieces.at("pile.json")), schema, "pile");
    CHECK(checked > 100);
}
