// Twenty frames over five hours: the sky turns far between them, and nearly each has caught a meteor.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/scenes/night_sky.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double sea = 842;
constexpr double exposure_s = 20;
constexpr double watch_s = 5 * 3600;
constexpr std::uint64_t land = 8123;
constexpr Point pole{560, 250};
constexpr Point lantern{1352, 812};

double isle(double x) {
    return sea + 2 - 46 * std::exp(-std::pow((x - 300) / 150, 2)) * (0.8 + 0.4 * cloudy(land, x / 70, 1, 5)) -
           30 * std::exp(-std::pow((x - 96) / 120, 2));
}

double mole(double x) {
    return sea + 40 - 52 * smooth_step(1080, 1150, x) * (0.94 + 0.06 * cloudy(land + 3, x / 26, 2, 4));
}

double dune(double x) {
    return 1010 - 60 * smooth_step(200, 760, x) * (0.7 + 0.4 * cloudy(land + 6, x / 300, 4, 4)) +
           70 * smooth_step(900, 1500, x);
}

double open_sky(Point p) {
    if (p.y > std::min({isle(p.x), mole(p.x), sea})) return 0;
    if (std::abs(p.x - lantern.x) < 5 && p.y > lantern.y - 22) return 0;
    return 1 - 0.8 * smooth_step(610, sea, p.y);
}

// The night is darkest in its middle: dusk before it, dawn after it.
Rgb air(Point p, double part) {
    const double up = std::clamp(p.y / sea, 0.0, 1.0);
    const double dusk = std::exp(-part / 0.16);
    const double dawn = std::exp(-(1 - part) / 0.13);
    Rgb sky = mix({0.0030F, 0.0052F, 0.0130F}, {0.0095F, 0.0165F, 0.0300F}, std::pow(up, 1.7));
    sky = sky + Rgb{0.016F, 0.011F, 0.009F} * (dusk * std::pow(up, 3.0) * (1 - 0.5 * p.x / scene_width));
    return sky + Rgb{0.010F, 0.013F, 0.017F} * (dawn * std::pow(up, 2.2) * (0.4 + 0.6 * p.x / scene_width));
}

// A point of the sky, `away` radians from the radiant in a way of its own.
NightSky::Direction beside_radiant(double away, double way) {
    const double height = 0.92;  // of the radiant above the sky's equator, radians
    const double around = 0.75;
    const NightSky::Direction radiant{std::cos(height) * std::cos(around), std::cos(height) * std::sin(around),
                                      std::sin(height)};
    const NightSky::Direction north{-std::sin(height) * std::cos(around), -std::sin(height) * std::sin(around),
                                    std::cos(height)};
    const NightSky::Direction east{-std::sin(around), std::cos(around), 0};
    NightSky::Direction out{};
    for (std::size_t i = 0; i < 3; ++i)
        out[i] = std::cos(away) * radiant[i] + std::sin(away) * (std::cos(way) * north[i] + std::sin(way) * east[i]);
    return out;
}

struct Meteor {
    int frame;  // number, from 1
    NightSky::Direction from, to;
    double light;
};

class NightWatch final : public Scene {
  public:
    NightWatch(int frames, std::uint64_t seed) : frames_(frames), sky_(seed * 57 + 3, 2400, pole) {
        Dice dice(seed + 77);
        for (int frame = 1; frame <= frames; ++frame) {
            if (is_cloudy(frame - 1)) continue;
            const double middle = begin_of(frame - 1) + exposure_s / 2;
            // The first that falls into the picture, of many that would.
            for (int tries = 0; tries < 200; ++tries) {
                const double way = dice.between(0, 2 * std::numbers::pi);
                const double away = dice.between(0.12, 0.75);
                const double length = dice.between(0.06, 0.17) * (0.5 + away);
                const Meteor meteor{frame, beside_radiant(away, way), beside_radiant(away + length, way),
                                    dice.between(0.35, 1.1)};
                const auto a = sky_.seen(meteor.from, middle);
                const auto b = sky_.seen(meteor.to, middle);
                const auto inside = [](const std::optional<Point>& p) {
                    return p && p->x > 30 && p->x < scene_width - 30 && p->y > 30 && p->y < 700;
                };
                if (!inside(a) || !inside(b)) continue;
                meteors_.push_back(meteor);
                break;
            }
        }
    }

    Camera camera() const override { return {"Skerrow practice camera", 2.0, 20, 60, std::nullopt, 1786399200.5}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = begin_of(i);
            shot.exposure_s = exposure_s;
            shot.iso = 3200;
            if (is_cloudy(i)) shot.cloud = 1;
            // Somebody stumbled over the tripod in the dark.
            if (i >= frames_ * 3 / 5) shot.to_scene = Matrix::rigid(0.0016, {800, 533}, 3.2, -2.1);
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) { return air(p, 0.5); });
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        canvas.paint(below(isle, all), [](Point p) {
            return air({p.x, sea - 20}, 0.5) * 0.3 * (1 + 0.4 * cloudy(land + 1, p.x / 18, p.y / 8, 4));
        });
        canvas.glow({212, sea - 34}, 1.3, Rgb{0.5F, 0.34F, 0.16F});
        canvas.glow({352, sea - 26}, 1.0, Rgb{0.36F, 0.26F, 0.14F});
        paint_mole(canvas);
        paint_water(canvas, sea + 3, scene_height + 60, land + 20, 6, Rgb{0.0016F, 0.0028F, 0.0042F}, 0.5);
        canvas.paint(below(dune, all), [](Point p) {
            const double grass = cloudy(land + 8, p.x / 5, p.y / 30, 4);
            const double rim = std::exp(-(p.y - dune(p.x)) / 26);
            const double warm = std::exp(-std::hypot(p.x - lantern.x, (p.y - 960) * 1.5) / 420);
            return (Rgb{0.0030F, 0.0036F, 0.0048F} + Rgb{0.010F, 0.012F, 0.017F} * (0.6 * rim) +
                    Rgb{0.020F, 0.013F, 0.006F} * warm) *
                   (0.8 + 0.5 * grass);
        });
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot& shot) const override {
        const double part = shot.begin_s / watch_s;
        const double veil = shot.cloud;
        canvas.each([&](Point p, Rgb old) {
            if (open_sky(p) <= 0) return old;
            const Rgb base = old + air(p, part) + air(p, 0.5) * -1.0;
            return base +
                   Rgb{0.013F, 0.014F, 0.018F} * (veil * (0.7 + 0.4 * cloudy(land + 40, p.x / 420, p.y / 150, 5)));
        });
        sky_.expose(canvas, shot.begin_s, shot.begin_s + shot.exposure_s, 1.0,
                    [&](Point p) { return open_sky(p) * (1 - 0.985 * veil); });
        for (const Meteor& meteor : meteors_)
            if (meteor.frame == int(index) + 1) paint(canvas, meteor, shot.begin_s + exposure_s / 2);
    }

    std::vector<TruthPicture> truth() const override {
        return {{"shower", [this](const Canvas& still) {
                     // The first frame's sky, and every meteor where it would have been seen then.
                     Canvas out = still.clone();
                     out.each(
                         [](Point p, Rgb old) { return open_sky(p) > 0 ? old + air(p, 0) + air(p, 0.5) * -1.0 : old; });
                     sky_.expose(out, 0, exposure_s, 1.0, open_sky);
                     for (const Meteor& meteor : meteors_) paint(out, meteor, exposure_s / 2);
                     return out;
                 }}};
    }

    std::vector<StreakTruth> streaks() const override {
        std::vector<StreakTruth> out;
        for (const Meteor& meteor : meteors_) {
            const double middle = begin_of(meteor.frame - 1) + exposure_s / 2;
            out.push_back({meteor.frame, "meteor", *sky_.seen(meteor.from, middle), *sky_.seen(meteor.to, middle)});
        }
        return out;
    }

    std::optional<Lens> lens() const override { return sky_.lens(); }

  private:
    double begin_of(int frame) const { return frames_ > 1 ? (watch_s - exposure_s) * frame / (frames_ - 1) : 0; }
    bool is_cloudy(int frame) const { return frame == frames_ * 2 / 5; }

    void paint(Canvas& canvas, const Meteor& meteor, double at_s) const {
        const auto a = sky_.seen(meteor.from, at_s);
        const auto b = sky_.seen(meteor.to, at_s);
        if (!a || !b) return;
        const double open = open_sky({(a->x + b->x) / 2, (a->y + b->y) / 2});
        canvas.streak(*a, *b, 0.9, Rgb{0.72F, 0.95F, 0.86F} * (meteor.light * open),
                      [](double t) { return t < 0.78 ? std::pow(t / 0.78, 1.6) : std::pow((1 - t) / 0.22, 0.7); });
    }

    static void paint_mole(Canvas& canvas) {
        const Box all{1040, 700, scene_width + 100, scene_height + 100};
        canvas.paint(below(mole, all), [](Point p) {
            const double stones = masonry(land + 5, p, 12);
            const double lit = std::exp(-std::hypot(p.x - lantern.x, p.y - lantern.y) / 90);
            return (Rgb{0.004F, 0.0048F, 0.006F} + Rgb{0.085F, 0.055F, 0.026F} * lit) * stones;
        });
        canvas.paint(bar(lantern.x - 2, lantern.y - 4, lantern.x + 2, sea - 6), Rgb{0.010F, 0.009F, 0.009F});
        canvas.paint(bar(lantern.x - 4, lantern.y - 16, lantern.x + 4, lantern.y - 4, 1), Rgb{1.5F, 1.0F, 0.5F});
        canvas.glow({lantern.x, lantern.y - 10}, 22, Rgb{0.11F, 0.070F, 0.030F});
        canvas.glow({lantern.x, lantern.y - 10}, 5, Rgb{0.5F, 0.34F, 0.16F});
    }

    int frames_;
    NightSky sky_;
    std::vector<Meteor> meteors_;
};

}  // namespace

std::unique_ptr<Scene> make_night_watch(int frames, std::uint64_t seed) {
    return std::make_unique<NightWatch>(frames, seed);
}

}  // namespace bp::practice
