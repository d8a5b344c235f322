// A still marsh at dusk: fireflies flash and drift, glow-worms wander, and a punt with a lantern goes home.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double shore = 548;      // the far one
constexpr double near_bank = 884;  // where the reeds begin
constexpr double exposure_s = 20;
constexpr double pause_s = 4;
// The evening: in fewer frames it is cut short, in more it goes on.
constexpr double run_s = 24 * (exposure_s + pause_s);
constexpr std::uint64_t marsh = 5501;

double treeline(double x) {
    return shore - 26 - 44 * smooth_step(-0.4, 0.7, cloudy(marsh + 1, x / 120, 3, 5)) -
           34 * std::exp(-std::pow((x - 1230) / 120, 2)) - 7 * cloudy(marsh + 9, x / 11, 5, 4) -
           5 * std::abs(cloudy(marsh + 11, x / 26, 8, 2)) + 12 * smooth_step(500, 760, x) * smooth_step(1000, 760, x);
}

double hills(double x) {
    return shore - 58 - 46 * (0.5 + 0.5 * cloudy(marsh + 2, x / 420, 1, 4));
}

double bank(double x) {
    return near_bank + 70 * smooth_step(300, 760, x) * smooth_step(1350, 900, x) +
           22 * cloudy(marsh + 3, x / 160, 2, 4);
}

Rgb dusk(Point p) {
    const double down = std::clamp(p.y / shore, 0.0, 1.0);
    Rgb out = mix({0.0045F, 0.0085F, 0.0210F}, {0.030F, 0.036F, 0.048F}, std::pow(down, 1.8));
    const double glow = std::exp(-std::pow((p.x - 520) / 620, 2)) * std::pow(down, 5.0);
    out = out + Rgb{0.085F, 0.045F, 0.022F} * glow;
    const double streaks = smooth_step(0.05, 0.7, cloudy(marsh + 4, p.x / 340 + p.y / 900, p.y / 34, 4));
    return out + Rgb{0.012F, 0.007F, 0.008F} * (streaks * std::pow(down, 2.5));
}

// Where a light is at a moment, and how bright: 1 is its own.
struct Flight {
    std::function<Point(double)> place;
    std::function<double(double)> light;
    Rgb colour;
    double sigma;
    bool mirrored;  // it lies on the water and is seen in it
};

// Smooth ways between about -1 and 1.
double wander(std::uint64_t seed, double t) {
    return 1.4 * noise(seed, t, 0.5) + 0.4 * noise(seed + 1, 2.7 * t, 0.5);
}

// A firefly at its place in the reeds or over the water: it flashes every few seconds, and every flash is a stroke in
// a way of its own, mostly upwards.
Flight firefly(std::uint64_t seed) {
    Dice dice(seed);
    const Point home{dice.between(40, scene_width - 40), dice.between(shore + 26, 1030)};
    const double nearness = 0.45 + 0.75 * (home.y - shore) / (scene_height - shore);
    const double reach = 190 * nearness;
    const double period = dice.between(5.5, 15), phase = dice.unit() * period, flash = dice.between(0.3, 0.8);
    const double begin = dice.between(-0.3, 0.75) * run_s, awake = dice.between(0.25, 0.8) * run_s;
    const auto own = dice.next();
    const double strong = std::pow(dice.unit(), 1.5) * nearness + 0.08;
    const Rgb colour = mix({0.55F, 1.0F, 0.16F}, {1.0F, 0.90F, 0.24F}, dice.unit());
    const auto flash_of = [=](double t) { return std::int64_t(std::floor((t + phase) / period)); };
    return {[=](double t) -> Point {
                const double in_flash = std::min(1.0, std::fmod(t + phase, period) / flash) - 0.5;
                const double way = -std::numbers::pi / 2 + 2.2 * (hashed(own, flash_of(t)) - 0.5);
                const double length = (8 + 20 * hashed(own + 1, flash_of(t))) * nearness;
                const double bend = 14 * (hashed(own + 2, flash_of(t)) - 0.5) * nearness * (in_flash * in_flash);
                return {home.x + reach * wander(own, t / 62) + length * in_flash * std::cos(way) - bend * std::sin(way),
                        home.y + 0.4 * reach * wander(own + 7, t / 51) + length * in_flash * std::sin(way) +
                            bend * std::cos(way)};
            },
            [=](double t) {
                if (t < begin || t > begin + awake) return 0.0;
                const double in_flash = std::fmod(t + phase, period) / flash;
                return in_flash < 1 ? strong * std::pow(std::sin(in_flash * std::numbers::pi), 2) : 0.0;
            },
            colour, 0.7 + 0.5 * nearness, false};
}

// A beetle that glows without flashing and takes a straight mind to where it wants.
Flight glow_beetle(Point from, Point to, double bow, double light) {
    return {
        [=](double t) -> Point {
            const double s = t / run_s;
            return {from.x + (to.x - from.x) * s, from.y + (to.y - from.y) * s - bow * std::sin(s * std::numbers::pi)};
        },
        [=](double) { return light; }, Rgb{0.60F, 0.95F, 0.30F}, 1.15, false};
}

Point punt_at(double t) {
    const double s = t / run_s;
    return {1500 - 1220 * s, 690 + 46 * std::sin(1.3 * s) + 2.2 * std::sin(t / 5.1)};
}

class Fireflies final : public Scene {
  public:
    Fireflies(int frames, std::uint64_t seed) : frames_(frames) {
        constexpr int flies = 90;
        for (int i = 0; i < flies; ++i) flights_.push_back(firefly(seed * 7919 + std::uint64_t(i) * 131));
        steady_.push_back(glow_beetle({130, 770}, {700, 470}, 60, 0.020));
        steady_.push_back(glow_beetle({1490, 800}, {960, 610}, -50, 0.017));
        steady_.push_back(
            {[](double t) { return punt_at(t); }, [](double) { return 0.055; }, Rgb{1.0F, 0.62F, 0.25F}, 1.5, true});
    }

    Camera camera() const override { return {"Skerrow practice camera", 2.8, 28, 30, std::nullopt, 1782850500.25}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = begin_of(i);
            shot.exposure_s = exposure_s;
            shot.iso = 1600;
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) { return dusk(p); });
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        canvas.paint(below(hills, all), [](Point p) {
            return mix(dusk({p.x, shore - 40}), {0.010F, 0.014F, 0.021F}, 0.62) *
                   (1 + 0.10 * cloudy(marsh + 5, p.x / 40, p.y / 12, 4));
        });
        canvas.paint(below(treeline, all), [](Point p) {
            const double leaves = cloudy(marsh + 6, p.x / 9, p.y / 7, 4);
            return Rgb{0.0060F, 0.0090F, 0.0105F} * (1 + 0.45 * leaves);
        });
        // Mist over the far shore.
        canvas.each([](Point p, Rgb old) {
            const double high = std::exp(-std::pow((p.y - shore + 4) / 24, 2));
            const double thick = smooth_step(-0.5, 0.8, cloudy(marsh + 7, p.x / 260, p.y / 40, 4));
            return mix(old, {0.034F, 0.040F, 0.050F}, 0.62 * high * thick);
        });
        paint_water(canvas, shore + 2, scene_height + 60, marsh + 20, 5, Rgb{0.0030F, 0.0052F, 0.0072F}, 0.72);
        paint_tufts(canvas);
        canvas.paint(below(bank, all), [](Point p) {
            const double grass = cloudy(marsh + 8, p.x / 4, p.y / 36, 4);
            const double rim = std::exp(-(p.y - bank(p.x)) / 20);
            return (Rgb{0.0022F, 0.0032F, 0.0026F} + Rgb{0.010F, 0.012F, 0.011F} * (0.5 * rim)) * (0.8 + 0.6 * grass);
        });
        paint_reeds(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t, const Shot& shot) const override {
        paint_punt(canvas, shot.begin_s + shot.exposure_s / 2);
        expose(canvas, shot.begin_s, shot.begin_s + shot.exposure_s);
    }

    std::vector<TruthPicture> truth() const override {
        return {{"trails", [this](const Canvas& still) { return trails(still, false); }},
                {"knitted", [this](const Canvas& still) { return trails(still, true); }},
                {"lights", [this](const Canvas& still) {
                     // The light of all frames together, without the marsh.
                     Canvas out = still.clone();
                     out.each([](Point, Rgb) { return Rgb{}; });
                     for (int i = 0; i < frames_; ++i) expose(out, begin_of(i), begin_of(i) + exposure_s);
                     return out;
                 }}};
    }

  private:
    static double begin_of(int frame) { return frame * (exposure_s + pause_s); }

    static void expose(Canvas& canvas, const Flight& flight, double from, double to) {
        // In steps that are shorter than the light is wide.
        constexpr double beat_s = 0.06;
        for (double t = from; t < to;) {
            const double light = flight.light(t + beat_s / 2);
            if (light <= 0) {
                t += beat_s;
                continue;
            }
            const Point a = flight.place(t), b = flight.place(t + beat_s);
            const double far = std::hypot(b.x - a.x, b.y - a.y);
            const int steps = std::max(1, int(far / (0.6 * flight.sigma)));
            for (int i = 0; i < steps; ++i) {
                const Point p = flight.place(t + beat_s * (i + 0.5) / steps);
                canvas.glow(p, flight.sigma, flight.colour * (light / steps));
                if (flight.mirrored)
                    canvas.glow({p.x, p.y + 19 + 4 * noise(marsh + 40, p.x / 5, t)}, 1.3 * flight.sigma,
                                flight.colour * (0.34 * light / steps));
            }
            t += beat_s;
        }
    }
    void expose(Canvas& canvas, double from, double to) const {
        for (const Flight& flight : flights_) expose(canvas, flight, from, to);
        for (const Flight& flight : steady_) expose(canvas, flight, from, to);
    }

    // The maximum of all frames; where the lights that do not flash go on through the pauses, in moments between them.
    Canvas trails(const Canvas& still, bool through_pauses) const {
        constexpr int between = 4;
        Canvas best = still.clone();
        for (int i = 0; i < frames_; ++i) {
            Canvas one = still.clone();
            expose(one, begin_of(i), begin_of(i) + exposure_s);
            best.lighten(one);
            for (int j = 1; through_pauses && i + 1 < frames_ && j <= between; ++j) {
                Canvas moment = still.clone();
                const double begin = begin_of(i) + (exposure_s + pause_s) * j / (between + 1);
                for (const Flight& flight : steady_) expose(moment, flight, begin, begin + exposure_s);
                best.lighten(moment);
            }
        }
        return best;
    }

    void paint_punt(Canvas& canvas, double t) const {
        const Point at = punt_at(t);
        canvas.paint(capsule({at.x - 34, at.y + 17}, {at.x + 26, at.y + 17}, 2.2, 2.8), Rgb{0.0035F, 0.0040F, 0.0045F},
                     0.55);
        canvas.paint(capsule({at.x + 8, at.y + 14}, {at.x + 7, at.y - 12}, 3.2, 2.4), Rgb{0.0032F, 0.0034F, 0.0040F},
                     0.5);
    }

    static void paint_tufts(Canvas& canvas) {
        Dice dice(marsh + 60);
        constexpr int tufts = 34;
        for (int i = 0; i < tufts; ++i) {
            const double y = shore + 20 + std::pow(dice.unit(), 1.6) * 300;
            const double x = dice.between(-20, scene_width + 20);
            const double size = 0.25 + (y - shore) / 330;
            for (int blade = 0; blade < 14; ++blade) {
                const double lean = dice.between(-16, 16) * size, high = dice.between(16, 46) * size;
                const double foot = x + dice.between(-22, 22) * size;
                canvas.paint(capsule({foot, y + 3}, {foot + lean, y - high}, 0.9 * size, 0.3 * size),
                             Rgb{0.0050F, 0.0070F, 0.0062F} * dice.between(0.6, 1.3));
                canvas.paint(capsule({foot, y + 4}, {foot + lean, y + 0.8 * high}, 0.8 * size, 0.3 * size),
                             Rgb{0.0042F, 0.0062F, 0.0068F}, 0.5);
            }
        }
    }

    static void paint_reeds(Canvas& canvas) {
        Dice dice(marsh + 70);
        constexpr int stems = 190;
        for (int i = 0; i < stems; ++i) {
            const double edge = std::pow(dice.unit(), 1.7) * 560;
            const double x = dice.unit() < 0.5 ? edge - 20 : scene_width + 20 - edge;
            const double foot = std::max(bank(x) + dice.between(-4, 60), 900.0);
            const double high = dice.between(90, 310) * (1 - 0.55 * edge / 560), lean = dice.between(-34, 34);
            const Rgb dark = Rgb{0.0030F, 0.0040F, 0.0036F} * dice.between(0.6, 1.5);
            const Point top{x + lean, foot - high};
            canvas.paint(rope({{x, foot}, {x + 0.3 * lean, foot - 0.55 * high}, top}, 1.1), dark);
            if (dice.unit() < 0.34)
                canvas.paint(capsule({top.x - 0.04 * lean, top.y + 8}, {top.x + 0.1 * lean, top.y - 20}, 3.3, 2.8),
                             Rgb{0.0062F, 0.0048F, 0.0036F});
            else
                canvas.paint(capsule(top, {top.x + dice.between(-26, 26), top.y + dice.between(8, 44)}, 0.9, 0.3),
                             dark);
        }
    }

    int frames_;
    std::vector<Flight> flights_, steady_;
};

}  // namespace

std::unique_ptr<Scene> make_fireflies(int frames, std::uint64_t seed) {
    return std::make_unique<Fireflies>(frames, seed);
}

}  // namespace bp::practice
