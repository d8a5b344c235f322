#include <algorithm>
#include <cmath>

#include "practice/lettering.h"
#include "practice/scenes/all.h"
#include "practice/texture.h"

namespace bp::practice {
namespace {

constexpr std::uint64_t grain = 2203;
constexpr double boards[] = {356, 690, 1012};

// The lamp hangs above the left third; light falls with distance.
double lamplight(Point p) {
    const double d = std::hypot(p.x - 520, (p.y + 120) * 1.05);
    return 0.10 + 1.25 / (1 + std::pow(d / 520, 2.2));
}

Rgb wood(Point p, Rgb tone, std::uint64_t seed, double along) {
    const double warp = cloudy(seed, p.x / along, p.y / 40, 3) * 5;
    const double rings = std::sin((p.y + warp * 5) / 3.1 + 3 * cloudy(seed + 1, p.x / (along * 1.6), p.y / 60, 3));
    const double fibre = cloudy(seed + 2, p.x / 26, p.y / 1.8, 4);
    return tone * (0.9 + 0.08 * rings + 0.22 * fibre);
}

class Shelf final : public Scene {
  public:
    Shelf(int frames, std::uint64_t seed) : frames_(frames), seed_(seed) {}

    Camera camera() const override { return {"Skerrow practice camera", 2.8, 50, 0, std::nullopt, 1789228860.0}; }

    std::vector<Shot> shots() const override {
        Dice dice(seed_ * 97 + 5);
        std::vector<Shot> out;
        double x = 0, y = 0, turn = 0;
        for (int i = 0; i < frames_; ++i) {
            Shot shot;
            shot.begin_s = i * 0.125;
            shot.exposure_s = 1.0 / 60;
            shot.iso = 6400;
            if (i > 0) {
                x = 0.8 * x + dice.between(-4.5, 4.5);
                y = 0.8 * y + dice.between(-4.0, 4.0);
                turn = 0.8 * turn + dice.between(-0.0022, 0.0022);
                shot.to_scene = Matrix::rigid(turn, {799.5, 533}, x, y);
            }
            if (i == soft_frame()) shot.blur = 2.6;
            out.push_back(shot);
        }
        return out;
    }

    void paint_still(Canvas& canvas) const override {
        canvas.each([](Point p, Rgb) {
            const double plank = std::fmod(p.x + 400, 178);
            const double gap = smooth_step(0, 5, std::min(plank, 178 - plank));
            return wood({p.y, p.x}, srgb(94, 70, 52), grain + std::uint64_t((p.x + 400) / 178), 300) *
                   (gap * 0.55 * lamplight(p));
        });
        for (const double y : boards) {
            canvas.darken(bar(-60, y - 4, scene_width + 60, y + 74), 64, 0.62);
            canvas.paint(bar(-60, y, scene_width + 60, y + 26), [y](Point p) {
                return wood(p, srgb(168, 120, 78), grain + 9, 420) * (lamplight(p) * (p.y < y + 5 ? 1.25 : 0.8));
            });
        }
        top_row(canvas);
        middle_row(canvas);
        bottom_row(canvas);
    }

    void paint_moving(Canvas&, std::size_t, const Shot&) const override {}

    std::vector<TruthPicture> truth() const override {
        return {{"quiet", [](const Canvas& still) { return still.clone(); }}};
    }

  private:
    int soft_frame() const { return frames_ * 2 / 3; }

    static void contact_shadow(Canvas& canvas, double left, double right, double bottom) {
        canvas.darken(ellipse({(left + right) / 2 + 10, bottom - 1}, (right - left) / 2 + 14, 9), 16, 0.6);
        canvas.darken(bar(right - 4, bottom - 90, right + 26, bottom), 34, 0.34);
    }

    // A round vessel lit from the upper left.
    static Shade round_body(double left, double right, Rgb colour, double gloss) {
        return [=](Point p) {
            const double u = (p.x - left) / (right - left) * 2 - 1;
            const double form = 0.34 + 0.72 * std::max(0.0, std::cos((u + 0.42) * 1.25));
            const double shine =
                gloss * (std::exp(-std::pow((u + 0.52) / 0.10, 2)) + 0.25 * std::exp(-std::pow((u - 0.72) / 0.07, 2)));
            const double mottle = 1 + 0.07 * cloudy(grain + 20, p.x / 7, p.y / 9, 4);
            return (colour * (form * mottle) + Rgb{1, 0.92F, 0.78F} * shine) * lamplight(p);
        };
    }

    static void label(Canvas& canvas, const Box& box, const std::string& word, Rgb paper) {
        canvas.paint(bar(box.left, box.top, box.right, box.bottom, 3), [=](Point p) {
            const double u = (p.x - box.left) / (box.right - box.left) * 2 - 1;
            const double age = 0.93 + 0.10 * cloudy(grain + 30, p.x / 22, p.y / 22, 4);
            return paper * ((0.5 + 0.55 * std::cos((u + 0.3) * 1.1)) * age * lamplight(p));
        });
        const double inset = (box.bottom - box.top) * 0.10;
        const Shape frame = without(
            bar(box.left + inset, box.top + inset, box.right - inset, box.bottom - inset),
            bar(box.left + inset + 1.6, box.top + inset + 1.6, box.right - inset - 1.6, box.bottom - inset - 1.6));
        canvas.paint(frame, srgb(84, 42, 30) * 0.7, 0.8);
        letter(canvas, word,
               {box.left + inset * 2, box.top + inset * 1.6, box.right - inset * 2, box.bottom - inset * 1.6},
               srgb(52, 30, 24) * 0.6);
    }

    static void jar(Canvas& canvas, double x, double bottom, double w, double h, Rgb glass, Rgb fill,
                    const std::string& word) {
        contact_shadow(canvas, x, x + w, bottom);
        canvas.paint(bar(x, bottom - h, x + w, bottom, 14), round_body(x, x + w, glass, 0.5));
        canvas.paint(bar(x + 5, bottom - h * 0.72, x + w - 5, bottom - 6, 10), [=](Point p) {
            const double lumps = 0.75 + 0.5 * noise(grain + 33, p.x / 6, p.y / 6);
            return round_body(x, x + w, fill * lumps, 0.10)(p);
        });
        canvas.paint(bar(x + w * 0.12, bottom - h - 20, x + w * 0.88, bottom - h + 6, 5),
                     round_body(x, x + w, srgb(150, 128, 92), 0.35));
        label(canvas, {x + w * 0.12, bottom - h * 0.58, x + w * 0.88, bottom - h * 0.26}, word, srgb(236, 222, 188));
    }

    static void bottle(Canvas& canvas, double x, double bottom, double w, double h, Rgb glass,
                       const std::string& word) {
        contact_shadow(canvas, x, x + w, bottom);
        const double neck = w * 0.30;
        const Shape body = join({bar(x, bottom - h * 0.62, x + w, bottom, 12),
                                 polygon({{x + 3, bottom - h * 0.60},
                                          {x + w / 2 - neck / 2, bottom - h * 0.76},
                                          {x + w / 2 + neck / 2, bottom - h * 0.76},
                                          {x + w - 3, bottom - h * 0.60}}),
                                 bar(x + w / 2 - neck / 2, bottom - h, x + w / 2 + neck / 2, bottom - h * 0.70, 3)});
        canvas.paint(body, round_body(x, x + w, glass, 0.75));
        canvas.paint(bar(x + w / 2 - neck * 0.42, bottom - h - 14, x + w / 2 + neck * 0.42, bottom - h + 8, 3),
                     round_body(x, x + w, srgb(172, 128, 84), 0.05));
        label(canvas, {x + w * 0.08, bottom - h * 0.46, x + w * 0.92, bottom - h * 0.22}, word, srgb(228, 214, 176));
    }

    static void coil(Canvas& canvas, Point centre, double radius, Rgb hemp, int turns) {
        contact_shadow(canvas, centre.x - radius, centre.x + radius, centre.y + radius);
        for (int i = 0; i < turns; ++i) {
            const double outer = radius * (1 - 0.62 * i / turns);
            const double inner = outer - radius * 0.62 / turns;
            canvas.paint(without(circle(centre, outer), circle(centre, inner)), [=](Point p) {
                const double r = std::hypot(p.x - centre.x, p.y - centre.y);
                const double a = std::atan2(p.y - centre.y, p.x - centre.x);
                const double across = (r - inner) / (outer - inner) * 2 - 1;
                const double lay = std::sin(a * outer / 3.2 + across * 1.6 + i);
                const double form = std::sqrt(std::max(0.0, 1 - across * across * 0.92));
                const double toward = 0.85 + 0.3 * -std::sin(a + 0.7);
                return hemp * ((0.30 + 0.8 * form) * (0.82 + 0.2 * lay) * toward * lamplight(p));
            });
        }
    }

    static void box_of(Canvas& canvas, double x, double bottom, double w, double h, Rgb tone, const std::string& word) {
        contact_shadow(canvas, x, x + w, bottom);
        canvas.paint(bar(x, bottom - h, x + w, bottom, 2), [=](Point p) {
            const bool edge = p.y < bottom - h + 12 || p.x < x + 12 || p.x > x + w - 12 || p.y > bottom - 12;
            return wood(p, tone, grain + 40, 200) * (lamplight(p) * (edge ? 1.12 : 0.92));
        });
        letter(canvas, word, {x + 22, bottom - h * 0.72, x + w - 22, bottom - h * 0.30}, srgb(40, 26, 20) * 0.6, 0.8);
    }

    static void lantern(Canvas& canvas, double x, double bottom, double s) {
        contact_shadow(canvas, x - 46 * s, x + 46 * s, bottom);
        const Rgb brass = srgb(206, 156, 74);
        canvas.paint(bar(x - 46 * s, bottom - 26 * s, x + 46 * s, bottom, 6),
                     round_body(x - 46 * s, x + 46 * s, brass, 0.9));
        canvas.paint(bar(x - 36 * s, bottom - 130 * s, x + 36 * s, bottom - 26 * s, 12), [=](Point p) {
            const double flame =
                std::exp(-std::pow((p.x - x) / (15 * s), 2) - std::pow((p.y - bottom + 66 * s) / (32 * s), 2));
            return Rgb{0.30F, 0.21F, 0.12F} * lamplight(p) + Rgb{1.5F, 0.86F, 0.30F} * flame;
        });
        for (const double o : {-36.0, -12.0, 12.0, 36.0})
            canvas.paint(capsule({x + o * s, bottom - 26 * s}, {x + o * s, bottom - 130 * s}, 2 * s, 2 * s),
                         brass * 0.6);
        canvas.paint(polygon({{x - 46 * s, bottom - 128 * s},
                              {x + 46 * s, bottom - 128 * s},
                              {x + 20 * s, bottom - 168 * s},
                              {x - 20 * s, bottom - 168 * s}}),
                     round_body(x - 46 * s, x + 46 * s, brass, 0.9));
        canvas.paint(without(circle({x, bottom - 184 * s}, 24 * s), circle({x, bottom - 184 * s}, 19 * s)),
                     brass * 0.55);
        canvas.glow({x, bottom - 70 * s}, 90 * s, Rgb{0.07F, 0.036F, 0.010F});
    }

    static void top_row(Canvas& canvas) {
        const double y = boards[0];
        jar(canvas, 70, y, 118, 170, srgb(112, 132, 128), srgb(206, 190, 150), "SALT");
        jar(canvas, 212, y, 118, 196, srgb(96, 116, 120), srgb(70, 52, 40), "CLOVES");
        jar(canvas, 352, y, 104, 150, srgb(116, 130, 124), srgb(178, 84, 44), "ROSIN");
        lantern(canvas, 548, y, 1.25);
        bottle(canvas, 672, y, 88, 240, srgb(42, 92, 70), "LAMP OIL");
        bottle(canvas, 784, y, 76, 210, srgb(118, 62, 30), "TAR");
        bottle(canvas, 882, y, 80, 252, srgb(52, 76, 118), "SPIRIT");
        box_of(canvas, 1006, y, 214, 128, srgb(156, 118, 80), "CANDLES");
        box_of(canvas, 1030, y - 128, 160, 84, srgb(130, 92, 62), "WICKS");
        coil(canvas, {1350, y - 88}, 88, srgb(198, 166, 112), 6);
        jar(canvas, 1466, y, 110, 160, srgb(104, 122, 124), srgb(92, 110, 62), "TEA");
    }

    static void middle_row(Canvas& canvas) {
        const double y = boards[1];
        coil(canvas, {160, y - 112}, 112, srgb(206, 174, 116), 7);
        coil(canvas, {372, y - 84}, 84, srgb(158, 110, 74), 5);
        box_of(canvas, 486, y, 250, 150, srgb(164, 122, 78), "COPPER NAILS");
        bottle(canvas, 506, y - 150, 52, 120, srgb(96, 40, 34), "INK");
        jar(canvas, 586, y - 150, 110, 98, srgb(116, 128, 120), srgb(226, 204, 120), "WAX");
        jar(canvas, 776, y, 130, 210, srgb(110, 128, 130), srgb(200, 150, 88), "TWINE");
        bottle(canvas, 934, y, 84, 226, srgb(60, 106, 88), "LINSEED");
        jar(canvas, 1044, y, 112, 176, srgb(100, 120, 120), srgb(120, 46, 38), "OCHRE");
        box_of(canvas, 1188, y, 180, 116, srgb(138, 100, 66), "HOOKS");
        box_of(canvas, 1206, y - 116, 140, 78, srgb(172, 132, 88), "FLOATS");
        coil(canvas, {1488, y - 98}, 98, srgb(120, 118, 96), 6);
    }

    static void bottom_row(Canvas& canvas) {
        const double y = boards[2];
        box_of(canvas, 40, y, 270, 170, srgb(150, 108, 70), "SAIL CLOTH");
        jar(canvas, 344, y, 126, 208, srgb(98, 116, 118), srgb(64, 60, 58), "PITCH");
        jar(canvas, 498, y, 108, 168, srgb(110, 130, 126), srgb(214, 200, 176), "CHALK");
        coil(canvas, {744, y - 116}, 116, srgb(190, 154, 100), 7);
        bottle(canvas, 892, y, 92, 250, srgb(112, 66, 34), "VINEGAR");
        bottle(canvas, 1006, y, 78, 214, srgb(44, 84, 96), "TURPS");
        lantern(canvas, 1160, y, 1.1);
        box_of(canvas, 1252, y, 190, 140, srgb(126, 90, 60), "SHACKLES");
        jar(canvas, 1470, y, 116, 190, srgb(100, 118, 118), srgb(168, 112, 60), "GINGER");
    }

    int frames_;
    std::uint64_t seed_;
};

}  // namespace

std::unique_ptr<Scene> make_shelf(int frames, std::uint64_t seed) {
    return std::make_unique<Shelf>(frames, seed);
}

}  // namespace bp::practice
