// A boat on the beach at night, lit with a hand lamp from another side in each exposure; in one a torch was left
// burning in the grass.
#include <algorithm>
#include <array>
#include <cmath>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr double horizon = 520, beach = 600;
constexpr std::uint64_t sand = 5203;
constexpr Point torch{1378, 842};
constexpr std::size_t with_torch = 4;  // counted from 0

// Where the lamp is held, how far its light goes, how bright it is, and which way what it lights looks: to the left,
// up, and towards the camera.
struct Lamp {
    Point at;
    double far;
    double light;
    std::array<double, 3> from;
    Rgb colour;
};
constexpr Lamp lamps[] = {
    {{330, 640}, 330, 26, {0.85, 0.1, 0.5}, {1.0F, 0.84F, 0.62F}},
    {{1290, 610}, 330, 26, {-0.85, 0.15, 0.45}, {1.0F, 0.80F, 0.56F}},
    {{760, 320}, 340, 24, {0.0, 0.9, 0.3}, {0.80F, 0.88F, 1.0F}},
    {{560, 930}, 330, 22, {0.35, -0.3, 0.85}, {1.0F, 0.86F, 0.66F}},
    {{1020, 930}, 330, 22, {-0.35, -0.3, 0.85}, {1.0F, 0.82F, 0.60F}},
    {{800, 560}, 210, 30, {0.0, 0.5, 0.7}, {1.0F, 0.72F, 0.42F}},
};

// The boat's upper edge, and its keel.
double sheer(double x) {
    const double t = (x - 790) / 410;
    return 600 - 62 * t * t - 34 * std::max(0.0, -t) * std::max(0.0, -t);
}
double keel(double x) {
    const double t = (x - 800) / 395;
    return 806 - 168 * std::pow(std::abs(t), 3.4);
}

class Hull final : public Scene {
  public:
    Hull(int frames, std::uint64_t seed) : frames_(frames), seed_(seed) {}

    Camera camera() const override { return {"Skerrow practice camera", 8, 28, 12, std::nullopt, 1794004800.5}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.role = i == 0 ? Role::scene : Role::foreground;
            shot.begin_s = 55.0 * i;
            shot.exposure_s = 20;
            shot.iso = 400;
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        paint_sky(canvas);
        paint_beach(canvas);
        paint_boat(canvas);
        paint_grass(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot&) const override { light(canvas, index, true); }

    std::vector<TruthPicture> truth() const override {
        return {{"lights", [this](const Canvas& still) {
                     // The lightest of every place, without the torch.
                     Canvas out = still.clone();
                     for (int i = 0; i < frames_; ++i) {
                         Canvas lit = still.clone();
                         light(lit, std::size_t(i), false);
                         out.lighten(lit);
                     }
                     return out;
                 }}};
    }

  private:
    void light(Canvas& canvas, std::size_t index, bool torch_too) const {
        const Lamp& lamp = lamps[index % std::size(lamps)];
        const double strength = lamp.light * (0.94 + 0.12 * hashed(seed_ + 3, std::int64_t(index)));
        canvas.each([&](Point p, Rgb old) {
            const double away = std::hypot(p.x - lamp.at.x, (p.y - lamp.at.y) * (p.y > beach + 90 ? 1.7 : 1.0));
            const double falls = std::exp(-away * away / (2 * lamp.far * lamp.far));
            return old + old * lamp.colour * (strength * falls * facing(p, lamp));
        });
        if (!torch_too || index % std::size(lamps) != with_torch) return;
        canvas.glow(torch, 5, Rgb{3.2F, 2.4F, 1.5F});
        canvas.glow(torch, 30, Rgb{0.55F, 0.38F, 0.20F});
        canvas.each([&](Point p, Rgb old) {
            const double away = std::hypot(p.x - torch.x, p.y - torch.y);
            return old + old * Rgb{1.0F, 0.80F, 0.5F} * (34 * std::exp(-away / 60));
        });
    }

    // How much a surface looks towards the lamp.
    static double facing(Point p, const Lamp& lamp) {
        if (p.y < horizon) return 0;
        if (!on_boat(p)) return p.y > beach ? 0.5 + 0.5 * std::max(0.0, lamp.from[1]) : 0.12;
        const double across = std::clamp((p.x - 800) / 400, -1.0, 1.0);
        const double down = std::clamp((p.y - sheer(p.x)) / std::max(20.0, keel(p.x) - sheer(p.x)), 0.0, 1.0);
        // Strakes: each plank bulges a little.
        const double plank = 0.22 * std::sin(down * 9 * 6.2832);
        const double nx = -across, ny = 0.25 - 0.9 * down * down + plank;
        const double nz = std::sqrt(std::max(0.05, 1 - nx * nx * 0.8 - ny * ny * 0.6));
        return std::max(0.0, nx * lamp.from[0] + ny * lamp.from[1] + nz * lamp.from[2]);
    }

    static bool on_boat(Point p) { return p.x > 392 && p.x < 1196 && p.y > sheer(p.x) - 4 && p.y < keel(p.x); }

    static void paint_sky(Canvas& canvas) {
        canvas.each([](Point p, Rgb) {
            const double up = std::clamp(p.y / horizon, 0.0, 1.0);
            return mix({0.0030F, 0.0046F, 0.0100F}, {0.0110F, 0.0125F, 0.0170F}, up * up);
        });
        for (int i = 0; i < 420; ++i) {
            const Point at{1640 * hashed(sand + 1, i) - 20, horizon * hashed(sand + 2, i)};
            const double bright = 0.02 + 0.35 * std::pow(hashed(sand + 3, i), 9.0);
            canvas.glow(at, 0.8, Rgb{0.9F, 0.95F, 1.0F} * bright);
        }
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        canvas.paint(below(ridge(sand + 4, horizon - 24, 22, 240), all), Rgb{0.0034F, 0.0042F, 0.0060F});
        canvas.paint(below([](double) { return horizon; }, all), [](Point p) {
            const double wave = cloudy(sand + 5, p.x / 40, (p.y - horizon) / 3, 3);
            return Rgb{0.0060F, 0.0078F, 0.0110F} * (1 + 0.4 * wave);
        });
    }

    static void paint_beach(Canvas& canvas) {
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        const auto shore = [](double x) { return beach + 10 * cloudy(sand + 6, x / 190, 1, 3); };
        canvas.paint(below(shore, all), [](Point p) {
            const double size = 3 + (p.y - beach) / 40;
            const double grains = cloudy(sand + 7, p.x / size, p.y / (0.4 * size), 4);
            const double waves = cloudy(sand + 8, p.x / 120, p.y / 22, 3);
            return Rgb{0.0108F, 0.0094F, 0.0076F} * (0.85 + 0.25 * grains + 0.2 * waves);
        });
        // What keeps the boat upright, and its shadow.
        canvas.darken(ellipse({800, 812}, 400, 26), 26, 0.55);
    }

    static void paint_boat(Canvas& canvas) {
        const Box all{392, 400, 1196, 900};
        const Shape under_sheer = below([](double x) { return sheer(x); }, all);
        const Shape under_keel = below([](double x) { return keel(x); }, all);
        canvas.paint(without(under_sheer, under_keel), [](Point p) {
            const double down = (p.y - sheer(p.x)) / std::max(20.0, keel(p.x) - sheer(p.x));
            const double grain = cloudy(sand + 9, p.x / 60, p.y / 2.4, 4);
            const double seam = std::abs(std::fmod(down * 9 + 0.5, 1.0) - 0.5) < 0.05 ? 0.45 : 1;
            const Rgb paint = down < 0.52 ? Rgb{0.0040F, 0.0094F, 0.0120F} : Rgb{0.0150F, 0.0052F, 0.0040F};
            const double worn = 0.8 + 0.35 * grain + 0.3 * std::max(0.0, cloudy(sand + 10, p.x / 70, p.y / 30, 3));
            return (down < 0.09 ? Rgb{0.0170F, 0.0150F, 0.0110F} : paint) * (worn * seam);
        });
        // Bow post, wheelhouse with a window, mast.
        canvas.paint(polygon({{378, 470}, {396, 470}, {420, 660}, {404, 664}}), Rgb{0.0120F, 0.0094F, 0.0070F});
        canvas.paint(bar(868, 452, 1044, sheer(950) + 6, 4), [](Point p) {
            return Rgb{0.0150F, 0.0146F, 0.0130F} * (0.85 + 0.2 * cloudy(sand + 11, p.x / 3, p.y / 50, 3));
        });
        canvas.paint(bar(896, 482, 948, 536, 3), Rgb{0.0030F, 0.0038F, 0.0050F});
        canvas.paint(bar(968, 482, 1020, 536, 3), Rgb{0.0030F, 0.0038F, 0.0050F});
        canvas.paint(bar(852, 440, 1060, 456, 3), Rgb{0.0090F, 0.0050F, 0.0042F});
        canvas.paint(capsule({700, 250}, {706, sheer(700) + 4}, 4, 7), Rgb{0.0110F, 0.0088F, 0.0062F});
        canvas.paint(rope({{702, 254}, {392, 476}}, 1.3), Rgb{0.0070F, 0.0066F, 0.0060F});
        canvas.paint(rope({{702, 254}, {1060, 446}}, 1.3), Rgb{0.0070F, 0.0066F, 0.0060F});
        // The props.
        canvas.paint(capsule({560, 690}, {520, 836}, 6, 7), Rgb{0.0100F, 0.0078F, 0.0056F});
        canvas.paint(capsule({1060, 690}, {1102, 836}, 6, 7), Rgb{0.0100F, 0.0078F, 0.0056F});
    }

    static void paint_grass(Canvas& canvas) {
        for (int tuft = 0; tuft < 26; ++tuft) {
            const double side = hashed(sand + 12, tuft);
            const double x = side < 0.62 ? 1210 + 380 * hashed(sand + 13, tuft) : 20 + 260 * hashed(sand + 13, tuft);
            const double y = 800 + 220 * hashed(sand + 14, tuft);
            for (int blade = 0; blade < 34; ++blade) {
                const double lean = 46 * (hashed(sand + 15, tuft, blade) - 0.5);
                const double high = 34 + 46 * hashed(sand + 16, tuft, blade);
                const double foot = x + 54 * (hashed(sand + 17, tuft, blade) - 0.5);
                canvas.paint(rope({{foot, y}, {foot + lean * 0.4, y - high * 0.6}, {foot + lean, y - high}}, 1.1),
                             Rgb{0.0072F, 0.0088F, 0.0050F} * (0.7 + 0.6 * hashed(sand + 18, tuft, blade)));
            }
        }
    }

    int frames_;
    std::uint64_t seed_;
};

}  // namespace

std::unique_ptr<Scene> make_hull(int frames, std::uint64_t seed) {
    return std::make_unique<Hull>(frames, seed);
}

}  // namespace bp::practice
