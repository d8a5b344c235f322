// Skies unlike those of the demo: wide and long lenses, the pole in the picture and far outside, short and long pauses.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "base/median.h"
#include "engine/knitting.h"
#include "engine/open.h"
#include "engine/render.h"
#include "pile/edits.h"
#include "practice/practice.h"
#include "practice/texture.h"
#include "support/fixtures.h"

namespace bp {
namespace {

using practice::Canvas;
using practice::Rgb;
using practice::Shot;
using test::Folder;
using Direction = std::array<double, 3>;

// What is seen, in scene units and seconds.
struct Sky {
    const char* name;
    double focal;
    Point pole;  // through a lens without distortion
    double exposure_s, pause_s;
    int frames = 8;
    bool streaks = false;
    double begin_of(int frame) const { return frame * (exposure_s + pause_s); }
};

constexpr Point middle{practice::scene_width / 2 - 0.5, practice::scene_height / 2 - 0.5};
constexpr double turn_per_second = 2 * std::numbers::pi / 86164.0905;
constexpr double sigma = 0.75;  // of a star

Direction direction_of(const Sky& sky, Point p) {
    const Direction v{(p.x - middle.x) / sky.focal, (p.y - middle.y) / sky.focal, 1};
    const double length = std::hypot(v[0], v[1], v[2]);
    return {v[0] / length, v[1] / length, v[2] / length};
}

// Turned about the pole (Rodrigues).
Point later(const Sky& sky, Point at, double seconds) {
    const Direction v = direction_of(sky, at), k = direction_of(sky, sky.pole);
    const double angle = -seconds * turn_per_second, c = std::cos(angle), s = std::sin(angle);
    const double along = k[0] * v[0] + k[1] * v[1] + k[2] * v[2];
    const Direction cross{k[1] * v[2] - k[2] * v[1], k[2] * v[0] - k[0] * v[2], k[0] * v[1] - k[1] * v[0]};
    Direction out{};
    for (std::size_t i = 0; i < 3; ++i) out[i] = v[i] * c + cross[i] * s + k[i] * along * (1 - c);
    return {middle.x + sky.focal * out[0] / out[2], middle.y + sky.focal * out[1] / out[2]};
}

struct Star {
    Point at;  // at the beginning
    double light;
};
std::vector<Star> stars_of(const Sky& sky) {
    practice::Dice dice(std::uint64_t(sky.focal) + 3);
    std::vector<Star> out;
    for (int i = 0; i < 260; ++i)
        out.push_back(
            {{dice.between(-150, practice::scene_width + 150), dice.between(-150, practice::scene_height + 150)},
             0.25 + 1.5 * std::pow((i + 8.0) / 20.0, -0.8)});
    return out;
}

class OpenSky final : public practice::Scene {
  public:
    explicit OpenSky(const Sky& sky) : sky_(sky), stars_(stars_of(sky)) {}
    practice::Camera camera() const override { return {}; }
    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < sky_.frames; ++i) {
            Shot shot;
            shot.begin_s = sky_.begin_of(i);
            shot.exposure_s = sky_.exposure_s;
            shot.iso = 400;
            out.push_back(shot);
        }
        return out;
    }
    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point, Rgb) { return Rgb{0.012F, 0.014F, 0.02F}; });
    }
    void paint_moving(Canvas& canvas, std::size_t index, const Shot& shot) const override {
        constexpr int steps = 12;
        if (sky_.streaks) paint_streaks(canvas, int(index));
        for (const Star& star : stars_) {
            const double length = std::hypot(later(sky_, star.at, shot.exposure_s).x - star.at.x,
                                             later(sky_, star.at, shot.exposure_s).y - star.at.y);
            const double light = star.light / (1 + length / (4 * sigma));
            for (int i = 0; i < steps; ++i)
                canvas.streak(later(sky_, star.at, shot.begin_s + shot.exposure_s * i / steps),
                              later(sky_, star.at, shot.begin_s + shot.exposure_s * (i + 1) / steps), sigma,
                              Rgb{0.9F, 0.95F, 1.0F} * light, [](double) { return 1.0; });
        }
    }
    std::vector<practice::TruthPicture> truth() const override { return {}; }

    // A meteor in the third frame; a satellite through the fifth and sixth, at one speed.
    std::vector<practice::StreakTruth> streaks() const override {
        const double share = sky_.exposure_s / (2 * sky_.exposure_s + sky_.pause_s);
        const auto on_way = [](double part) { return Point{260 + 900 * part, 880 - 560 * part}; };
        return {{3, "meteor", {420, 300}, {590, 372}},
                {5, "satellite", on_way(0), on_way(share)},
                {6, "satellite", on_way(1 - share), on_way(1)}};
    }

  private:
    void paint_streaks(Canvas& canvas, int index) const {
        for (const practice::StreakTruth& s : streaks()) {
            if (s.frame != index + 1) continue;
            if (s.kind == "meteor")
                canvas.streak(s.from, s.to, 1.0, Rgb{0.75F, 0.95F, 0.85F},
                              [](double t) { return t < 0.8 ? std::pow(t / 0.8, 1.7) : std::pow((1 - t) / 0.2, 0.7); });
            else
                canvas.streak(s.from, s.to, 0.8, Rgb{0.16F, 0.16F, 0.15F}, [](double) { return 1.0; });
        }
    }

    Sky sky_;
    std::vector<Star> stars_;
};

// A scene is made by a plain function.
const Sky* exposed = nullptr;
std::unique_ptr<practice::Scene> expose_sky(int, std::uint64_t) {
    return std::make_unique<OpenSky>(*exposed);
}

double light(const Raster16& picture, int x, int y) {
    const double v = picture.at(x, y, 1) / 65535.0;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

// The light of a trail across its way at a place, above the sky's.
double across(const Raster16& picture, Point p, Point way) {
    const double length = std::hypot(way.x, way.y);
    const Point side{-way.y / length, way.x / length};
    const auto at = [&](double off) {
        const double x = p.x + side.x * off, y = p.y + side.y * off;
        const int u = int(std::floor(x)), v = int(std::floor(y));
        const double right = x - u, below = y - v;
        return (light(picture, u, v) * (1 - right) + light(picture, u + 1, v) * right) * (1 - below) +
               (light(picture, u, v + 1) * (1 - right) + light(picture, u + 1, v + 1) * right) * below;
    };
    double sum = 0;
    for (int i = -4; i <= 4; ++i) sum += at(i * 0.5);
    return sum - 9 * (at(-6) + at(6)) / 2;
}

// Samples that differ further than 5 pixels from all trails.
std::size_t changed_beside(const Sky& sky, const Raster16& plain, const Raster16& closed) {
    constexpr int reach = 5;
    const double scale = plain.width() / practice::scene_width;
    const double end = sky.begin_of(sky.frames - 1) + sky.exposure_s;
    std::vector<char> near(plain.data().size() / 3);
    for (const Star& star : stars_of(sky))
        for (int t = 0; t <= int(end); t += 4) {
            const Point p = later(sky, star.at, t);
            const int x = int(std::lround((p.x + 0.5) * scale - 0.5)), y = int(std::lround((p.y + 0.5) * scale - 0.5));
            for (int v = std::max(0, y - reach); v <= std::min(plain.height() - 1, y + reach); ++v)
                for (int u = std::max(0, x - reach); u <= std::min(plain.width() - 1, x + reach); ++u)
                    near[std::size_t(v) * std::size_t(plain.width()) + std::size_t(u)] = 1;
        }
    std::size_t out = 0, far = 0;
    for (std::size_t i = 0; i < near.size(); ++i) {
        if (near[i]) continue;
        ++far;
        for (std::size_t c = 0; c < 3; ++c) out += plain.data()[3 * i + c] != closed.data()[3 * i + c];
    }
    REQUIRE(far > near.size() / 4);
    return out;
}

// Light in the breaks over the trail's own: its third percentile, in the middle over the stars.
double closed_share(const Sky& sky, const Raster16& picture) {
    const double scale = picture.width() / practice::scene_width;
    const double end = sky.begin_of(sky.frames - 1) + sky.exposure_s;
    std::vector<double> of_stars;
    for (const Star& star : stars_of(sky)) {
        std::vector<double> own, breaks;
        bool inside = true;
        for (int i = 0; inside && i * sky.exposure_s / 30 < end; ++i) {
            const double t = i * sky.exposure_s / 30;
            const auto pixel = [&](double seconds) {
                const Point p = later(sky, star.at, seconds);
                return Point{(p.x + 0.5) * scale - 0.5, (p.y + 0.5) * scale - 0.5};
            };
            const Point p = pixel(t), next = pixel(t + 1);
            inside = p.x > 12 && p.y > 12 && p.x < picture.width() - 12 && p.y < picture.height() - 12;
            if (!inside) break;
            const double in_period = std::fmod(t, sky.exposure_s + sky.pause_s);
            const double value = across(picture, p, {next.x - p.x, next.y - p.y});
            (in_period > sky.exposure_s ? breaks : own).push_back(value);
        }
        if (!inside || breaks.empty() || star.light < 0.4) continue;
        std::sort(breaks.begin(), breaks.end());
        of_stars.push_back(breaks[breaks.size() * 3 / 100] / middle_of(own));
    }
    REQUIRE(of_stars.size() > 20);
    return middle_of(of_stars);
}

const std::vector<Sky>& kinds_of_sky() {
    static const std::vector<Sky> all{
        {"wide, pole in the picture", 900, {900, 300}, 60, 15}, {"wide, pole above", 900, {700, -900}, 60, 6},
        {"normal, pole outside", 1800, {400, -1800}, 40, 20},   {"long, pole far outside", 4200, {9000, -5200}, 20, 10},
        {"long, pause as long", 3600, {-4000, -3000}, 15, 15},
    };
    return all;
}

struct Run {
    explicit Run(const Sky& sky) {
        practice::PracticeOptions options;
        options.size = {1000, 667};
        options.truth = false;
        Job job;
        exposed = &sky;
        const practice::SceneEntry entry{"sky", sky.frames, Outcome::trails, "", expose_sky};
        const auto practised = practice::practise(entry, folder.path(), options, job);
        REQUIRE(practised.ok());
        std::vector<NamedFile> named;
        for (const fs::path& file : practised.value().frames) named.push_back({file, Role::scene});
        pile = with_mode(open_frames(named, Outcome::trails, Order::captured, job).value(), Mode::maximum);
        pile.cover = Cover::any;
    }
    Folder folder;
    Pile pile;
};

}  // namespace

TEST_CASE("breaks are closed under skies of many kinds, and nothing beside the trails is touched") {
    for (const Sky& sky : kinds_of_sky()) {
        const Run run(sky);
        const Raster16 plain = test::render_all(run.pile).value();
        const Raster16 closed = test::render_all(with_knit(run.pile, {true, 60})).value();
        const double before = closed_share(sky, plain), after = closed_share(sky, closed);
        INFO(sky.name << ": " << before << " to " << after);
        CHECK(after > 0.9);
        CHECK(after > before);
        CHECK(changed_beside(sky, plain, closed) == 0);
    }
}

TEST_CASE("streaks are found under skies of many kinds, and none else") {
    for (Sky sky : kinds_of_sky()) {
        sky.streaks = true;
        const Run run(sky);
        FrameStore store(working_space(run.pile), {0, std::size_t(1) << 30});
        Job job;
        const auto lights = moving_lights(run.pile, store, job);
        REQUIRE(lights.ok());
        INFO(sky.name);
        std::vector<std::pair<int, std::string>> found, expected;
        for (const Streak& s : lights.value()->streaks) {
            UNSCOPED_INFO(number_of(run.pile, s.frame) << ": " << s.line.from.x << " " << s.line.from.y << " to "
                                                       << s.line.to.x << " " << s.line.to.y);
            found.emplace_back(number_of(run.pile, s.frame), streak_kinds()[std::size_t(s.kind)].name);
        }
        for (const practice::StreakTruth& t : OpenSky(sky).streaks()) expected.emplace_back(t.frame, t.kind);
        std::sort(found.begin(), found.end());
        CHECK(found == expected);
    }
}

}  // namespace bp
