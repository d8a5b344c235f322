#include <algorithm>
#include <cmath>

#include "practice/scenes/all.h"
#include "practice/scenes/landscape.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr std::uint64_t creek = 6006;
constexpr double waterline = 640;
constexpr double ripple = 3;

Rgb dawn(Point p) {
    const double up = std::clamp(p.y / waterline, 0.0, 1.0);
    Rgb sky = mix(srgb(122, 156, 190), srgb(250, 214, 172), std::pow(up, 1.25));
    const double sun = std::exp(-(std::pow((p.x - 1180) / 420, 2) + std::pow((p.y - 520) / 210, 2)));
    sky = sky + Rgb{0.30F, 0.17F, 0.07F} * sun;
    const double streaks = smooth_step(0.1, 0.7, cloudy(creek + 1, p.x / 520, p.y / 46, 5));
    return mix(sky, srgb(255, 226, 200) * 0.96, streaks * 0.5 * (1 - up * 0.5));
}

double tree_line(std::uint64_t seed, double x, double base, double height) {
    const double crowns = std::abs(cloudy(seed, x / 74, 0.3, 3)) * 0.55 + 0.30 * cloudy(seed + 1, x / 23, 2, 4) +
                          0.5 * cloudy(seed + 2, x / 310, 5, 2);
    return base - height * (0.5 + crowns);
}

struct Pose {
    Point at;
    double flap;
    double size;
};

// Parts of the bird, looking right.
struct Bird {
    Shape wing_far, wing_near, wing_tip, body, neck, beak, crest, legs;
    Shape all() const { return join({wing_far, wing_near, body, neck, beak, crest, legs}); }
};

Bird bird(const Pose& pose) {
    const double s = pose.size;
    const Point c = pose.at;
    const auto at = [&](double x, double y) { return Point{c.x + x * s, c.y + y * s}; };
    const double beat = std::sin(pose.flap);
    const double up = -0.62 * beat;
    const double fold = 0.16 * std::cos(pose.flap);
    const auto wing = [&](double shift, double k) {
        return polygon({at(0.26 + shift, -0.05), at(0.20 + shift + fold, 0.42 * up * k),
                        at(0.02 + shift + fold, 0.92 * up * k - 0.03), at(-0.16 + shift, 0.98 * up * k),
                        at(-0.30 + shift, 0.84 * up * k), at(-0.36 + shift, 0.52 * up * k + 0.02),
                        at(-0.34 + shift, 0.06)});
    };
    const auto tip = [&](double shift, double k) {
        return polygon({at(0.10 + shift + fold, 0.66 * up * k), at(0.02 + shift + fold, 0.92 * up * k - 0.03),
                        at(-0.16 + shift, 0.98 * up * k), at(-0.30 + shift, 0.84 * up * k),
                        at(-0.36 + shift, 0.52 * up * k + 0.02), at(-0.20 + shift, 0.54 * up * k)});
    };
    return {wing(0.10, 0.86),
            wing(0, 1),
            tip(0, 1),
            join({ellipse(at(0, 0.02), 0.40 * s, 0.115 * s, 0.05),
                  capsule(at(-0.30, 0.03), at(-0.50, 0.06), 0.07 * s, 0.02 * s)}),
            join({capsule(at(0.30, -0.02), at(0.46, 0.04), 0.075 * s, 0.055 * s),
                  capsule(at(0.46, 0.04), at(0.50, -0.07), 0.055 * s, 0.046 * s),
                  capsule(at(0.50, -0.07), at(0.62, -0.09), 0.050 * s, 0.042 * s)}),
            polygon({at(0.63, -0.125), at(0.90, -0.07), at(0.63, -0.055)}),
            capsule(at(0.60, -0.12), at(0.42, -0.16), 0.018 * s, 0.004 * s),
            join({capsule(at(-0.40, 0.05), at(-0.86, 0.09), 0.016 * s, 0.012 * s),
                  capsule(at(-0.86, 0.09), at(-0.98, 0.08), 0.014 * s, 0.006 * s)})};
}

void paint_bird(Canvas& canvas, const Pose& pose) {
    const Bird b = bird(pose);
    const double s = pose.size;
    const auto feathers = [&](Rgb colour, double lit) {
        return [=](Point p) {
            const double vane = 0.9 + 0.16 * std::sin((p.x - pose.at.x) / (0.028 * s) + (p.y - pose.at.y) / (0.2 * s));
            const double side = 1 + 0.25 * smooth_step(-0.5 * s, 0.6 * s, p.x - pose.at.x);
            return colour * (lit * vane * side);
        };
    };
    canvas.paint(b.wing_far, feathers(srgb(82, 92, 108), 0.75));
    canvas.paint(b.legs, srgb(128, 112, 72));
    canvas.paint(b.body, [&](Point p) {
        return mix(srgb(176, 182, 188), srgb(92, 98, 110), smooth_step(-0.02, 0.14, (p.y - pose.at.y) / s));
    });
    canvas.paint(b.neck, feathers(srgb(208, 206, 202), 0.95));
    canvas.paint(b.beak, srgb(214, 150, 62));
    canvas.paint(b.crest, srgb(28, 30, 36));
    canvas.paint(circle({pose.at.x + 0.605 * s, pose.at.y - 0.10 * s}, 0.011 * s), srgb(20, 18, 14));
    canvas.paint(b.wing_near, feathers(srgb(132, 146, 164), 0.95));
    canvas.paint(b.wing_tip, feathers(srgb(46, 52, 64), 0.9));
}

// The same bird seen in the water: every shape looked up where the mirror shows it.
Shape in_water(const Shape& shape) {
    const Box box{shape.box.left - 30, waterline + 2, shape.box.right + 30, 2 * waterline - shape.box.top + 40};
    return {box, [shape](Point p) {
                if (p.y < waterline) return 1e3;
                return shape.distance(mirrored_in_water(p, waterline, creek + 6, ripple));
            }};
}

class Heron final : public Scene {
  public:
    Heron(int frames, std::uint64_t seed) : frames_(frames), seed_(seed) {}

    Camera camera() const override { return {"Skerrow practice camera", 5.6, 135, 0, Point{402, 214}, 1789191840.0}; }

    std::vector<Shot> shots() const override {
        Dice dice(seed_ * 13 + 3);
        std::vector<Shot> out;
        double x = 0, y = 0, turn = 0;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = i * 2.0 / 20;
            shot.exposure_s = 1.0 / 1000;
            shot.iso = 800;
            if (i > 0) {
                x += dice.between(-1.6, 1.9);
                y += dice.between(-1.2, 1.3);
                turn += dice.between(-0.0004, 0.0004);
                shot.to_scene = Matrix::rigid(turn, {799.5, 533}, x, y);
            }
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) { return dawn(p); });
        const Box all{-100, 0, scene_width + 100, scene_height + 100};
        const auto bank = [&](std::uint64_t seed, double base, double height, Rgb tone, double haze) {
            canvas.paint(below([=](double x) { return tree_line(seed, x, base, height); }, all), [=](Point p) {
                const double leaves = 0.75 + 0.45 * cloudy(seed + 5, p.x / 11, p.y / 9, 5);
                const double mist =
                    std::clamp(haze + 0.45 * smooth_step(base - height * 0.6, waterline, p.y), 0.0, 1.0);
                return mix(tone * leaves, dawn({p.x, 560}) * 0.94, mist);
            });
        };
        bank(creek + 10, 560, 150, srgb(96, 112, 118), 0.66);
        bank(creek + 20, 604, 138, srgb(74, 92, 82), 0.42);
        bank(creek + 30, 640, 112, srgb(52, 68, 46), 0.14);
        canvas.paint(
            below([](double x) { return waterline - 9 - 5 * cloudy(creek + 40, x / 40, 0, 4); }, all),
            [](Point p) { return srgb(120, 108, 72) * (0.7 + 0.35 * cloudy(creek + 41, p.x / 4, p.y / 12, 4)); });
        paint_water(canvas, waterline, scene_height + 60, creek + 6, ripple, srgb(40, 52, 52), 0.86);
        // Mist lies on the water.
        canvas.each([](Point p, Rgb old) {
            const double lie = std::exp(-std::pow((p.y - waterline - 6) / 34, 2)) *
                               (0.5 + 0.5 * cloudy(creek + 50, p.x / 190, p.y / 22, 5));
            return mix(old, dawn({p.x, 575}), std::clamp(lie * 0.55, 0.0, 0.8));
        });
        paint_reeds(canvas);
    }

    void paint_moving(Canvas& canvas, std::size_t index, const Shot&) const override {
        const Pose pose = pose_of(int(index));
        paint_mirrored(canvas, pose);
        paint_bird(canvas, pose);
        paint_reeds(canvas);
    }

    std::vector<TruthPicture> truth() const override {
        return {{"clear", [](const Canvas& still) { return still.clone(); }}, {"sequence", [this](const Canvas& still) {
                                                                                   Canvas out = still.clone();
                                                                                   for (int i = 0; i < frames_; i += 4)
                                                                                       paint_mirrored(out, pose_of(i));
                                                                                   for (int i = 0; i < frames_; i += 4)
                                                                                       paint_bird(out, pose_of(i));
                                                                                   paint_reeds(out);
                                                                                   return out;
                                                                               }}};
    }

    // The bird and its mirror, where no reeds hide them.
    std::optional<Shape> subject(std::size_t index) const override {
        const Shape seen = bird(pose_of(int(index))).all();
        std::vector<Shape> reeds;
        for (const Reed& reed : reeds_of()) {
            reeds.push_back(join({reed.lower, reed.upper}));
            if (reed.head) reeds.push_back(*reed.head);
        }
        return without(join({seen, in_water(seen)}), join(reeds));
    }
    std::optional<Shape> shade(std::size_t index) const override {
        return shadow_of(pose_of(int(index)), shadow_blur * 0.7);
    }

  private:
    static constexpr double shadow_blur = 24;
    Pose pose_of(int i) const {
        const double t = double(i) / std::max(1, frames_ - 1);
        return {{130 + 1340 * t, 410 - 96 * std::sin(t * 2.6) + 20 * t}, i * 0.92 + 0.6, 128};
    }

    static Shape shadow_of(const Pose& pose, double wider) {
        return ellipse({pose.at.x - 26, waterline + 250 + (410 - pose.at.y) * 0.2}, 120 + wider, 16 + wider);
    }
    static void paint_mirrored(Canvas& canvas, const Pose& pose) {
        const Bird b = bird(pose);
        canvas.darken(shadow_of(pose, 0), shadow_blur, 0.22);
        canvas.paint(in_water(join({b.wing_far, b.wing_near, b.legs})), srgb(92, 102, 112), 0.72);
        canvas.paint(in_water(join({b.body, b.neck})), srgb(150, 152, 152), 0.72);
        canvas.paint(in_water(b.wing_tip), srgb(54, 58, 66), 0.72);
    }

    struct Reed {
        Shape lower, upper;
        std::optional<Shape> head;
        Rgb tone;
    };
    static std::vector<Reed> reeds_of() {
        std::vector<Reed> out;
        for (int i = 0; i < 150; ++i) {
            const bool left = i % 2 == 0;
            const double u = hashed(creek + 60, i);
            const double x = left ? -40 + 330 * u * u : 1650 - 420 * u * u;
            const double h = 130 + 240 * hashed(creek + 61, i) * (1 - u * 0.6);
            const double lean = 46 * (hashed(creek + 62, i) - 0.4);
            const Point root{x, scene_height + 20};
            const Point mid{x + lean * 0.35, scene_height + 20 - h * 0.6};
            const Point top{x + lean, scene_height + 20 - h};
            const Rgb tone = mix(srgb(58, 62, 34), srgb(150, 126, 74), hashed(creek + 63, i));
            out.push_back({capsule(root, mid, 3.2, 2.2), capsule(mid, top, 2.2, 0.5), {}, tone});
            if (i % 7 == 0) out.back().head = capsule({top.x, top.y + 8}, {top.x + lean * 0.05, top.y + 44}, 5, 5);
        }
        return out;
    }
    static void paint_reeds(Canvas& canvas) {
        for (const Reed& reed : reeds_of()) {
            canvas.paint(join({reed.lower, reed.upper}), reed.tone);
            if (reed.head) canvas.paint(*reed.head, srgb(84, 54, 34));
        }
    }

    int frames_;
    std::uint64_t seed_;
};

}  // namespace

std::unique_ptr<Scene> make_heron(int frames, std::uint64_t seed) {
    return std::make_unique<Heron>(frames, seed);
}

}  // namespace bp::practice
