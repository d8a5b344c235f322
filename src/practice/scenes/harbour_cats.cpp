#include <algorithm>
#include <cmath>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr std::uint64_t harbour = 5150;
constexpr double wall_top = 748;

enum class Gaze { here, left, right, asleep };

struct Coat {
    Rgb fur, patch, chest, eye;
    double stripes;  // 0 to 1
};

struct Cat {
    double x, size;
    Coat coat;
    double tail;  // -1 left, 1 right
};

const std::vector<Cat>& cats() {
    static const std::vector<Cat> all{
        {250, 1.00, {srgb(206, 128, 58), srgb(168, 92, 36), srgb(246, 226, 198), srgb(150, 178, 74), 0.9}, -1},
        {520, 0.92, {srgb(44, 42, 46), srgb(30, 28, 32), srgb(60, 58, 62), srgb(226, 186, 60), 1}, 1},
        {795, 1.08, {srgb(150, 140, 126), srgb(84, 76, 68), srgb(232, 224, 212), srgb(120, 168, 110), 0.95}, -1},
        {1075, 0.90, {srgb(238, 232, 222), srgb(198, 130, 72), srgb(250, 248, 242), srgb(104, 156, 196), 0}, 1},
        {1345, 1.00, {srgb(116, 122, 134), srgb(92, 98, 110), srgb(140, 146, 156), srgb(218, 170, 66), 0.5}, 1},
    };
    return all;
}

// In which frame each cat looks at the camera; in the others it does something else.
Gaze gaze_of(int cat, int frame) {
    if ((frame + cat * 2) % 5 == 0 || (cat == 2 && frame % 5 == 3)) return Gaze::here;
    constexpr Gaze others[] = {Gaze::left, Gaze::right, Gaze::asleep};
    return others[std::size_t(cat * 7 + frame * 5 + (frame * cat) % 2) % 3];
}

class HarbourCats final : public Scene {
  public:
    explicit HarbourCats(int frames) : frames_(frames) {}

    Camera camera() const override { return {"Skerrow practice camera", 4, 85, 0, std::nullopt, 1789232400.0}; }

    std::vector<Shot> shots() const override {
        constexpr double levels[] = {1.0, 1.03, 0.97, 1.06, 0.95};
        std::vector<Shot> out;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = i * 7.0;
            shot.exposure_s = 1.0 / 320;
            shot.iso = 400;
            shot.gain = levels[i % 5];
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) {
            const double up = std::clamp(p.y / 560, 0.0, 1.0);
            return mix(srgb(128, 172, 206), srgb(240, 222, 190), up);
        });
        paint_blurred_harbour(canvas);
        paint_wall(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot&) const override {
        for (std::size_t k = 0; k < cats().size(); ++k) paint_cat(canvas, cats()[k], gaze_of(int(k), int(index)));
    }

    std::vector<TruthPicture> truth() const override {
        return {{"best", [](const Canvas& still) {
                     Canvas out = still.clone();
                     for (const Cat& cat : cats()) paint_cat(out, cat, Gaze::here);
                     return out;
                 }}};
    }

  private:
    // Out of focus: discs of light, soft hulls and houses.
    static void paint_blurred_harbour(Canvas& canvas) {
        static const Rgb walls[] = {srgb(226, 204, 170), srgb(198, 120, 92), srgb(236, 232, 222), srgb(132, 158, 170),
                                    srgb(214, 176, 110)};
        const auto soft = [&](const Shape& s, Rgb c, double blur, double opacity) {
            const Shape wide{{s.box.left - blur, s.box.top - blur, s.box.right + blur, s.box.bottom + blur},
                             s.distance};
            const Canvas before = canvas.clone();
            canvas.paint({wide.box, [=](Point p) { return s.distance(p) - blur; }}, [&, s, blur](Point p) {
                const double t = 1 - smooth_step(-blur, blur, s.distance(p));
                return mix(before.at(p), c, t * opacity);
            });
        };
        for (int i = 0; i < 9; ++i) {
            const double x = -60 + i * 190;
            const double top = 250 + 110 * hashed(harbour, i);
            soft(bar(x, top, x + 176, 560), walls[i % 5] * 0.86, 22, 0.95);
            soft(polygon({{x - 10, top + 6}, {x + 88, top - 58}, {x + 186, top + 6}}), srgb(150, 82, 62), 20, 0.9);
            for (int k = 0; k < 2; ++k)
                soft(bar(x + 34 + 74 * k, top + 64, x + 64 + 74 * k, top + 112), srgb(78, 86, 96), 14, 0.7);
        }
        soft(bar(-80, 548, scene_width + 80, 800), srgb(74, 118, 134), 26, 1);
        for (int i = 0; i < 5; ++i) {
            const double x = 90 + i * 350 + 80 * hashed(harbour + 1, i);
            soft(capsule({x - 96, 598}, {x + 96, 594}, 30, 24), i % 2 ? srgb(196, 62, 48) : srgb(240, 234, 220), 18,
                 0.95);
            soft(capsule({x, 590}, {x + 6, 300}, 5, 4), srgb(112, 88, 66), 9, 0.8);
        }
        for (int i = 0; i < 46; ++i) {
            const double x = scene_width * hashed(harbour + 2, i);
            const double y = 606 + 120 * hashed(harbour + 3, i);
            const double r = 7 + 13 * hashed(harbour + 4, i);
            canvas.paint(circle({x, y}, r), srgb(255, 244, 216), 0.16 + 0.24 * hashed(harbour + 5, i));
        }
    }

    static void paint_wall(Canvas& canvas) {
        canvas.paint(bar(-100, wall_top + 26, scene_width + 100, scene_height + 100), [](Point p) {
            const double lichen = smooth_step(0.35, 0.6, cloudy(harbour + 12, p.x / 60, p.y / 60, 5));
            const Rgb stone = mix(srgb(158, 144, 124), srgb(126, 122, 116),
                                  0.5 + 0.5 * cloudy(harbour + 11, p.x / 180, p.y / 120, 3));
            return mix(stone, srgb(190, 168, 88), lichen * 0.5) *
                   (masonry(harbour + 10, {p.x, p.y - 8}, 58) * (1.0 - 0.35 * smooth_step(820, 1100, p.y)));
        });
        canvas.paint(bar(-100, wall_top, scene_width + 100, wall_top + 32, 5), [](Point p) {
            const double slab = std::fmod(p.x + 800, 232);
            const double joint = smooth_step(0, 4, std::min(slab, 232 - slab));
            return srgb(206, 192, 168) *
                   ((0.55 + 0.45 * joint) * (1 + 0.14 * cloudy(harbour + 13, p.x / 12, p.y / 8, 5)) *
                    (p.y < wall_top + 10 ? 1.08 : 0.72));
        });
        canvas.darken(bar(-100, wall_top + 30, scene_width + 100, wall_top + 52), 18, 0.5);
    }

    static Shade furry(const Cat& cat, Rgb base, Point middle, double radius, std::uint64_t seed) {
        return [=](Point p) {
            const double hair =
                1 + 0.26 * cloudy(seed, p.x / 3.2, p.y / 9, 4) + 0.10 * cloudy(seed + 1, p.x / 24, p.y / 24, 3);
            const double bands =
                cat.coat.stripes > 0
                    ? smooth_step(0.15, 0.7,
                                  std::sin((p.y - middle.y) / 9.5 + 2.2 * cloudy(seed + 2, p.x / 34, p.y / 50, 3)))
                    : smooth_step(0.08, 0.30, cloudy(seed + 3, p.x / 78, p.y / 70, 3)) * (1 - cat.coat.stripes);
            const double amount = cat.coat.stripes > 0 ? bands * cat.coat.stripes * 0.75 : bands * 0.9;
            const Rgb fur = mix(base, cat.coat.patch, amount);
            // Sun from the upper left.
            const double lit = 0.86 - 0.46 * ((p.x - middle.x) * 0.8 + (p.y - middle.y) * 0.5) / radius;
            return fur * (std::clamp(lit, 0.34, 1.35) * hair);
        };
    }

    static void paint_cat(Canvas& canvas, const Cat& cat, Gaze gaze) {
        const double s = cat.size;
        const double x = cat.x;
        const double base = wall_top + 12;
        const auto seed = harbour + std::uint64_t(x);
        const auto at = [&](double dx, double dy) { return Point{x + dx * s, base + dy * s}; };
        canvas.darken(ellipse(at(34, 0), 118 * s, 13 * s), 16, 0.55);
        const double t = cat.tail;
        const Shape tail =
            rope({at(58 * t, -20), at(92 * t, 6), at(104 * t, 50), at(96 * t, 96), at(78 * t, 112)}, 13 * s);
        canvas.paint(tail, furry(cat, cat.coat.fur, at(80 * t, 40), 110 * s, seed));
        const Shape body = join({ellipse(at(0, -82), 76 * s, 92 * s), ellipse(at(0, -156), 50 * s, 62 * s)});
        canvas.paint(body, furry(cat, cat.coat.fur, at(0, -96), 120 * s, seed));
        canvas.paint(ellipse(at(0, -122), 30 * s, 58 * s), furry(cat, cat.coat.chest, at(0, -120), 130 * s, seed + 9));
        for (const double side : {-1.0, 1.0}) {
            canvas.paint(capsule(at(side * 24, -92), at(side * 25, -12), 19 * s, 17 * s),
                         furry(cat, cat.coat.fur, at(0, -60), 110 * s, seed));
            canvas.paint(ellipse(at(side * 27, -9), 22 * s, 12 * s),
                         furry(cat, cat.coat.chest, at(0, -20), 90 * s, seed + 9));
        }
        paint_head(canvas, cat, gaze, at(0, -232), s, seed);
    }

    static void paint_head(Canvas& canvas, const Cat& cat, Gaze gaze, Point c, double s, std::uint64_t seed) {
        const double look = gaze == Gaze::left ? -1 : gaze == Gaze::right ? 1 : 0;
        if (gaze == Gaze::asleep) c.y += 12 * s;
        c.x += look * 14 * s;
        const auto at = [&](double dx, double dy) { return Point{c.x + dx * s, c.y + dy * s}; };
        canvas.darken(ellipse(at(4, 58), 46 * s, 14 * s), 18 * s, 0.34);
        for (const double side : {-1.0, 1.0}) {
            const double turn = look * 7;
            canvas.paint(polygon({at(side * 56 + turn, -14), at(side * 47 + turn, -84), at(side * 12 + turn, -46)}),
                         furry(cat, cat.coat.fur, c, 90 * s, seed));
            canvas.paint(polygon({at(side * 48 + turn, -26), at(side * 44 + turn, -68), at(side * 22 + turn, -44)}),
                         srgb(206, 140, 126) * 0.8);
        }
        canvas.paint(join({ellipse(c, 64 * s, 54 * s), ellipse(at(-34, 18), 34 * s, 26 * s),
                           ellipse(at(34, 18), 34 * s, 26 * s)}),
                     furry(cat, cat.coat.fur, c, 84 * s, seed));
        const double shift = look * 30;
        canvas.paint(join({ellipse(at(-13 + shift, 24), 21 * s, 17 * s), ellipse(at(13 + shift, 24), 21 * s, 17 * s)}),
                     furry(cat, cat.coat.chest, c, 90 * s, seed + 9));
        for (const double side : {-1.0, 1.0}) {
            if (look * side < 0) continue;
            const Point e = at(side * 26 + shift * 0.72, -6);
            if (gaze == Gaze::asleep) {
                canvas.paint(rope({{e.x - 14 * s, e.y}, {e.x, e.y + 7 * s}, {e.x + 14 * s, e.y}}, 2.6 * s),
                             srgb(28, 24, 24));
                continue;
            }
            const double narrow = look == 0 ? 1 : 0.62;
            canvas.paint(ellipse(e, 17.5 * s * narrow, 15.5 * s), srgb(24, 20, 20));
            canvas.paint(ellipse(e, 15 * s * narrow, 13.5 * s),
                         [=](Point p) { return cat.coat.eye * (1.1 - 0.4 * smooth_step(-12, 12, p.y - e.y)); });
            canvas.paint(ellipse({e.x + look * 5 * s, e.y}, 4.6 * s, 11.5 * s), srgb(10, 10, 12));
            canvas.paint(circle({e.x - 4.5 * s + look * 4 * s, e.y - 5 * s}, 3.1 * s), Rgb{1.1F, 1.1F, 1.05F});
        }
        canvas.paint(polygon({at(-8 + shift, 11), at(8 + shift, 11), at(shift, 20)}), srgb(206, 122, 116));
        canvas.paint(
            rope({at(-13 + shift, 32), at(-4 + shift, 34), at(shift, 21), at(4 + shift, 34), at(13 + shift, 32)},
                 1.5 * s),
            srgb(60, 40, 38));
        for (const double side : {-1.0, 1.0})
            for (int k = 0; k < 3; ++k)
                canvas.paint(
                    capsule(at(side * 24 + shift, 22 + 5 * k), at(side * 78 + shift, 8 + 15 * k), 1.0 * s, 0.3 * s),
                    srgb(244, 240, 232), 0.7);
    }

    int frames_;
};

}  // namespace

std::unique_ptr<Scene> make_harbour_cats(int frames, std::uint64_t) {
    return std::make_unique<HarbourCats>(frames);
}

}  // namespace bp::practice
