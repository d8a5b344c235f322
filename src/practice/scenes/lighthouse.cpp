#include <algorithm>
#include <cmath>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/scenes/night_sky.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double sea = 806;
// An hour and more: the sky turns by a third of a pixel a second where it turns fastest, so that pauses are seen as
// breaks.
constexpr double exposure_s = 75;
constexpr double gap_s = 15;
constexpr double long_pause_s = 50;  // once: the card was changed
constexpr double stars_light = 2.2;  // trails are longer than they are wide
constexpr double iso = 800;
constexpr Point lamp{421, 486};
constexpr std::uint64_t land = 4711;

double headland(double x) {
    const double rise = 122 * std::exp(-std::pow((x - 380) / 190, 2)) + 70 * std::exp(-std::pow((x - 110) / 240, 2));
    const double rough = 9 * cloudy(land, x / 60, 0, 5);
    // Cliffs end over the water.
    return sea + 6 - (rise + rough + 4) * (1 - smooth_step(600, 760, x));
}

double far_hills(double x) {
    return sea - 4 - 88 * smooth_step(820, 1250, x) * (0.72 + 0.4 * cloudy(land + 9, x / 260, 2, 5)) -
           20 * smooth_step(760, 900, x);
}

double near_hills(double x) {
    return sea + 2 - 60 * smooth_step(1110, 1600, x) * (0.8 + 0.5 * cloudy(land + 19, x / 150, 7, 6));
}

double rocks(double x) {
    return 968 - 44 * cloudy(land + 30, x / 210, 1, 6) - 58 * smooth_step(1000, 1600, x) -
           46 * (1 - smooth_step(0, 420, x));
}

Shape tower() {
    return polygon({{402, 712}, {411, 512}, {431, 512}, {440, 712}});
}

Shape keepers_house() {
    return join({bar(452, 668, 524, 712), polygon({{446, 670}, {488, 644}, {530, 670}})});
}

// How open the sky is towards a point: 0 behind land, tower or house.
double open_sky(Point p) {
    if (p.y > std::min({headland(p.x), far_hills(p.x), near_hills(p.x), sea})) return 0;
    if (tower().distance(p) < 0 || keepers_house().distance(p) < 0 || bar(404, 466, 438, 514).distance(p) < 0) return 0;
    return 1 - 0.85 * smooth_step(560, sea, p.y);
}

Rgb night_air(Point p) {
    const double up = std::clamp(p.y / sea, 0.0, 1.0);
    Rgb sky = mix({0.0035F, 0.0065F, 0.0165F}, {0.0125F, 0.022F, 0.040F}, std::pow(up, 1.6));
    const double town = std::exp(-std::pow((p.x - 1270) / 420, 2)) * std::exp((p.y - sea) / 120);
    sky = sky + Rgb{0.075F, 0.040F, 0.015F} * town;
    // The galaxy: a faint band with dark lanes.
    const double along = (p.x - 1180) * 0.5 + (p.y - 200) * 0.87;
    const double across = (p.x - 1180) * 0.87 - (p.y - 200) * 0.5;
    const double band = std::exp(-std::pow(across / 150, 2)) *
                        (0.65 + 0.55 * cloudy(land + 50, along / 120, across / 70, 6)) *
                        (1 - 0.5 * smooth_step(0.05, 0.5, cloudy(land + 60, along / 90, across / 34, 5)));
    return sky + Rgb{0.0052F, 0.0050F, 0.0060F} * std::max(0.0, band * (1 - up * 0.7));
}

class Lighthouse final : public Scene {
  public:
    Lighthouse(int frames, std::uint64_t seed) : frames_(frames), sky_(seed * 31 + 7, 2600) {}

    Camera camera() const override { return {"Skerrow practice camera", 2.8, 20, 90, std::nullopt, 1789251245.25}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = begin_of(i);
            shot.exposure_s = exposure_s;
            shot.iso = iso;
            if (i == bumped()) shot.to_scene = Matrix::shift(5.1, -3.5);
            if (i == cloudy_frame()) shot.cloud = 0.7;
            if (i == cloudy_frame() + 1) shot.cloud = 1;
            out.push_back(shot);
        }
        const double after = begin_of(frames_);
        for (int i = 0; i < 2; ++i) {
            Shot dark;
            dark.role = Role::dark;
            dark.begin_s = after + 20 + i * (exposure_s + gap_s);
            dark.exposure_s = exposure_s;
            dark.iso = iso;
            out.push_back(dark);
        }
        Shot lit;
        lit.role = Role::foreground;
        lit.begin_s = after + 120;
        lit.exposure_s = 120;
        lit.iso = 400;
        out.push_back(lit);
        return out;
    }

    void paint_still(Canvas& canvas) const override { paint(canvas, 1, 0); }
    void paint_foreground(Canvas& canvas) const override { paint(canvas, 1.35, 1); }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot& shot) const override {
        if (shot.role == Role::dark) return;
        const bool lit = shot.role == Role::foreground;
        const double veil = shot.cloud;
        const auto clear = [&](Point p) {
            return open_sky(p) * (veil > 0 ? 1 - 0.75 * veil * cover(p, int(index)) : 1.0);
        };
        if (veil > 0)
            canvas.each([&](Point p, Rgb old) {
                if (p.y > sea || open_sky(p) <= 0) return old;
                return old + Rgb{0.020F, 0.021F, 0.026F} * (veil * cover(p, int(index)));
            });
        sky_.expose(canvas, shot.begin_s, shot.begin_s + shot.exposure_s, lit ? 0.8 * stars_light : stars_light, clear);
        if (!lit) paint_streaks(canvas, int(index) + 1);
    }

    std::vector<TruthPicture> truth() const override {
        return {{"trails", [this](const Canvas& still) { return trails(still, 0); }},
                {"knitted", [this](const Canvas& still) { return trails(still, steps_between); }},
                {"single", [this](const Canvas& still) {
                     Canvas out = still.clone();
                     sky_.expose(out, 0, exposure_s, stars_light, open_sky);
                     return out;
                 }}};
    }

    std::vector<StreakTruth> streaks() const override {
        std::vector<StreakTruth> out;
        const auto add = [&](int frame, const char* kind, Point a, Point b) {
            if (frame <= frames_) out.push_back({frame, kind, a, b});
        };
        add(11, "aircraft", {1630, 176}, {1184, 268});
        add(12, "aircraft", {1098, 286}, {640, 380});
        add(13, "aircraft", {554, 398}, {96, 492});
        add(36, "aircraft", {210, -20}, {372, 300});
        add(37, "aircraft", {402, 360}, {500, 560});
        add(29, "satellite", {680, -10}, {905, 214});
        add(30, "satellite", {950, 258}, {1190, 497});
        add(7, "meteor", {1180, 150}, {1046, 236});
        add(22, "meteor", {640, 96}, {560, 188});
        add(42, "meteor", {1390, 330}, {1262, 388});
        return out;
    }

    std::optional<Lens> lens() const override { return sky_.lens(); }

  private:
    // Exposures that are thought in every pause, so that trails have no breaks.
    static constexpr int steps_between = 5;

    double begin_of(int frame) const {
        return frame * (exposure_s + gap_s) + (frame > long_pause_after() ? long_pause_s - gap_s : 0);
    }
    int long_pause_after() const { return frames_ / 2; }

    // What the maximum of undisturbed frames would be, and of so many more in every pause.
    Canvas trails(const Canvas& still, int between) const {
        Canvas best = still.clone();
        for (int i = 0; i < frames_; ++i)
            for (int j = 0; j <= (i + 1 < frames_ ? between : 0); ++j) {
                Canvas one = still.clone();
                const double begin = begin_of(i) + (begin_of(i + 1) - begin_of(i)) * j / (between + 1);
                sky_.expose(one, begin, begin + exposure_s, stars_light, open_sky);
                best.lighten(one);
            }
        return best;
    }

    int bumped() const { return std::min(18, frames_ - 1); }
    int cloudy_frame() const { return frames_ * 2 / 3; }

    static double cover(Point p, int index) {
        return smooth_step(-0.25, 0.55, cloudy(land + 80, p.x / 380 + index * 0.22, p.y / 150, 5));
    }

    void paint_streaks(Canvas& canvas, int frame) const {
        for (const StreakTruth& s : streaks()) {
            if (s.frame != frame) continue;
            const double length = std::hypot(s.to.x - s.from.x, s.to.y - s.from.y);
            if (s.kind == "satellite") {
                canvas.streak(s.from, s.to, 0.8, Rgb{0.16F, 0.16F, 0.15F},
                              [](double t) { return 0.5 + 0.5 * std::sin(3.1416 * t); });
            } else if (s.kind == "meteor") {
                canvas.streak(s.from, s.to, 1.0, Rgb{0.75F, 0.95F, 0.85F},
                              [](double t) { return t < 0.8 ? std::pow(t / 0.8, 1.7) : std::pow((1 - t) / 0.2, 0.7); });
            } else {
                canvas.streak(s.from, s.to, 0.8, Rgb{0.10F, 0.05F, 0.04F}, [](double) { return 1.0; });
                const int flashes = int(length / 34);
                for (int i = 0; i < flashes; ++i) {
                    const double t = (i + 0.5) / flashes;
                    const Point at{s.from.x + (s.to.x - s.from.x) * t, s.from.y + (s.to.y - s.from.y) * t};
                    canvas.glow(at, 1.2, i % 2 == 0 ? Rgb{0.9F, 0.88F, 0.8F} : Rgb{0.55F, 0.07F, 0.05F});
                }
            }
        }
    }

    // `light` scales the sky, `lit` (0 or 1) the light of a lamp held to the land.
    static void paint(Canvas& canvas, double light, double lit) {
        canvas.each([&](Point p, Rgb) { return night_air(p) * light; });
        paint_lamp_air(canvas);
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        const auto haze = [&](Point p, double amount) { return night_air({p.x, sea - 30}) * amount; };
        canvas.paint(below(far_hills, all), [&](Point p) {
            const double grain = 1 + 0.5 * cloudy(land + 3, p.x / 16, p.y / 9, 5);
            return haze(p, 0.34) + Rgb{0.010F, 0.013F, 0.015F} * (lit * grain);
        });
        for (int i = 0; i < 16; ++i) {
            const double x = 1130 + 380 * hashed(land + 40, i);
            const double y = std::min(far_hills(x) + 8 + 40 * hashed(land + 41, i), sea - 5);
            canvas.glow({x, y}, 1.1 + 0.6 * hashed(land + 42, i), Rgb{0.55F, 0.33F, 0.12F} * hashed(land + 43, i));
        }
        canvas.paint(below(near_hills, all), [&](Point p) {
            const double grain = 1 + 0.7 * cloudy(land + 4, p.x / 12, p.y / 7, 5);
            return haze(p, 0.12) + Rgb{0.018F, 0.022F, 0.018F} * (lit * grain);
        });
        paint_headland(canvas, lit);
        paint_water(canvas, sea, scene_height + 60, land + 70, 5, Rgb{0.0015F, 0.003F, 0.005F} * (1 + lit), 0.62);
        paint_rocks(canvas, lit);
    }

    static void paint_lamp_air(Canvas& canvas) {
        // The light of a fixed sector reaches out over the water.
        canvas.each([&](Point p, Rgb old) {
            if (p.y > sea) return old;
            const double dx = p.x - lamp.x;
            const double dy = p.y - lamp.y;
            const double r = std::hypot(dx, dy) + 1;
            const double off = std::atan2(dy, dx) - 0.055;
            const double beam = dx > 0 ? std::exp(-std::pow(off / 0.062, 2)) * std::exp(-r / 760) : 0.0;
            const double mist = 0.75 + 0.35 * cloudy(land + 90, p.x / 120, p.y / 40, 4);
            const double halo = 0.030 * std::exp(-r / 90) + 0.3 * std::exp(-r * r / (2 * 15.0 * 15));
            return old + Rgb{1.0F, 0.80F, 0.48F} * (beam * mist * 0.075 + halo);
        });
    }

    static void paint_headland(Canvas& canvas, double lit) {
        const Box all{-100, 0, 800, scene_height + 100};
        canvas.paint(below(headland, all), [&](Point p) {
            const double grass = 1 + 0.8 * cloudy(land + 5, p.x / 9, p.y / 5, 5);
            const double near_lamp = std::exp(-std::hypot(p.x - lamp.x - 10, (p.y - 700) * 2) / 110);
            const double steep = 1 - smooth_step(sea - 60, sea, p.y);
            const Rgb ground = mix(Rgb{0.085F, 0.078F, 0.062F}, Rgb{0.060F, 0.078F, 0.032F}, steep);
            return Rgb{0.0028F, 0.0034F, 0.0042F} + ground * grass * (0.16 * near_lamp + lit * 1.0);
        });
        const auto white = [&](Point p) {
            const double round = 1 - std::pow((p.x - 421) / 24, 2) * 0.75;
            const double stripe = std::fmod(p.y - 512 + 200, 66) < 33 ? 1.0 : 0.0;
            const Rgb paint_colour = mix(Rgb{0.62F, 0.60F, 0.56F}, Rgb{0.42F, 0.055F, 0.04F}, stripe);
            const double lamp_light = 0.05 + 0.13 * std::exp(-(p.y - 500) / 90);
            return paint_colour *
                   (round * (lamp_light + lit * 0.85) * (1 + 0.06 * cloudy(land + 6, p.x / 4, p.y / 7, 4)));
        };
        canvas.paint(tower(), white);
        canvas.paint(keepers_house(), [&](Point p) {
            const bool roof = p.y < 670;
            const Rgb wall = roof ? Rgb{0.10F, 0.07F, 0.06F} : Rgb{0.44F, 0.42F, 0.38F};
            return wall * (0.045 + lit * 0.8) * (1 + 0.08 * noise(land + 8, p.x / 4, p.y / 3));
        });
        canvas.paint(bar(470, 684, 482, 698), Rgb{0.85F, 0.52F, 0.18F});
        canvas.glow({476, 691}, 9, Rgb{0.10F, 0.055F, 0.018F});
        canvas.paint(bar(402, 506, 440, 513), Rgb{0.02F, 0.02F, 0.022F});
        canvas.paint(bar(411, 470, 431, 507), Rgb{1.9F, 1.45F, 0.82F});
        for (const double x : {411.0, 418.0, 424.0, 431.0})
            canvas.paint(bar(x - 0.8, 470, x + 0.8, 507), Rgb{0.05F, 0.04F, 0.03F});
        canvas.paint(polygon({{407, 472}, {421, 452}, {435, 472}}), Rgb{0.055F, 0.012F, 0.01F} * (1 + 6 * lit));
        canvas.glow(lamp, 16, Rgb{0.55F, 0.40F, 0.20F});
    }

    static void paint_rocks(Canvas& canvas, double lit) {
        const Box all{-100, 800, scene_width + 100, scene_height + 100};
        const Shape shore = below(rocks, all);
        canvas.darken(moved(shore, 0, -10), 26, 0.55);
        canvas.paint(shore, [&](Point p) {
            const double big = cloudy(land + 33, p.x / 70, p.y / 34, 6);
            const double slope = cloudy(land + 33, (p.x - 5) / 70, (p.y - 4) / 34, 6) - big;
            const double wet = smooth_step(0, 34, p.y - rocks(p.x));
            const double face = std::clamp(0.5 + 2.2 * slope, 0.06, 1.6);
            const double warm = std::exp(-std::pow((p.x - 300) / 420, 2));
            const Rgb stone = mix(Rgb{0.085F, 0.085F, 0.092F}, Rgb{0.11F, 0.09F, 0.06F}, 0.5 + 0.5 * big);
            const Rgb moon = Rgb{0.012F, 0.016F, 0.024F} * face;
            const Rgb glint = Rgb{0.045F, 0.030F, 0.014F} * (warm * std::pow(face, 2) * (1 - 0.6 * wet));
            return moon + glint + stone * (lit * 2.0 * face * (0.5 + 0.5 * wet));
        });
    }

    int frames_;
    NightSky sky_;
};

}  // namespace

std::unique_ptr<Scene> make_lighthouse(int frames, std::uint64_t seed) {
    return std::make_unique<Lighthouse>(frames, seed);
}

}  // namespace bp::practice
