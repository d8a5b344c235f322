// Pictures of piles of every kind, to the bit as they were: what the program gives does not change because its house
// does.
//
// tests/what_stays.txt holds a fingerprint for each. Where a change means to change pictures, BRIGHT_PILE_WRITE_STAYS=1
// writes it anew, and the change says why.
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <map>

#include "base/fingerprint.h"
#include "engine/base_tiles.h"
#include "engine/export.h"
#include "engine/open.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "pile/part_edits.h"
#include "support/fixtures.h"

using namespace bp;
using test::Folder;

namespace {

constexpr Size frame_size{131, 97};

CaptureData taken_at(double second) {
    CaptureData out;
    out.captured = 1789251245.0 + second;
    out.exposure_s = 5;
    out.iso = 800;
    return out;
}

// Five frames of the scene in as many kinds of file, and two darks.
Pile many_kinds(const Folder& folder, int channels) {
    const auto scene = [&](int n) {
        Raster16 colour = test::landscape(frame_size, Matrix::shift(1.3 * n, -0.8 * n), unsigned(n), 0.02);
        if (channels == 3) return colour;
        Raster16 grey(frame_size, 1);
        for (std::size_t i = 0; i < grey.data().size(); ++i) grey.data()[i] = colour.data()[3 * i + 1];
        return grey;
    };
    test::write(folder / "f1.tif", scene(1), 8, {}, taken_at(10));
    test::write(folder / "f2.png", scene(2), 16, {}, taken_at(20));
    test::write(folder / "f3.jpg", scene(3), 8, {}, taken_at(30));
    test::write(folder / "f4.tif", scene(4), 16, channels == 3 ? Profile::linear_srgb() : Profile(), taken_at(40));
    test::write(folder / "f5.png", scene(5), 8, {}, taken_at(50));
    for (int n = 6; n <= 7; ++n) {
        Raster16 dark(frame_size, channels);
        for (std::size_t i = 0; i < dark.data().size(); ++i) dark.data()[i] = std::uint16_t(200 + (i * 7919 * n) % 900);
        test::write(folder / ("f" + std::to_string(n) + ".tif"), dark, 16, {}, taken_at(10.0 * n));
    }
    std::vector<NamedFile> files;
    for (const std::string& name : folder.names())
        files.push_back({folder / name, name < "f6" ? Role::scene : Role::dark});
    Job job;
    return open_frames(files, Outcome::quiet, Order::captured, job).value();
}

Alignment place_of(Model model, int n) {
    Alignment out;
    const double k = n;
    switch (model) {
        case Model::none:
            break;
        case Model::shift:
            out.to_reference = Matrix::shift(2 * k, -k);
            break;
        case Model::rigid:
            out.to_reference =
                n == 4 ? Matrix::rigid(1.1, {65, 48}, 3, -2) : Matrix::rigid(0.01 * k, {65, 48}, 0.4 * k, 1);
            break;
        case Model::similarity:
            out.to_reference = Matrix({1 + 0.01 * k, -0.02 * k, 1.5, 0.02 * k, 1 + 0.01 * k, -2.25, 0, 0, 1});
            break;
        case Model::perspective:
            out.to_reference = Matrix({1, 0.01 * k, 0.5 * k, -0.01, 1.01, 1, 2e-5 * k, -1e-5 * k, 1});
            break;
        case Model::flex: {
            out.to_reference = Matrix::shift(0.3 * k, 0.2);
            std::vector<float> across, down;
            for (int i = 0; i < 12; ++i) {
                across.push_back(float((i * 5 + n) % 7) * 0.3F - 1);
                down.push_back(float((i * 3 + n) % 5) * 0.4F - 1);
            }
            out.flex = std::make_shared<const Flex>(Flex::Grid{{-2, 1.5}, 44, 4, 3}, across, down);
            break;
        }
        case Model::stars:
            out.to_reference = Matrix::rigid(0.02 * k, {40, 30}, 0, 0);
            out.lens = Lens{{65, 48}, 120, -0.02, 0.003};
            out.sensor = {0.7 * k, -0.4};
            break;
    }
    return out;
}

Mask painted(int left, int top, int width, int height) {
    Mask out(frame_size);
    out.edit({left, top, width, height},
             [](int x, int y, std::uint8_t) { return std::uint8_t(40 + (x * 5 + y * 3) % 216); });
    return out;
}

// What is done to a pile besides, one bit each.
enum Extra : unsigned { zones = 1, parts = 2, evened = 4, darks = 8, sensor = 16, strengths = 32, any_cover = 64 };
constexpr unsigned all_extras = 127;

Pile with_extras(Pile pile, unsigned extras) {
    const auto id = [&](std::size_t i) { return pile.frames[i].id; };
    if (extras & zones) {
        Mask sky(frame_size);
        sky.edit({0, 0, frame_size.width, 45}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
        pile = with_feather(with_zones(std::move(pile), sky), 11);
        std::map<int, Alignment> places;
        for (std::size_t i = 0; i < 5; ++i) places[id(i)] = place_of(Model::shift, int(i) * (i == 0 ? 0 : -1));
        pile = with_alignments(std::move(pile), Model::shift, id(0), places, Zone::land);
        pile = with_mode(std::move(pile), Mode::median, Zone::land);
    }
    if (extras & parts)
        for (const std::size_t from : {std::size_t(1), std::size_t(3)}) {
            auto [next, part] = with_new_part(pile, id(from));
            pile = with_part_mask(std::move(next), part, painted(int(from) * 20, 12, 60, 50));
            if (from == 3) pile = with_part_strength(std::move(pile), part, 0.6);
        }
    if (extras & evened) {
        Look look;
        look.exposure_ev = 0.4;
        look.deep = 20;
        look.warmth = 15;
        look.hue_at = 120;
        look.hue_turn = 18;
        pile = with_look(std::move(pile), look);
        Look own;
        own.contrast = -12;
        own.colour_strength = 30;
        const int second[] = {id(1)};
        pile = with_own_look(std::move(pile), second, own);
        pile = with_gains(std::move(pile), Levelling::colour,
                          {{id(2), LightGains{{1.1, 0.95, 1.02}, false}}, {id(4), LightGains{{0.9, 0.9, 0.9}, true}}});
    }
    if (extras & darks) pile = with_darks(std::move(pile), Darks::on);
    if (extras & sensor) {
        auto passes = std::make_shared<Raster16>(Size{9, 9}, 1);
        for (std::size_t i = 0; i < passes->data().size(); ++i) passes->data()[i] = std::uint16_t(30000 + 400 * i);
        pile = with_spot(std::move(pile), {{54, 34}, 4, {50, 30, 9, 9}, passes});
        pile = with_hot_pixels(std::move(pile),
                               std::make_shared<const HotPixels>(HotPixels{{0, 0}, {17, 9}, {64, 48}, {130, 96}}));
    }
    if (extras & strengths) {
        const int some[] = {id(1), id(4)};
        pile = with_strength(std::move(pile), some, 0.45);
    }
    pile.cover = extras & any_cover ? Cover::any : Cover::full;
    return pile;
}

Fingerprint of(const Raster16& picture) {
    return fingerprint_of_bytes(picture.data().data(), picture.bytes());
}

using Known = std::map<std::string, std::string>;

// The picture at several levels, by streaming and from memory, in pieces, and as it is written.
std::string fingerprint_of(const Pile& pile, const Folder& out) {
    Job job;
    FrameStore files(working_space(pile), {0, std::size_t(1) << 28});
    FrameStore memory(working_space(pile), {std::size_t(1) << 28, std::size_t(1) << 28});
    Fingerprinter all;
    const auto take = [&](const Raster16& picture) {
        const Fingerprint one = of(picture);
        all.number(one[0]).number(one[1]);
    };
    for (const int level : {0, 1, 4}) {
        const Rect area = at_level(whole(pile.size), level);
        const Raster16 streamed = render(pile, files, area, level, job).value();
        CHECK(of(streamed) == of(render(pile, memory, area, level, job).value()));
        take(streamed);
    }
    const Rect piece{33, 20, 61, 47};
    BaseTiles tiles;
    const Raster16 tile = render(pile, memory, piece, 0, job, &tiles).value();
    CHECK(of(tile) == of(render(pile, files, piece, 0, job).value()));
    take(tile);
    REQUIRE(export_picture(pile, out / "o.tif", {}, job).ok());
    take(read_picture(out / "o.tif").value());
    return in_hex(all.done());
}

}  // namespace

TEST_CASE("pictures of piles of every kind are to the bit what they were") {
    const fs::path record = SOURCE_DIR "/tests/what_stays.txt";
    Known known, now;
    std::ifstream in(record);
    for (std::string name, value; in >> name >> value;) known[name] = value;
    const Folder colour, grey, out;
    const std::array<Pile, 2> piles{many_kinds(colour, 3), many_kinds(grey, 1)};
    // Modes that came later have turns of their own, so that the others keep theirs.
    unsigned turn_of_first = 0, turn_of_later = 0;
    for (const Pile& first : piles)
        for (const ModelEntry& model : models())
            for (const ModeEntry& mode : modes())
                for (const Light light : {Light::linear, Light::encoded}) {
                    // Each extra meets each mode and model somewhere; all of them, and none, several times.
                    const unsigned turn = mode.mode == Mode::add ? ++turn_of_later : ++turn_of_first;
                    const unsigned extras = turn % 9 == 0 ? all_extras : turn % 11 == 0 ? 0 : (turn * 53) % 128;
                    std::map<int, Alignment> places;
                    for (std::size_t i = 0; i < 5; ++i) places[first.frames[i].id] = place_of(model.model, int(i));
                    Pile pile = with_alignments(first, model.model, first.frames[0].id, places);
                    pile = with_mode(std::move(pile), mode.mode);
                    pile.light = light;
                    pile = with_extras(std::move(pile), extras);
                    const std::string name = std::string(first.channels == 3 ? "colour" : "grey") + "/" +
                                             std::string(model.name) + "/" + std::string(mode.name) + "/" +
                                             (light == Light::linear ? "linear" : "encoded") + "/" +
                                             std::to_string(extras);
                    INFO(name);
                    now[name] = fingerprint_of(pile, out);
                    if (!std::getenv("BRIGHT_PILE_WRITE_STAYS")) CHECK(now[name] == known[name]);
                }
    CHECK(now.size() == 2 * models().size() * modes().size() * 2);
    if (!std::getenv("BRIGHT_PILE_WRITE_STAYS")) return;
    std::ofstream to(record);
    for (const auto& [name, value] : now) to << name << ' ' << value << '\n';
}
