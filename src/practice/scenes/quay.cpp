#include <algorithm>
#include <cmath>

#include "practice/lettering.h"
#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/scenes/people.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr std::uint64_t stone = 815;
constexpr double horizon = 520;
constexpr double quay_edge = 640;
constexpr Point bracket{986, 330};

Rgb day_sky(Point p) {
    const double up = std::clamp(p.y / horizon, 0.0, 1.0);
    Rgb sky = mix(srgb(86, 134, 188), srgb(226, 218, 200), std::pow(up, 0.9));
    const double cloud = smooth_step(0.02, 0.62, cloudy(stone + 1, p.x / 330, p.y / 105 + 3, 6) + 0.25 * up);
    const double lit = 0.86 + 0.3 * (cloudy(stone + 1, (p.x - 22) / 330, (p.y - 14) / 105 + 3, 6) -
                                     cloudy(stone + 1, p.x / 330, p.y / 105 + 3, 6));
    return mix(sky, srgb(250, 240, 226) * lit, cloud * 0.78);
}

class Quay final : public Scene {
  public:
    Quay(int frames, std::uint64_t seed) : frames_(frames), seed_(seed) {}

    Camera camera() const override { return {"Skerrow practice camera", 8, 28, 0, std::nullopt, 1789203600.5}; }

    std::vector<Shot> shots() const override {
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = i * 6.0;
            shot.exposure_s = 1.0 / 125;
            shot.iso = 200;
            if (i == 4 || i == 5) shot.gain = i == 4 ? 1.12 : 1.18;
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) { return day_sky(p); });
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        canvas.paint(below(ridge(stone + 2, horizon - 28, 92, 420), all), [](Point p) {
            return mix(srgb(132, 152, 168), srgb(176, 184, 186), smooth_step(400, horizon, p.y));
        });
        canvas.paint(below(ridge(stone + 3, horizon - 6, 58, 250), all), [](Point p) {
            return srgb(98, 118, 104) * (0.9 + 0.25 * cloudy(stone + 4, p.x / 13, p.y / 8, 5));
        });
        paint_far_houses(canvas);
        paint_boats(canvas);
        paint_water(canvas, horizon, quay_edge + 10, stone + 6, 4, srgb(38, 62, 74), 0.72);
        paint_ground(canvas);
        paint_warehouse(canvas);
        paint_bollards(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot&) const override {
        const int i = int(index);
        paint_lamp(canvas, 0.20 * std::sin(i * 1.9 + 0.4));
        paint_gulls(canvas, i);
        for (const Person& p : walkers(i)) paint_person(canvas, p);
        const double t = double(i) / std::max(1, frames_ - 1);
        paint_cart(canvas, {1500 - 1250 * t, 858}, 78, true);
        paint_person(canvas,
                     {{1610 - 1250 * t, 882}, 190, i * 1.7, true, srgb(70, 86, 120), srgb(58, 52, 48), true, false});
        // The man with the pipe: he leaves his place in three frames only.
        if (i % 4 != 3 && i != 0)
            paint_person(canvas, {{598, 832}, 178, 0.25, false, srgb(54, 66, 62), srgb(46, 44, 50), true, false});
    }

    std::vector<TruthPicture> truth() const override {
        return {{"clear", [](const Canvas& still) {
                     Canvas out = still.clone();
                     paint_lamp(out, 0);
                     return out;
                 }}};
    }

  private:
    std::vector<Person> walkers(int i) const {
        static const Rgb coats[] = {srgb(168, 58, 46),  srgb(206, 168, 84),  srgb(62, 96, 138),
                                    srgb(116, 132, 94), srgb(218, 210, 196), srgb(96, 62, 92)};
        std::vector<Person> out;
        for (int k = 0; k < 6; ++k) {
            const double depth = hashed(seed_ + 90, k);
            const double y = 708 + depth * 250;
            const double speed = (hashed(seed_ + 91, k) < 0.5 ? -1 : 1) * (130 + 60 * hashed(seed_ + 92, k));
            double x = 2000 * hashed(seed_ + 93, k) + speed * i;
            x = std::fmod(std::fmod(x, 2000) + 2000, 2000) - 200;
            const double height = 118 + (y - 700) * 0.46;
            out.push_back({{x, y},
                           height,
                           i * 2.1 + k,
                           speed < 0,
                           coats[k],
                           mix(srgb(48, 50, 60), srgb(92, 80, 66), hashed(seed_ + 94, k)),
                           k % 2 == 0,
                           k % 3 == 1});
        }
        std::sort(out.begin(), out.end(), [](const Person& a, const Person& b) { return a.feet.y < b.feet.y; });
        return out;
    }

    static void paint_gulls(Canvas& canvas, int i) {
        for (int k = 0; k < 4; ++k) {
            const double x = std::fmod(260.0 + k * 370 + i * (67 + 31 * k), 1500.0);
            const double y = 110 + 70 * k + 40 * std::sin(i * 0.9 + k * 2);
            paint_gull(canvas, {x, y}, 66 - 9 * k, i * 1.4 + k);
        }
    }

    static void paint_far_houses(Canvas& canvas) {
        static const Rgb walls[] = {srgb(214, 196, 168), srgb(186, 150, 118), srgb(222, 216, 202), srgb(170, 178, 170)};
        for (int i = 0; i < 9; ++i) {
            const double x = 60 + i * 66 + 18 * hashed(stone + 10, i);
            const double w = 44 + 20 * hashed(stone + 11, i);
            const double h = 36 + 30 * hashed(stone + 12, i);
            canvas.paint(bar(x, horizon - h, x + w, horizon + 1), [&](Point p) {
                return walls[i % 4] *
                       (0.84 - 0.25 * smooth_step(x, x + w, p.x) + 0.06 * noise(stone, p.x / 4, p.y / 4));
            });
            canvas.paint(polygon({{x - 3, horizon - h}, {x + w / 2, horizon - h - 18}, {x + w + 3, horizon - h}}),
                         srgb(122, 78, 64));
            for (int k = 0; k < 3; ++k)
                canvas.paint(bar(x + 7 + k * w / 3.2, horizon - h + 10, x + 14 + k * w / 3.2, horizon - h + 21),
                             srgb(66, 74, 82));
        }
    }

    static void paint_boats(Canvas& canvas) {
        for (int i = 0; i < 4; ++i) {
            const double x = 120 + i * 205 + 40 * hashed(stone + 20, i);
            const double s = 0.8 + 0.5 * hashed(stone + 21, i);
            const Rgb hull[] = {srgb(34, 72, 104), srgb(196, 66, 48), srgb(236, 230, 214), srgb(58, 94, 72)};
            canvas.paint(capsule({x, horizon - 20}, {x, horizon - 190 * s}, 2.2, 1.4), srgb(120, 92, 66));
            canvas.paint(capsule({x, horizon - 160 * s}, {x + 62 * s, horizon - 30}, 0.9, 0.9), srgb(70, 64, 60));
            canvas.paint(capsule({x, horizon - 170 * s}, {x - 58 * s, horizon - 26}, 0.9, 0.9), srgb(70, 64, 60));
            canvas.paint(bar(x - 20 * s, horizon - 44 * s, x + 18 * s, horizon - 14, 4), srgb(226, 218, 200));
            canvas.paint(
                polygon({{x - 76 * s, horizon - 26},
                         {x + 84 * s, horizon - 34},
                         {x + 62 * s, horizon + 4},
                         {x - 58 * s, horizon + 4}}),
                [&](Point p) { return hull[i] * (0.95 - 0.35 * smooth_step(horizon - 28, horizon + 4, p.y)); });
            canvas.paint(capsule({x - 74 * s, horizon - 26}, {x + 82 * s, horizon - 33}, 1.8, 1.8),
                         srgb(238, 232, 220));
        }
    }

    static void paint_ground(Canvas& canvas) {
        canvas.paint(bar(-100, quay_edge, scene_width + 100, scene_height + 100), [](Point p) {
            // Cobbles in perspective: courses grow towards the viewer.
            const double depth = p.y - quay_edge + 30;
            const double row = std::log(depth / 30) * 13;
            const Point q{(p.x - 700) / depth * 320, row * 20};
            const double light = 0.9 + 0.12 * cloudy(stone + 30, p.x / 300, p.y / 90, 4);
            const Rgb tone = mix(srgb(150, 142, 132), srgb(178, 168, 150), hashed(stone + 31, std::int64_t(row)));
            return tone * (masonry(stone + 32, q, 20) * light);
        });
        canvas.paint(bar(-100, quay_edge - 4, scene_width + 100, quay_edge + 15), [](Point p) {
            return srgb(188, 180, 164) * masonry(stone + 33, {p.x, 20}, 46);
        });
        // Puddles keep a piece of sky.
        canvas.each([](Point p, Rgb old) {
            if (p.y < 700) return old;
            const double wet = smooth_step(0.30, 0.42, cloudy(stone + 34, p.x / 210, p.y / 46, 4));
            return mix(old, day_sky({p.x, std::max(0.0, 560 - (p.y - 640) * 0.9)}) * 0.72, wet * 0.62);
        });
    }

    static void paint_warehouse(Canvas& canvas) {
        constexpr double left = 1010;
        canvas.darken(
            polygon({{left - 150, 742}, {left, 696}, {scene_width + 60, 696}, {scene_width + 60, 790}, {left, 770}}),
            26, 0.42);
        canvas.paint(bar(left, 196, scene_width + 60, 712), [](Point p) {
            return mix(srgb(186, 160, 130), srgb(150, 122, 98), hashed(stone + 40, std::int64_t(p.y / 24))) *
                   (masonry(stone + 41, p, 24) * (1.02 - 0.24 * smooth_step(left, scene_width, p.x)));
        });
        canvas.paint(polygon({{left - 26, 204}, {1130, 66}, {scene_width + 60, 66}, {scene_width + 60, 204}}),
                     [](Point p) {
                         const double row = std::floor(p.y / 13);
                         const double tile_light =
                             0.74 + 0.3 * hashed(stone + 42, std::int64_t(p.x / 21 + 0.5 * row), std::int64_t(row));
                         return srgb(128, 74, 58) * (tile_light * (0.7 + 0.3 * (p.y / 13 - row)));
                     });
        canvas.paint(bar(left - 28, 200, scene_width + 60, 212), srgb(92, 76, 62));
        for (int i = 0; i < 4; ++i) {
            const double x = left + 60 + i * 150;
            paint_window(canvas, x, 262, 72, 92);
            if (i != 1) paint_window(canvas, x, 452, 72, 98);
        }
        canvas.paint(bar(1192, 482, 1318, 712, 6), srgb(112, 100, 88));
        canvas.paint(bar(1202, 494, 1308, 712), [](Point p) {
            const double plank = std::fmod(p.x, 17.5);
            return srgb(44, 86, 84) * (0.85 + 0.2 * cloudy(stone + 44, p.x / 3, p.y / 60, 4)) *
                   (plank < 1.6 ? 0.5 : 1.0);
        });
        canvas.paint(bar(1070, 394, 1480, 438, 3), srgb(54, 62, 70));
        letter(canvas, "SKERROW FISH QUAY", {1084, 398, 1466, 434}, srgb(232, 214, 170));
        canvas.paint(capsule({bracket.x + 40, bracket.y + 16}, bracket, 2.6, 2.2), srgb(42, 42, 46));
        for (int i = 0; i < 5; ++i) {
            const double x = 1392 + 46 * (i % 3);
            const double y = i < 3 ? 716.0 : 672.0;
            paint_crate(canvas, i < 3 ? x : x + 22, y);
        }
    }

    static void paint_window(Canvas& canvas, double x, double y, double w, double h) {
        canvas.paint(bar(x - 7, y - 7, x + w + 7, y + h + 11), srgb(206, 192, 168));
        canvas.paint(bar(x, y, x + w, y + h), [&](Point p) {
            return mix(srgb(40, 52, 62), srgb(150, 176, 196),
                       smooth_step(0, 1, (p.x - x + (y + h - p.y)) / (w + h)) * 0.7 +
                           0.18 * cloudy(stone + 45, p.x / 30, p.y / 30, 3));
        });
        for (int i = 1; i < 3; ++i)
            canvas.paint(bar(x + i * w / 3 - 2, y, x + i * w / 3 + 2, y + h), srgb(222, 214, 196));
        canvas.paint(bar(x, y + h / 2 - 2, x + w, y + h / 2 + 2), srgb(222, 214, 196));
    }

    static void paint_crate(Canvas& canvas, double x, double bottom) {
        canvas.paint(bar(x, bottom - 42, x + 44, bottom), [&](Point p) {
            const double slat = std::fmod(p.y - bottom + 420, 10.5);
            return srgb(172, 130, 82) * (slat < 1.8 ? 0.4 : 0.9 + 0.16 * cloudy(stone + 46, p.x / 20, p.y / 2, 3));
        });
        canvas.paint(bar(x, bottom - 42, x + 5, bottom), srgb(140, 104, 64));
        canvas.paint(bar(x + 39, bottom - 42, x + 44, bottom), srgb(118, 86, 54));
    }

    static void paint_bollards(Canvas& canvas) {
        for (int i = 0; i < 4; ++i) {
            const double x = 90 + i * 270;
            canvas.darken(ellipse({x + 26, 681}, 34, 6), 8, 0.5);
            const auto iron = [&](Point p) {
                return mix(srgb(34, 36, 40), srgb(104, 106, 108), 1 - smooth_step(x - 14, x + 10, p.x));
            };
            canvas.paint(bar(x - 11, 640, x + 11, 684, 5), iron);
            canvas.paint(bar(x - 17, 632, x + 17, 648, 8), iron);
        }
    }

    static void paint_lamp(Canvas& canvas, double angle) {
        const Point end{bracket.x + 46 * std::sin(angle), bracket.y + 46 * std::cos(angle)};
        canvas.paint(capsule(bracket, end, 1.4, 1.4), srgb(40, 40, 44));
        canvas.paint(polygon({{end.x - 17, end.y + 8}, {end.x, end.y - 8}, {end.x + 17, end.y + 8}}), srgb(46, 60, 58));
        canvas.paint(bar(end.x - 11, end.y + 8, end.x + 11, end.y + 32, 4), srgb(250, 226, 170));
        canvas.paint(bar(end.x - 12, end.y + 31, end.x + 12, end.y + 37, 2), srgb(46, 60, 58));
    }

    int frames_;
    std::uint64_t seed_;
};

}  // namespace

std::unique_ptr<Scene> make_quay(int frames, std::uint64_t seed) {
    return std::make_unique<Quay>(frames, seed);
}

}  // namespace bp::practice
