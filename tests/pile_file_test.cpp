#include <sys/resource.h>

#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>

#include "engine/open.h"
#include "engine/relink.h"
#include "parts/brush.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/zip.h"
#include "support/fixtures.h"

using namespace bp;
using bp::test::Folder;

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
    look.vibrance = -20;
    pile = with_own_look(std::move(pile), one, look);
    pile = with_levels(std::move(pile), Levelling::colour, {{pile.frames[2].id, Level{{1.1, 1, 0.93}, false}}});
    pile = with_level_by_person(std::move(pile), pile.frames[1].id, -0.5);
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
    more.merge = {Mode::median, Light::encoded};
    more.cover = Cover::any;
    more.outcome = Outcome::quiet;
    more.exporting = {".jpg", 8, 77};
    return std::move(more);
}

// What a reader of the pile sees, without the addresses of shared files.
bool alike(Pile a, Pile b) {
    if (a.frames.size() != b.frames.size()) return false;
    for (std::size_t i = 0; i < a.frames.size(); ++i) {
        if (a.frames[i].file->path != b.frames[i].file->path || a.frames[i].file->hash != b.frames[i].file->hash)
            return false;
        a.frames[i].file = b.frames[i].file;
    }
    if (!a.hot || !b.hot || *a.hot != *b.hot) return false;
    a.hot = b.hot;
    if (!a.spots || !b.spots || *a.spots != *b.spots) return false;
    a.spots = b.spots;
    return a == b;
}

}  // namespace

TEST_CASE("a saved pile is the same pile when it is opened") {
    const Folder folder;
    const Pile pile = rich_pile(folder);
    REQUIRE(save_pile(pile, folder / "a.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "a.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().missing.empty());
    CHECK(loaded.value().changed.empty());
    CHECK(alike(loaded.value().pile, pile));
    REQUIRE(save_pile(loaded.value().pile, folder / "b.pile").ok());
    CHECK(test::bytes_of(folder / "a.pile") == test::bytes_of(folder / "b.pile"));
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
    CHECK(hurt.frames[0].problem.find("frame-1.tif") == 0);
    CHECK_FALSE(merged(hurt, hurt.frames[0]));
    CHECK(hurt.frames[0].file->hash == pile.frames[0].file->hash);

    Job job;
    const Result<Relinked> found = relink(hurt, moved, job);
    REQUIRE(found.ok());
    CHECK(found.value().found == 1);
    CHECK(found.value().still_missing == 1);
    CHECK(usable(found.value().pile.frames[0]));
    // The changed one is taken when the person points to its folder.
    const Result<Relinked> both = relink(found.value().pile, folder.path(), job);
    REQUIRE(both.ok());
    CHECK(both.value().still_missing == 0);
    CHECK(usable(both.value().pile.frames[2]));
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
        CHECK(loaded.failure().sentence.find(name) == 0);
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

    const auto text = [](const std::string& s) { return Bytes(s.begin(), s.end()); };
    REQUIRE(write_zip(folder / "nojson.pile", {{"other.txt", text("x")}}).ok());
    refused("nojson.pile");
    REQUIRE(write_zip(folder / "broken.pile", {{"pile.json", text("{\"format\": ")}}).ok());
    refused("broken.pile");
    REQUIRE(write_zip(folder / "lacks.pile", {{"pile.json", text("{\"format\": \"bright-pile\"}")}}).ok());
    refused("lacks.pile");

    Pieces pieces = read_zip(folder / "a.pile", 1 << 30).value();
    auto json = nlohmann::json::parse(pieces["pile.json"]);
    const auto with = [&](const std::string& name, const auto& change) {
        auto changed = json;
        change(changed);
        Pieces p = pieces;
        p["pile.json"] = text(changed.dump());
        REQUIRE(write_zip(folder / name, p).ok());
        refused(name);
    };
    with("newer.pile", [](auto& j) { j["version"] = 99; });
    with("huge.pile", [](auto& j) { j["width"] = 2000000000; });
    with("twice.pile", [](auto& j) { j["frames"][1]["id"] = j["frames"][0]["id"]; });
    const nlohmann::json place{{"residual_px", 0}, {"confidence", 1}, {"aligned", true}};
    const auto placed = [&](const nlohmann::json& matrix) {
        return [&place, matrix](auto& j) {
            j["frames"][1]["alignment"] = place;
            j["frames"][1]["alignment"]["to_reference"] = matrix;
        };
    };
    with("flat.pile", placed({0, 0, 0, 0, 0, 0, 0, 0, 1}));
    with("far.pile", placed({1, 0, 1e300, 0, 1, 0, 0, 0, 1}));
    with("bent.pile", placed({1, 0, 0, 0, 1, 0, 0.02, 0, 1}));
    with("negative.pile", [](auto& j) { j["height"] = -5; });
    with("types.pile", [](auto& j) { j["frames"] = "none"; });
    with("outside.pile", [](auto& j) { j["parts"][0]["mask"]["left"] = 1e9; });
    with("lost-mask.pile", [](auto& j) { j["parts"][0]["mask"]["file"] = "masks/none.png"; });
    CHECK_FALSE(read_zip(folder / "a.pile", 100).ok());
    Pieces damaged = pieces;
    damaged["profile.icc"] = text("no profile at all");
    REQUIRE(write_zip(folder / "profile.pile", damaged).ok());
    refused("profile.pile");
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

TEST_CASE("a frame whose name is not UTF-8 is saved, and found again by its content") {
    const Folder folder;
    const fs::path odd = folder / "m\xf6we.png";
    test::write(folder / "a.png", test::speckle_8({20, 10}, 3, 1), 8);
    test::write(folder / "b.png", test::speckle_8({20, 10}, 3, 2), 8);
    fs::rename(folder / "b.png", odd);
    Job job;
    const Pile pile = open_frames({{folder / "a.png"}, {odd}}, Outcome::trails, Order::given, job).value();
    REQUIRE(save_pile(pile, folder / "p.pile").ok());
    const LoadedPile loaded = load_pile(folder / "p.pile").value();
    REQUIRE(loaded.missing == std::vector<int>{pile.frames[1].id});
    const auto found = relink(loaded.pile, folder.path(), job);
    REQUIRE(found.ok());
    CHECK(found.value().still_missing == 0);
    CHECK(found.value().pile.frames[1].file->path == odd);
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

TEST_CASE("a saved pile has just the fields of the schema") {
    const Folder folder;
    REQUIRE(save_pile(rich_pile(folder), folder / "a.pile").ok());
    const Pieces pieces = read_zip(folder / "a.pile", 1 << 30).value();
    const auto json = nlohmann::json::parse(pieces.at("pile.json"));
    std::ifstream in(SOURCE_DIR "/docs/pile.schema.json");
    const auto schema = nlohmann::json::parse(in);
    const std::function<void(const nlohmann::json&, const nlohmann::json&, const std::string&)> check =
        [&](const nlohmann::json& value, const nlohmann::json& given_rule, const std::string& where) {
            const std::string defined = given_rule.value("$ref", "");
            const nlohmann::json rule =
                defined.empty() ? given_rule : schema[nlohmann::json::json_pointer(defined.substr(1))];
            INFO(where);
            if (rule.contains("enum")) CHECK(rule["enum"].dump().find(value.dump()) != std::string::npos);
            if (value.is_array() && rule.contains("items"))
                for (const auto& item : value) check(item, rule["items"], where + "[]");
            if (!value.is_object()) return;
            REQUIRE(rule.contains("properties"));
            for (const auto& [name, inner] : value.items()) {
                INFO(name);
                REQUIRE(rule["properties"].contains(name));
                check(inner, rule["properties"][name], where + "." + name);
            }
            for (const auto& name : rule.value("required", nlohmann::json::array()))
                CHECK(value.contains(name.get<std::string>()));
        };
    check(json, schema, "pile");
}
