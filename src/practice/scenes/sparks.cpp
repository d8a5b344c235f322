// The forge's yard at night: six fountains of sparks from the grinding wheel, each in its own place.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double ground = 838;
constexpr std::uint64_t yard = 7411;
constexpr Point door{1316, 640};

struct Fountain {
    Point from;
    double way;     // radians, 0 to the right and growing downwards
    double spread;  // radians to both sides
    double speed;   // scene units a second
    int sparks;
    double light;
};

// One after the other; a run that is longer begins again.
constexpr Fountain fountains[] = {
    {{330, 700}, -0.95, 0.42, 900, 300, 1.0},  {{790, 742}, -1.62, 0.30, 1040, 260, 0.9},
    {{1150, 706}, -2.35, 0.36, 860, 280, 1.0}, {{560, 560}, -0.30, 0.52, 720, 240, 0.85},
    {{930, 470}, -2.75, 0.60, 620, 220, 0.8},  {{210, 610}, -0.62, 0.24, 1120, 260, 0.9},
};

class Sparks final : public Scene {
  public:
    Sparks(int frames, std::uint64_t seed) : frames_(frames), seed_(seed) {}

    Camera camera() const override { return {"Skerrow practice camera", 8, 35, 20, std::nullopt, 1793216400.75}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = 42.0 * i;
            shot.exposure_s = 4;
            shot.iso = 400;
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) {
            const double up = std::clamp(p.y / ground, 0.0, 1.0);
            return mix({0.0012F, 0.0018F, 0.0036F}, {0.0034F, 0.0040F, 0.0060F}, up * up);
        });
        paint_wall(canvas);
        paint_ground(canvas);
        paint_things(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot&) const override {
        const Fountain& f = fountain(int(index));
        // What they light: the ground below, the wall behind, the smith's apron.
        canvas.each([&](Point p, Rgb old) {
            const double far = std::hypot(p.x - f.from.x, (p.y - f.from.y) * (p.y > ground ? 2.2 : 1.0));
            return old + old * (9.0 * f.light * std::exp(-far / 150)) * Rgb{1.0F, 0.62F, 0.30F};
        });
        paint_fountain(canvas, int(index));
    }

    std::vector<TruthPicture> truth() const override {
        return {{"shower",
                 [this](const Canvas& still) {
                     Canvas out = still.clone();
                     for (int i = 0; i < frames_; ++i) paint_fountain(out, i);
                     return out;
                 }},
                {"sparks", [this](const Canvas& still) {
                     // On black.
                     Canvas out = still.clone();
                     out.each([](Point, Rgb) { return Rgb{}; });
                     for (int i = 0; i < frames_; ++i) paint_fountain(out, i);
                     return out;
                 }}};
    }

  private:
    static const Fountain& fountain(int index) { return fountains[std::size_t(index) % std::size(fountains)]; }

    // A spark flies, falls, cools from white to red, and may burst.
    static void paint_spark(Canvas& canvas, Point at, Point speed, double life_s, double light, double heat, Dice& dice,
                            int bursts) {
        constexpr double beat_s = 0.02;
        constexpr double drag = 1.5, weight = 620;
        const int beats = int(std::ceil(life_s / beat_s));
        for (int beat = 0; beat < beats; ++beat) {
            const double t = beat * beat_s;
            const Point next{at.x + speed.x * beat_s, at.y + speed.y * beat_s};
            const double hot = heat * (1 - t / life_s);
            const Rgb colour = mix(mix({0.62F, 0.10F, 0.02F}, {1.0F, 0.50F, 0.13F}, std::min(1.0, 2 * hot)),
                                   {1.0F, 0.86F, 0.58F}, std::max(0.0, 2 * hot - 1));
            const double bright = light * (0.15 + 0.85 * hot) * 300 / (120 + std::hypot(speed.x, speed.y));
            const double rest = 1 - t / life_s;
            canvas.streak(at, next, 0.62 + 0.35 * rest, colour * bright, [](double) { return 1.0; });
            at = next;
            if (at.y > ground + 90 && speed.y > 0) {
                // It leaps from the ground once more.
                speed.y *= -0.32;
                speed.x *= 0.6;
            }
            const double slow = std::exp(-drag * beat_s);
            speed = {speed.x * slow, speed.y * slow + weight * beat_s};
        }
        if (bursts <= 0 || dice.unit() > 0.42) return;
        const int rays = 4 + int(4 * dice.unit());
        for (int i = 0; i < rays; ++i) {
            const double way = 2 * std::numbers::pi * (i + dice.unit()) / rays;
            const double fast = dice.between(60, 190);
            paint_spark(canvas, at, {0.35 * speed.x + fast * std::cos(way), 0.35 * speed.y + fast * std::sin(way)},
                        dice.between(0.06, 0.14), 0.8 * light, 0.9, dice, bursts - 1);
        }
    }

    void paint_fountain(Canvas& canvas, int index) const {
        const Fountain& f = fountain(index);
        Dice dice(seed_ * 9176 + std::uint64_t(index) * 541);
        for (int i = 0; i < f.sparks; ++i) {
            const double way = f.way + f.spread * 0.6 * double(dice.bell());
            const double fast = f.speed * dice.between(0.35, 1.1);
            paint_spark(canvas, f.from, {fast * std::cos(way), fast * std::sin(way)}, dice.between(0.25, 0.95),
                        0.5 * f.light * dice.between(0.35, 1.2), dice.between(0.7, 1.0), dice, 1);
        }
        canvas.glow(f.from, 7, Rgb{1.1F, 0.72F, 0.34F} * f.light);
        canvas.glow(f.from, 46, Rgb{0.055F, 0.030F, 0.012F} * f.light);
    }

    static double brick(Point p) {
        const double course = 15, length = 38;
        const double row = std::floor(p.y / course);
        const double x = p.x + (std::fmod(row, 2) == 0 ? 0 : length / 2);
        const double joint = std::min(std::abs(std::fmod(p.y, course) - 1.2), std::abs(std::fmod(x, length) - 1.2));
        const double own = hashed(yard + 2, std::int64_t(row), std::int64_t(std::floor(x / length)));
        return (joint < 1.2 ? 0.55 : 0.8 + 0.5 * own) * (1 + 0.25 * cloudy(yard + 3, p.x / 9, p.y / 9, 3));
    }

    static void paint_wall(Canvas& canvas) {
        const double roof = 190;
        canvas.paint(polygon({{980, ground + 4}, {980, 330}, {1290, roof}, {1660, 330}, {1660, ground + 4}}),
                     [](Point p) {
                         const double lit = std::exp(-std::hypot(p.x - door.x, p.y - door.y) / 190);
                         return (Rgb{0.0042F, 0.0032F, 0.0030F} + Rgb{0.030F, 0.013F, 0.005F} * lit) * brick(p);
                     });
        canvas.paint(rope({{956, 342}, {1290, roof - 8}, {1690, 344}}, 7), Rgb{0.0022F, 0.0022F, 0.0026F});
        // The door stands open on the hearth.
        canvas.paint(bar(door.x - 62, 520, door.x + 62, ground + 2), [](Point p) {
            const double hearth = std::exp(-std::hypot((p.x - door.x - 14) / 40, (p.y - 742) / 46));
            return Rgb{0.011F, 0.0050F, 0.0022F} + Rgb{0.62F, 0.22F, 0.050F} * std::pow(hearth, 1.5);
        });
        canvas.paint(
            without(bar(door.x - 70, 510, door.x + 70, ground + 2), bar(door.x - 62, 520, door.x + 62, ground + 4)),
            Rgb{0.0040F, 0.0032F, 0.0028F});
        canvas.glow({door.x, 740}, 90, Rgb{0.016F, 0.0065F, 0.0020F});
        // A fence to the left, against the sky.
        for (int i = 0; i < 27; ++i) {
            const double x = -10 + i * 37.5;
            const double top = 640 + 14 * hashed(yard + 8, i);
            canvas.paint(bar(x, top, x + 30, ground + 6, 2), [x](Point p) {
                return Rgb{0.0030F, 0.0028F, 0.0030F} * (1 + 0.5 * cloudy(yard + 9, (p.x - x) / 3 + x, p.y / 60, 3));
            });
        }
    }

    static void paint_ground(Canvas& canvas) {
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        const auto level = [](double x) { return ground + 3 * cloudy(yard + 10, x / 60, 1, 3); };
        canvas.paint(below(level, all), [](Point p) {
            const double far = (p.y - ground) / (scene_height - ground);
            const double size = 5 + 22 * far;
            const double stones = cloudy(yard + 11, p.x / size, (p.y - ground) / (0.36 * size + 1), 4);
            const double lit = std::exp(-std::hypot((p.x - door.x) / 190, (p.y - ground) / 90));
            return (Rgb{0.0040F, 0.0040F, 0.0046F} + Rgb{0.055F, 0.022F, 0.007F} * lit) * (0.75 + 0.6 * stones);
        });
    }

    // A cart wheel against the fence, an anvil on its block, a trough.
    static void paint_things(Canvas& canvas) {
        const Point hub{118, 770};
        const Rgb wood{0.0062F, 0.0050F, 0.0042F};
        canvas.paint(without(circle(hub, 84), circle(hub, 74)), wood);
        canvas.paint(circle(hub, 13), wood);
        for (int i = 0; i < 10; ++i) {
            const double way = 2 * std::numbers::pi * i / 10;
            canvas.paint(capsule(hub, {hub.x + 78 * std::cos(way), hub.y + 78 * std::sin(way)}, 3, 2.4), wood);
        }
        canvas.paint(bar(640, 800, 716, 884, 3), [](Point p) {
            return Rgb{0.0058F, 0.0046F, 0.0038F} * (1 + 0.4 * cloudy(yard + 12, p.x / 3, p.y / 40, 3));
        });
        canvas.paint(polygon({{626, 772},
                              {604, 768},
                              {600, 776},
                              {640, 790},
                              {652, 802},
                              {704, 802},
                              {716, 788},
                              {736, 784},
                              {736, 770}}),
                     [](Point p) {
                         return Rgb{0.0060F, 0.0064F, 0.0074F} * (p.y < 775 ? 1.9 : 1.0);
                     });
        canvas.paint(bar(1420, 806, 1590, 872, 4), [](Point p) {
            return Rgb{0.0072F, 0.0052F, 0.0040F} * (0.7 + 0.5 * masonry(yard + 13, p, 16));
        });
    }

    int frames_;
    std::uint64_t seed_;
};

}  // namespace

std::unique_ptr<Scene> make_sparks(int frames, std::uint64_t seed) {
    return std::make_unique<Sparks>(frames, seed);
}

}  // namespace bp::practice
