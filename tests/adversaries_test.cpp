// Nights on which something goes wrong just where it hurts: knitting and streaks must not be taken in.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

#include "engine/knitting.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/writer.h"
#include "pile/edits.h"
#include "pile/streak_edits.h"
#include "practice/practice.h"
#include "support/fixtures.h"

namespace bp {
namespace {

using test::Folder;

// Frames of the lighthouse whose files can be painted on.
struct Night {
    explicit Night(int frames, Size size = {960, 640}) : count(frames) {
        practice::PracticeOptions options;
        options.frames = frames;
        options.size = size;
        options.truth = false;
        Job job;
        REQUIRE(practice::practise(*practice::scene_named("lighthouse"), folder.path(), options, job).ok());
        open();
    }
    void open() {
        Job job;
        std::vector<NamedFile> named;
        for (int i = 1; i <= count; ++i) named.push_back({file(i), Role::scene});
        pile = with_mode(open_frames(named, Outcome::trails, Order::captured, job).value(), Mode::maximum);
        pile.cover = Cover::any;
    }
    fs::path file(int number) const {
        const std::string text = std::to_string(number);
        return folder / ("lighthouse-" + std::string(4 - text.size(), '0') + text + ".jpg");
    }
    // Paints on a frame: pixels of light, of samples as they stand.
    void paint(int number, const std::function<double(int x, int y, double value)>& change) {
        Job job;
        const Frame& frame = pile.frames[std::size_t(number - 1)];
        Raster16 picture = read_frame(*frame.file, 0, working_space(pile), job).value();
        for (int y = 0; y < picture.height(); ++y)
            for (int x = 0; x < picture.width(); ++x)
                for (int c = 0; c < 3; ++c)
                    picture.at(x, y, c) = std::uint16_t(std::clamp(change(x, y, picture.at(x, y, c)), 0.0, 65535.0));
        REQUIRE(write_picture(file(number), picture, Profile::srgb(), {8, 97, Sync::no}, frame.file->capture).ok());
    }
    std::shared_ptr<const MovingLights> lights() const {
        FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
        Job job;
        return moving_lights(pile, store, job).value();
    }
    Raster16 merged(bool knitted) const {
        return test::render_all(knitted ? with_knit(pile, {true, 60}) : pile).value();
    }
    int count;
    Folder folder;
    Pile pile;
};

double beside_line(Point p, Point a, Point b) {
    const double length = std::hypot(b.x - a.x, b.y - a.y);
    const double t = std::clamp(((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / length, 0.0, length);
    return std::hypot(p.x - a.x - t * (b.x - a.x) / length, p.y - a.y - t * (b.y - a.y) / length);
}

}  // namespace

TEST_CASE("a meteor along a star's trail is not drawn out by knitting, and is found") {
    Night night(8);
    const Raster16 before_knitted = night.merged(true);
    const auto lights = night.lights();
    REQUIRE(lights->sky);
    // Along the way of a light that is seen in the fourth frame, far from the land.
    const MovingLights::OfFrame& fourth = lights->frames.at(night.pile.frames[3].id);
    Point star{};
    for (int y = 60; y < 160 && star == Point{}; ++y)
        for (const RunMask::Run& run : fourth.lights.row(y))
            if (run.begin > 200 && run.end < 400) star = {2.0 * run.begin, 2.0 * y};
    REQUIRE_FALSE(star == Point{});
    const double far_s = 1200;
    const Point on = lights->sky->over(far_s).to_canvas(star);
    const double length = std::hypot(on.x - star.x, on.y - star.y);
    const Point way{(on.x - star.x) / length, (on.y - star.y) / length};
    const Point a{star.x - 55 * way.x, star.y - 55 * way.y}, b{star.x + 55 * way.x, star.y + 55 * way.y};
    night.paint(4, [&](int x, int y, double value) {
        const double off = beside_line({double(x), double(y)}, a, b);
        const double t = std::clamp(((x - a.x) * way.x + (y - a.y) * way.y) / 110, 0.0, 1.0);
        return value + 45000 * std::sin(3.14159 * t) * std::exp(-off * off / 2);
    });
    night.open();
    const Raster16 plain = night.merged(false), knitted = night.merged(true);
    // What the meteor alone has is not added: it is some 300 samples long and wide. A few of the star's own become as
    // bright as the frame after has them, where the fourth was the fainter of the two.
    constexpr int coding = 1400;  // files of 8 bits are written once more
    std::size_t longer = 0;
    for (int y = 0; y < plain.height(); ++y)
        for (int x = 0; x < plain.width(); ++x)
            for (int c = 0; c < 3; ++c)
                longer += int(knitted.at(x, y, c)) >
                          std::max(int(plain.at(x, y, c)), int(before_knitted.at(x, y, c))) + coding;
    CHECK(longer < 30);

    const std::vector<Streak> streaks = night.lights()->streaks;
    const auto meteor = std::find_if(streaks.begin(), streaks.end(),
                                     [&](const Streak& s) { return number_of(night.pile, s.frame) == 4; });
    REQUIRE(meteor != streaks.end());
    CHECK(meteor->kind == StreakKind::meteor);
    // Left out, it takes no star with it: the trail is there from the frames around.
    const Pile with = with_found_streaks(night.pile, streaks);
    const Raster16 without =
        test::render_all(with_streaks_left_out(with, streaks_of(with, StreakKind::meteor), true)).value();
    double bright = 0, dark = 0;
    for (int i = 20; i <= 90; ++i) {
        const int x = int(std::lround(a.x + i * way.x)), y = int(std::lround(a.y + i * way.y));
        bright += plain.at(x, y, 1);
        dark += without.at(x, y, 1);
    }
    CHECK(dark < 0.75 * bright);
}

TEST_CASE("an aircraft over the lamp is left out, and the lamp stays as bright") {
    Night night(8);
    Job job;
    const Raster16 usual = test::render_all(with_mode(night.pile, Mode::median)).value();
    // The lamp: the brightest of what stands still.
    Point lamp{};
    int most = 0;
    for (int y = 0; y < usual.height(); ++y)
        for (int x = 0; x < usual.width(); ++x)
            if (usual.at(x, y, 1) > most) {
                most = usual.at(x, y, 1);
                lamp = {double(x), double(y)};
            }
    const Point a{lamp.x - 320, lamp.y - 150}, b{lamp.x + 300, lamp.y + 40};
    night.paint(5, [&](int x, int y, double value) {
        const double off = beside_line({double(x), double(y)}, a, b);
        const double length = std::hypot(b.x - a.x, b.y - a.y);
        const double t = ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / length;
        const double flash = std::fmod(t + 1000, 26) < 6 ? 36000 : 5000;
        return value + (t >= 0 && t <= length ? flash * std::exp(-off * off / 2) : 0);
    });
    night.open();
    const std::vector<Streak> streaks = night.lights()->streaks;
    const auto aircraft = std::find_if(streaks.begin(), streaks.end(), [&](const Streak& s) {
        return number_of(night.pile, s.frame) == 5 && s.kind == StreakKind::aircraft;
    });
    REQUIRE(aircraft != streaks.end());
    const Pile with = with_found_streaks(night.pile, streaks);
    const Raster16 without =
        test::render_all(with_streaks_left_out(with, streaks_of(with, StreakKind::aircraft), true)).value();
    CHECK(without.at(int(lamp.x), int(lamp.y), 1) >= 0.99 * most);
    // It is gone from its way through the sky.
    double left = 0;
    for (int i = 4; i <= 8; ++i) {
        const int x = int(std::lround(aircraft->line.from.x + (aircraft->line.to.x - aircraft->line.from.x) * i / 20));
        const int y = int(std::lround(aircraft->line.from.y + (aircraft->line.to.y - aircraft->line.from.y) * i / 20));
        left = std::max(left, double(without.at(x, y, 1)) - usual.at(x, y, 1));
    }
    CHECK(left < 9000);
}

TEST_CASE("when the moon rises the sky pales, and no streak is found in it and nothing knitted beside trails") {
    Night night(9);
    const std::shared_ptr<const MovingLights> before = night.lights();
    const Raster16 before_plain = night.merged(false), before_knitted = night.merged(true);
    for (int k = 5; k <= 9; ++k)
        night.paint(k, [&](int x, int y, double value) {
            const double high = std::exp(-std::hypot(x - 1000.0, y - 610.0) / 420);
            return value + (k - 4) * 900 * (0.35 + high);
        });
    night.open();
    const std::shared_ptr<const MovingLights> lights = night.lights();
    REQUIRE(lights->sky);
    // Those that were there before, and no others.
    CHECK(lights->streaks.size() <= before->streaks.size());
    const Raster16 plain = night.merged(false), knitted = night.merged(true);
    std::size_t added = 0, added_before = 0, on_land = 0;
    for (int y = 0; y < plain.height(); ++y)
        for (int x = 0; x < plain.width(); ++x) {
            const bool differs = plain.at(x, y, 1) != knitted.at(x, y, 1);
            added += differs;
            on_land += differs && y > plain.height() * 0.76;
            added_before += before_plain.at(x, y, 1) != before_knitted.at(x, y, 1);
        }
    CHECK(on_land == 0);
    CHECK(added > added_before / 2);
    CHECK(added < added_before * 5 / 4);
}

TEST_CASE("pauses of uneven length and a frame that is missing are knitted as far as the limit goes") {
    Night night(9, {800, 533});
    const auto lights = night.lights();
    REQUIRE(lights->sky);
    const auto pauses = [&](const Pile& pile) {
        std::vector<double> out;
        for (const Seam& seam : knitting_of(with_knit(pile, {true, 200}), *lights).seams)
            if (!seam.steps.empty()) out.push_back(std::round(seam.pause_s));
        return out;
    };
    const std::vector<double> all = pauses(night.pile);
    // A frame is gone: its two pauses and its exposure are one.
    const int third[] = {night.pile.frames[2].id};
    const std::vector<double> without = pauses(without_frames(night.pile, third));
    CHECK(without.size() + 1 == all.size());
    CHECK(std::count(without.begin(), without.end(), 105) == 1);
    // Of two frames nothing around tells what is noise: they are knitted by what both have.
    std::vector<int> others;
    for (std::size_t k = 2; k < night.pile.frames.size(); ++k) others.push_back(night.pile.frames[k].id);
    CHECK(pauses(with_aside(night.pile, others, true)).size() == 1);
}

}  // namespace bp
