// Lights that go ways of their own, and how the breaks in their traces are closed.
#include "lights/movers.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <functional>

#include "engine/knitting.h"
#include "engine/open.h"
#include "engine/render.h"
#include "io/gather.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "practice/texture.h"
#include "support/fixtures.h"

namespace bp {
namespace {

using test::Folder;

// What a light leaves that goes from one place to another.
void draw(std::vector<Bright>& pixels, Point from, Point to, std::uint16_t by = 4000) {
    const double length = std::max(1.0, std::hypot(to.x - from.x, to.y - from.y));
    for (int y = int(std::min(from.y, to.y)) - 3; y <= std::max(from.y, to.y) + 3; ++y)
        for (int x = int(std::min(from.x, to.x)) - 3; x <= std::max(from.x, to.x) + 3; ++x) {
            const double dx = (to.x - from.x) / length, dy = (to.y - from.y) / length;
            const double t = std::clamp((x - from.x) * dx + (y - from.y) * dy, 0.0, length);
            const double off = std::hypot(x - from.x - t * dx, y - from.y - t * dy);
            const double light = std::exp(-off * off / 2);
            if (light > 0.05) pixels.push_back({x, y, std::uint16_t(by * light), std::uint16_t(60 * light)});
        }
    std::sort(pixels.begin(), pixels.end(),
              [](const Bright& a, const Bright& b) { return a.y != b.y ? a.y < b.y : a.x < b.x; });
}

// Frames of 20 s with pauses of `pause_s`, and in each what a light does that is at place(t).
std::vector<FrameTraces> run_of(int frames, double pause_s, const std::vector<std::function<Point(double)>>& lights) {
    std::vector<FrameTraces> out;
    for (int k = 0; k < frames; ++k) {
        FrameTraces frame{k * (20 + pause_s), 20, {}};
        for (const auto& place : lights) {
            std::vector<Bright> pixels;
            draw(pixels, place(frame.begin_s), place(frame.begin_s + 20));
            for (Trace& trace : traces_of(pixels)) frame.traces.push_back(std::move(trace));
        }
        out.push_back(std::move(frame));
    }
    return out;
}

}  // namespace

TEST_CASE("a light that goes on through the frames is followed, with its speed over the pauses") {
    const auto boat = [](double t) -> Point { return {10 + 1.5 * t, 60 - 0.4 * t}; };
    const auto run = run_of(5, 4, {boat});
    const std::vector<Mover> movers = movers_in(run);
    REQUIRE(movers.size() == 4);
    for (std::size_t k = 0; k < movers.size(); ++k) {
        CHECK(movers[k].before == k);
        CHECK(movers[k].px_per_s.x == Approx(1.5).epsilon(0.12));
        CHECK(movers[k].px_per_s.y == Approx(-0.4).margin(0.12));
        // What lies at its end, and not its beginning.
        const Point begin = boat(run[k].begin_s), end = boat(run[k].begin_s + 20);
        CHECK_FALSE(movers[k].end.empty());
        for (const Point& p : movers[k].end)
            CHECK(std::hypot(p.x - end.x, p.y - end.y) < std::hypot(p.x - begin.x, p.y - begin.y) + 8);
    }
    // Two that meet are two.
    const auto other = [](double t) -> Point { return {160 - 1.2 * t, 20 + 0.5 * t}; };
    CHECK(movers_in(run_of(5, 4, {boat, other})).size() == 8);
}

TEST_CASE("what does not go on through three frames, at one speed and one way, is not followed") {
    const auto boat = [](double t) -> Point { return {10 + 1.5 * t, 60 - 0.4 * t}; };
    CHECK(movers_in({}).empty());
    CHECK(movers_in(run_of(1, 4, {boat})).empty());
    CHECK(movers_in(run_of(2, 4, {boat})).empty());   // two traces in a line may be two lights
    CHECK(movers_in(run_of(5, 20, {boat})).empty());  // who knows where it was
    // One that stands still, and one that is elsewhere in every frame.
    CHECK(movers_in(run_of(5, 4, {[](double) -> Point { return {50, 50}; }})).empty());
    practice::Dice dice(5);
    std::vector<FrameTraces> flashes;
    for (int k = 0; k < 8; ++k) {
        FrameTraces frame{k * 24.0, 20, {}};
        for (int i = 0; i < 12; ++i) {
            const Point at{dice.between(0, 700), dice.between(0, 500)};
            const double way = dice.between(0, 6.28);
            std::vector<Bright> pixels;
            draw(pixels, at, {at.x + 12 * std::cos(way), at.y + 12 * std::sin(way)});
            for (Trace& trace : traces_of(pixels)) frame.traces.push_back(std::move(trace));
        }
        flashes.push_back(std::move(frame));
    }
    CHECK(movers_in(flashes).empty());
    // A light that turns round between two frames is not led on.
    auto turns = run_of(6, 4, {boat});
    std::reverse(turns[3].traces.begin(), turns[3].traces.end());
    turns[3].traces.clear();
    std::vector<Bright> across;
    draw(across, {118, 20}, {120, 52});
    for (Trace& trace : traces_of(across)) turns[3].traces.push_back(std::move(trace));
    for (const Mover& m : movers_in(turns)) CHECK((m.before == 0 || m.before == 1 || m.before == 4));
}

TEST_CASE("a lantern and glowing beetles over the marsh leave whole traces, and nothing beside them is touched") {
    const Folder folder;
    practice::PracticeOptions options;
    options.frames = 8;
    Job job;
    REQUIRE(practice::practise(*practice::scene_named("fireflies"), folder.path(), options, job).ok());
    std::vector<NamedFile> named;
    for (int i = 1; i <= options.frames; ++i)
        named.push_back({folder / ("fireflies-000" + std::to_string(i) + ".jpg"), Role::scene});
    Pile pile = open_frames(named, Outcome::trails, Order::captured, job, KnownBy::path).value();
    pile.cover = Cover::any;
    const auto truth = [&](const char* name) {
        FrameFile file;
        file.path = folder / ("truth/" + std::string(name) + ".tif");
        file.facts = probe_picture(file.path).value();
        return read_frame(file, 0, working_space(pile), job).value();
    };
    const auto light = [](const Raster16& picture, int x, int y) {
        double out = 0;
        for (int c = 0; c < 3; ++c) {
            const double v = picture.at(x, y, c) / 65535.0;
            out += v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        }
        return out;
    };
    const Pile knitted = with_knit(pile, {true, 60});
    FrameStore store(working_space(pile), {0, std::size_t(1) << 30});
    const auto lights = moving_lights(pile, store, job).value();
    CHECK_FALSE(lights->sky);
    CHECK(lights->streaks.empty());
    CHECK(lights->own.size() >= 14);  // seven pauses, a lantern and two beetles; its mirror ripples
    const Raster16 marsh = test::render_all(with_mode(pile, Mode::median)).value();
    const Raster16 plain = test::render_all(pile).value(), closed = test::render_all(knitted).value();
    const Raster16 broken = truth("trails"), whole_truth = truth("knitted");
    std::size_t darker = 0, beside = 0, changed = 0;
    double missing_all = 0, added_all = 0;
    for (int y = 6; y < pile.size.height - 6; ++y)
        for (int x = 6; x < pile.size.width - 6; ++x) {
            bool differs = false;
            for (int c = 0; c < 3; ++c) {
                differs = differs || plain.at(x, y, c) != closed.at(x, y, c);
                darker += closed.at(x, y, c) < plain.at(x, y, c);
            }
            changed += differs;
            if (differs) {
                // A light is near.
                bool near = false;
                for (int v = -4; v <= 4 && !near; ++v)
                    for (int u = -4; u <= 4 && !near; ++u)
                        near = light(whole_truth, x + u, y + v) > light(marsh, x + u, y + v) + 0.005;
                beside += !near;
            }
            const double missing = light(whole_truth, x, y) - light(broken, x, y);
            if (missing < 0.1) continue;
            missing_all += missing;
            added_all += light(closed, x, y) - light(plain, x, y);
        }
    CHECK(changed > 1000);
    CHECK(darker == 0);
    CHECK(beside == 0);
    CHECK(added_all > 0.6 * missing_all);
    CHECK(added_all < 1.1 * missing_all);
    // Kept in the cache folder as they are.
    Packer to;
    pack(to, *lights);
    PackedBytes bytes = to.done();
    MovingLights back;
    Unpacker from(bytes);
    unpack(from, back);
    REQUIRE(from.whole());
    CHECK(back.own == lights->own);
    // A frame that is set aside makes a pause across which nothing is known of them.
    const int third[] = {pile.frames[2].id};
    for (const Seam& seam : knitting_of(with_aside(knitted, third, true), *lights).seams)
        if (seam.before == pile.frames[1].id) CHECK(seam.steps.empty());
}

}  // namespace bp
