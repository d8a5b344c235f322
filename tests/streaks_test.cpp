// Streaks: found in every frame against the others, told apart, and left out.
#include "lights/streaks.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <functional>
#include <nlohmann/json.hpp>
#include <span>

#include "engine/base_tiles.h"
#include "engine/moving_lights.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/gather.h"
#include "pile/edits.h"
#include "pile/file.h"
#include "pile/streak_edits.h"
#include "practice/practice.h"
#include "practice/texture.h"
#include "support/fixtures.h"
#include "support/plain.h"

namespace bp {
namespace {

using test::Folder;

constexpr Size sky{400, 300};

// Pixels that noise has made, and those of lines: light at a share of the way, as it is drawn.
struct Sky {
    practice::Dice dice{23};
    std::vector<Bright> pixels;

    void noise(int count) {
        for (int i = 0; i < count; ++i)
            add(int(dice.unit() * sky.width), int(dice.unit() * sky.height), 14 + int(3 * dice.unit()));
    }
    void line(Point a, Point b, const std::function<double(double)>& light) {
        const int steps = int(std::hypot(b.x - a.x, b.y - a.y) * 2);
        for (int i = 0; i <= steps; ++i) {
            const double t = double(i) / steps;
            const int quarters = int(60 * light(t));
            if (quarters >= 12)
                add(int(std::lround(a.x + t * (b.x - a.x))), int(std::lround(a.y + t * (b.y - a.y))), quarters);
        }
    }
    void add(int x, int y, int quarters) {
        if (x < 0 || y < 0 || x >= sky.width || y >= sky.height) return;
        const auto same =
            std::find_if(pixels.begin(), pixels.end(), [&](const Bright& p) { return p.x == x && p.y == y; });
        if (same == pixels.end()) pixels.push_back({x, y, std::uint16_t(quarters * 60), std::uint16_t(quarters)});
    }
    std::vector<Line> lines() {
        std::sort(pixels.begin(), pixels.end(),
                  [](const Bright& a, const Bright& b) { return std::pair(a.y, a.x) < std::pair(b.y, b.x); });
        return find_lines(pixels, sky);
    }
};

double steady(double) {
    return 1;
}
double fading(double t) {
    return 0.1 + std::pow(std::sin(3.14159 * t), 2);
}
double flashing(double t) {
    return std::fmod(t * 9, 1.0) < 0.25 ? 4 : 0.3;
}

// Whether a line ends where it should, either way round.
bool ends_at(const Line& line, Point a, Point b, double within) {
    const auto near = [&](Point p, Point q) { return std::hypot(p.x - q.x, p.y - q.y) <= within; };
    return (near(line.from, a) && near(line.to, b)) || (near(line.from, b) && near(line.to, a));
}

Line drawn(Point a, Point b, const std::function<double(double)>& light) {
    Sky s;
    s.line(a, b, light);
    const std::vector<Line> lines = s.lines();
    REQUIRE(lines.size() == 1);
    return lines.front();
}

// A scene as a pile of its frames, and the streaks that it is known to have.
struct Scene {
    explicit Scene(const char* name) {
        Job job;
        REQUIRE(practice::practise(*practice::scene_named(name), folder.path(), {}, job).ok());
        fs::remove_all(folder / "darks");
        fs::remove_all(folder / "foreground");
        std::ifstream in(folder / "truth/truth.json");
        truth = nlohmann::json::parse(in)["streaks"];
        fs::remove_all(folder / "truth");
        pile = open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    }
    std::vector<Streak> found() {
        FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
        Job job;
        return moving_lights(pile, store, job).value()->streaks;
    }
    // All of the truth, with its kinds, and nothing else.
    void check() {
        const std::vector<Streak> streaks = found();
        CHECK(streaks.size() == truth.size());
        for (const auto& t : truth) {
            const auto& line = t["polyline"];
            INFO(t.dump());
            // A line may begin or end beyond the picture.
            const auto inside = [&](const nlohmann::json& p) -> Point {
                return {std::clamp(p[0].get<double>(), 0.0, pile.size.width - 1.0),
                        std::clamp(p[1].get<double>(), 0.0, pile.size.height - 1.0)};
            };
            const auto same = std::find_if(streaks.begin(), streaks.end(), [&](const Streak& s) {
                return number_of(pile, s.frame) == t["frame"].get<int>() &&
                       ends_at(s.line, inside(line[0]), inside(line[1]), 34);
            });
            REQUIRE(same != streaks.end());
            CHECK(streak_kinds()[std::size_t(same->kind)].name == t["kind"].get<std::string>());
            CHECK(same->line.confidence > 0.8);
        }
    }
    Folder folder;
    nlohmann::json truth;
    Pile pile;
};

}  // namespace

TEST_CASE("a line is found among noise, and noise alone has none") {
    Sky noise;
    noise.noise(900);
    CHECK(noise.lines().empty());
    for (const auto& light : {steady, fading, flashing}) {
        Sky s;
        s.noise(500);
        const Point a{60, 40}, b{300, 190};
        s.line(a, b, light);
        const std::vector<Line> lines = s.lines();
        REQUIRE(lines.size() == 1);
        CHECK(ends_at(lines[0], a, b, 36));
        CHECK(lines[0].confidence > 0.8);
    }
    // Two that cross are two.
    Sky cross;
    cross.noise(300);
    cross.line({50, 50}, {350, 250}, steady);
    cross.line({60, 260}, {340, 40}, steady);
    CHECK(cross.lines().size() == 2);
    // A lit cloud has edges and no line.
    Sky cloud;
    for (int y = 90; y < 190; ++y)
        for (int x = 100; x < 260; ++x)
            if (cloud.dice.unit() < 0.6) cloud.add(x, y, 13 + int(12 * cloud.dice.unit()));
    CHECK(cloud.lines().empty());
    CHECK(find_lines({}, sky).empty());
}

TEST_CASE("what blinks is an aircraft, what goes on steadily a satellite, what flares and is gone a meteor") {
    const auto run = [](std::vector<std::vector<Line>> frames) {
        std::vector<FrameLines> out;
        for (std::size_t k = 0; k < frames.size(); ++k) out.push_back({30.0 * double(k), 25, std::move(frames[k])});
        return tell_streaks(out, sky);
    };
    // A light that moves on by 100 pixels a frame, with a sixth of its way hidden by the pause.
    const Line first = drawn({20, 30}, {120, 80}, steady), second = drawn({140, 90}, {240, 140}, steady);
    std::vector<Streak> told = run({{}, {first}, {second}, {}});
    REQUIRE(told.size() == 2);
    CHECK(told[0].thing == told[1].thing);
    CHECK(told[0].kind == StreakKind::satellite);
    CHECK(told[1].frame == 2);
    const Line flash_1 = drawn({20, 30}, {120, 80}, flashing), flash_2 = drawn({140, 90}, {240, 140}, flashing);
    told = run({{flash_1}, {flash_2}});
    CHECK(told[0].thing == told[1].thing);
    CHECK(told[0].kind == StreakKind::aircraft);
    CHECK(run({{flash_1}})[0].kind == StreakKind::aircraft);
    CHECK(run({{}, {drawn({100, 100}, {180, 150}, fading)}, {}})[0].kind == StreakKind::meteor);
    // A steady line that its neighbours would have shown more of is none that goes on.
    CHECK(run({{}, {first}, {}})[0].kind == StreakKind::meteor);
    // One that leaves the picture may.
    CHECK(run({{}, {drawn({0, 30}, {120, 80}, steady)}, {}})[0].kind == StreakKind::satellite);
    // Side by side in two frames, or at right angles, they are two things.
    told = run({{first}, {drawn({40, 120}, {140, 170}, steady)}});
    CHECK(told[0].thing != told[1].thing);
    told = run({{first}, {drawn({200, 60}, {150, 160}, steady)}});
    CHECK(told[0].thing != told[1].thing);
}

TEST_CASE("all streaks of the lighthouse are found and told apart, and none else, in knocked and clouded frames, too") {
    Scene scene("lighthouse");
    scene.check();
    // Left out, they are gone from the picture where other frames have sky; what lies beside is the same.
    const std::vector<Streak> streaks = scene.found();
    const Pile with = with_found_streaks(scene.pile, streaks);
    const Pile without = with_streaks_left_out(with, all_streaks(with), true);
    CHECK(all_streaks(without).size() == streaks.size());
    const Raster16 before = test::render_all(with).value(), after = test::render_all(without).value();
    const auto brightness = [](const Raster16& r, Point p) {
        const int x = int(std::lround(p.x)), y = int(std::lround(p.y));
        return int(r.at(x, y, 0)) + r.at(x, y, 1) + r.at(x, y, 2);
    };
    for (const Streak& s : streaks) {
        double bright = 0, dark = 0;
        for (int i = 4; i <= 16; ++i) {
            const Point p{s.line.from.x + (s.line.to.x - s.line.from.x) * i / 20,
                          s.line.from.y + (s.line.to.y - s.line.from.y) * i / 20};
            bright += brightness(before, p);
            dark += brightness(after, p);
        }
        CHECK(dark < 0.9 * bright);
    }
    std::size_t beside = 0;
    for (int y = 0; y < before.height(); ++y)
        for (int x = 0; x < before.width(); ++x) {
            const bool near = std::any_of(streaks.begin(), streaks.end(), [&](const Streak& s) {
                return band_of(s.line).has({double(x), double(y)});
            });
            for (int c = 0; c < 3 && !near; ++c) beside += before.at(x, y, c) != after.at(x, y, c);
        }
    CHECK(beside == 0);
    CHECK(with_streaks_left_out(without, all_streaks(without), false) == with);
}

TEST_CASE("frames of many pixels have the same streaks, and clouds before land none") {
    const Folder folder;
    practice::PracticeOptions options;
    options.frames = 13;  // two of them under cloud, the last one knocked
    options.size = {2100, 1401};
    options.truth = false;
    Job job;
    const practice::SceneEntry& entry = *practice::scene_named("lighthouse");
    REQUIRE(practice::practise(entry, folder.path(), options, job).ok());
    fs::remove_all(folder / "darks");
    fs::remove_all(folder / "foreground");
    const Pile pile =
        open_frames(gather_run({folder.path().string()}).value(), Outcome::trails, Order::captured, job).value();
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const std::vector<Streak> streaks = moving_lights(pile, store, job).value()->streaks;
    const std::vector<practice::StreakTruth> truth = entry.make(options.frames, options.seed)->streaks();
    CHECK(streaks.size() == truth.size());
    const double scale = options.size.width / practice::scene_width;
    for (const practice::StreakTruth& t : truth) {
        INFO(t.kind << " in frame " << t.frame);
        const auto in_pixels = [&](Point p) -> Point {
            return {std::clamp((p.x + 0.5) * scale - 0.5, 0.0, pile.size.width - 1.0),
                    std::clamp((p.y + 0.5) * scale - 0.5, 0.0, pile.size.height - 1.0)};
        };
        const auto same = std::find_if(streaks.begin(), streaks.end(), [&](const Streak& s) {
            return number_of(pile, s.frame) == t.frame &&
                   ends_at(s.line, in_pixels(t.from), in_pixels(t.to), 34 * scale);
        });
        REQUIRE(same != streaks.end());
        CHECK(streak_kinds()[std::size_t(same->kind)].name == t.kind);
    }
}

TEST_CASE("streaks are values of frames: what a person did to one stays when they are looked for again") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 4, {160, 120}, 16);
    const int first = pile.frames[0].id, second = pile.frames[1].id;
    const auto found = [](int frame, int thing, Point from, Point to) {
        Streak s{frame, StreakKind::satellite, thing, {}};
        s.line = {from, to};
        s.line.width_px = 3;
        s.line.confidence = 0.9;
        return s;
    };
    const std::vector<Streak> once{found(first, 0, {10, 10}, {60, 60}), found(second, 0, {70, 70}, {110, 110}),
                                   found(second, 1, {20, 100}, {140, 30})};
    pile = with_found_streaks(std::move(pile), once);
    REQUIRE(all_streaks(pile).size() == 3);
    CHECK(find_streak(pile, {first, 0})->thing == find_streak(pile, {second, 0})->thing);
    CHECK(find_streak(pile, {second, 1})->thing != find_streak(pile, {second, 0})->thing);
    CHECK(find_streak(pile, {second, 2}) == nullptr);
    // Found again, they are the same.
    const Pile again = with_found_streaks(pile, once);
    CHECK(all_streaks(again).size() == 3);
    // What was left out, pulled or drawn stays, and none is found on top of it.
    const StreakAt pulled{second, 1}, out{first, 0};
    Line longer = find_streak(pile, pulled)->line;
    longer.to = {150, 24};
    pile = with_streak_line(std::move(pile), pulled, longer);
    const StreakAt outs[] = {out};
    pile = with_streaks_left_out(std::move(pile), outs, true);
    FrameStreak drawn;
    drawn.kind = StreakKind::aircraft;
    drawn.line = {{5, 110}, {40, 110}};
    drawn.line.width_px = 4;
    drawn.left_out = true;
    pile = with_drawn_streak(std::move(pile), first, drawn);
    const Pile third = with_found_streaks(pile, once);
    REQUIRE(all_streaks(third).size() == 4);
    CHECK(third.frames[0].streaks == pile.frames[0].streaks);
    CHECK(std::count_if(third.frames[1].streaks.begin(), third.frames[1].streaks.end(),
                        [&](const FrameStreak& s) { return s.line == longer; }) == 1);
    // Nobody says anything of what is found no more.
    CHECK(all_streaks(with_found_streaks(third, {})).size() == 3);
    // A kind goes for the thing in all its frames.
    const Pile told = with_streak_kind(again, {first, 0}, StreakKind::aircraft);
    CHECK(find_streak(told, {second, 0})->kind == StreakKind::aircraft);
    CHECK(find_streak(told, {second, 1})->kind == StreakKind::satellite);
    // What is drawn over by hand stays left out when the streak is taken in again.
    Mask painted(pile.size);
    painted.edit({0, 100, 160, 20}, [](int, int, std::uint8_t) { return std::uint8_t(255); });
    const int firsts[] = {first};
    Pile both = with_left_out(pile, firsts, painted);
    CHECK(both.frames[0].silence.at(30, 30) == 255);
    const StreakAt of_first[] = {{first, 0}, {first, 1}};
    both = with_streaks_left_out(std::move(both), of_first, false);
    CHECK(both.frames[0].silence == painted);
    both = without_streak(std::move(both), {first, 0});
    CHECK(both.frames[0].streaks.size() == 1);
    // A frame that is taken out of the pile takes its streaks with it.
    CHECK(all_streaks(without_frames(third, firsts)).size() == third.frames[1].streaks.size());
    // Nonsense is held to what can be.
    Line nowhere = longer;
    nowhere.from.x = std::nan("");
    nowhere.width_px = -3;
    const Line held = find_streak(with_streak_line(pile, pulled, nowhere), pulled)->line;
    CHECK(held.from.x == 0);
    CHECK(held.width_px == 1);
    CHECK(with_streak_line(pile, {second, 9}, longer) == pile);
    CHECK(with_drawn_streak(pile, 99, drawn) == pile);
}

TEST_CASE("a streak that is left out takes no part to the bit, in every mode, and is saved with the pile") {
    const Folder folder;
    Pile pile = test::speckle_pile(folder, 5, {90, 70}, 16);
    FrameStreak streak;
    streak.line = {{-20, 5}, {80, 60}};
    streak.line.width_px = 2.5;
    streak.left_out = true;
    pile = with_drawn_streak(std::move(pile), pile.frames[1].id, streak);
    streak.line = {{30.5, 3}, {33, 64}};
    pile = with_drawn_streak(std::move(pile), pile.frames[1].id, streak);
    streak.left_out = false;
    pile = with_drawn_streak(std::move(pile), pile.frames[3].id, streak);
    for (const ModeEntry& mode : modes()) {
        INFO(mode.name);
        const Pile merged = with_mode(pile, mode.mode);
        CHECK(test::difference(test::render_all(merged).value(), render_plain(merged, whole(merged.size)).value())
                  .empty());
    }
    REQUIRE(save_pile(pile, folder / "s.pile").ok());
    const Result<LoadedPile> loaded = load_pile(folder / "s.pile");
    REQUIRE(loaded.ok());
    CHECK(loaded.value().remarks.empty());
    CHECK(loaded.value().pile == pile);
    CHECK(base_recipe(loaded.value().pile) == base_recipe(pile));
    const StreakAt first[] = {{pile.frames[1].id, 0}};
    CHECK(base_recipe(with_streaks_left_out(pile, first, false)) != base_recipe(pile));
}

TEST_CASE("a band drawn by its tiles is the band drawn pixel by pixel") {
    const Size size{700, 500};
    for (const DrawnShape& band :
         {DrawnShape{ShapeKind::band, {-900, 40}, {1400, 430}, 31}, DrawnShape{ShapeKind::band, {3, 490}, {690, 7}, 2},
          DrawnShape{ShapeKind::band, {256, 100}, {256, 100}, 300},
          DrawnShape{ShapeKind::band, {800, 0}, {900, 9}, 50}}) {
        Mask expected(size);
        expected.edit(whole(size), [&](int x, int y, std::uint8_t) {
            return std::uint8_t(band.has({double(x), double(y)}) ? 255 : 0);
        });
        CHECK(with_shape(Mask(size), band, true) == expected);
    }
}

TEST_CASE("all meteors of the night watch are found, on both sides of a camera that was moved, and none else") {
    Scene scene("night-watch");
    scene.check();
}

TEST_CASE("runs without moving stars have no streaks") {
    const Folder folder;
    const Pile pile = test::practised(folder, "quay");
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Job job;
    CHECK(moving_lights(pile, store, job).value()->streaks.empty());
}

TEST_CASE("a frame that turns out broken has no lights, and the others have theirs") {
    const Folder folder;
    const Pile pile = test::practised(folder, "night-watch", 7);
    const Frame& broken = pile.frames[4];
    fs::resize_file(broken.file->path, fs::file_size(broken.file->path) / 3);
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Job job;
    const auto lights = moving_lights(pile, store, job);
    REQUIRE(lights.ok());
    CHECK(lights.value()->sky);
    CHECK_FALSE(lights.value()->frames.contains(broken.id));
    CHECK(lights.value()->frames.size() == 6);
    CHECK(lights.value()->streaks.size() >= 3);
    for (const Streak& s : lights.value()->streaks) CHECK(s.frame != broken.id);
}

TEST_CASE("what was found is kept as it was found") {
    const Folder folder;
    const Pile pile = test::practised(folder, "night-watch", 7);
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    Job job;
    const auto lights = moving_lights(pile, store, job).value();
    REQUIRE_FALSE(lights->streaks.empty());
    CHECK(moving_lights(pile, store, job).value() == lights);  // not looked for again
    Packer to;
    pack(to, *lights);
    PackedBytes bytes = to.done();
    MovingLights back;
    Unpacker from(bytes);
    unpack(from, back);
    REQUIRE(from.whole());
    CHECK(back.sky == lights->sky);
    CHECK(back.frames == lights->frames);
    REQUIRE(back.streaks.size() == lights->streaks.size());
    CHECK(back.streaks[0].line.to == lights->streaks[0].line.to);
    CHECK(back.streaks[0].kind == lights->streaks[0].kind);
    // Cut off anywhere it is not believed.
    for (std::size_t length = 0; length < bytes.size(); length += 1 + bytes.size() / 97) {
        MovingLights cut;
        Unpacker short_of(std::span<const std::uint8_t>(bytes).first(length));
        unpack(short_of, cut);
        CHECK_FALSE(short_of.whole());
    }
}

}  // namespace bp
