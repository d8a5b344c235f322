#include "practice/scenes/people.h"

#include <cmath>

#include "practice/texture.h"

namespace bp::practice {
namespace {

struct Limbs {
    Shape legs, body, arms, head, hat;
};

Limbs limbs(const Person& p) {
    const double h = p.height;
    const double dir = p.to_left ? -1 : 1;
    const double swing = std::sin(p.stride) * 0.16 * h;
    const Point hip{p.feet.x, p.feet.y - 0.48 * h};
    const Point neck{p.feet.x + dir * 0.02 * h, p.feet.y - 0.82 * h};
    const Point front{p.feet.x + swing, p.feet.y - 0.015 * h};
    const Point back{p.feet.x - swing, p.feet.y - 0.02 * h};
    const Point knee_a{p.feet.x + swing * 0.5 + dir * 0.03 * h, p.feet.y - 0.26 * h};
    const Point knee_b{p.feet.x - swing * 0.5 + dir * 0.03 * h, p.feet.y - 0.25 * h};
    const Point hand_a{p.feet.x - swing * 0.8 + dir * 0.05 * h, p.feet.y - 0.46 * h};
    const Point hand_b{p.feet.x + swing * 0.8 + dir * 0.05 * h, p.feet.y - 0.46 * h};
    const Point shoulder{neck.x, neck.y + 0.05 * h};
    const double w = 0.042 * h;
    return {
        join({capsule(hip, knee_a, w * 1.2, w), capsule(knee_a, front, w, w * 0.7), capsule(hip, knee_b, w * 1.2, w),
              capsule(knee_b, back, w, w * 0.7), capsule(front, {front.x + dir * 0.05 * h, front.y}, w * 0.6, w * 0.5),
              capsule(back, {back.x + dir * 0.05 * h, back.y}, w * 0.6, w * 0.5)}),
        join({capsule({hip.x, hip.y - 0.02 * h}, {neck.x, neck.y + 0.08 * h}, 0.085 * h, 0.078 * h),
              polygon({{hip.x - 0.095 * h, hip.y + 0.10 * h},
                       {hip.x + 0.095 * h, hip.y + 0.10 * h},
                       {neck.x + 0.07 * h, neck.y + 0.1 * h},
                       {neck.x - 0.07 * h, neck.y + 0.1 * h}})}),
        join({capsule(shoulder, hand_a, w * 0.85, w * 0.6), capsule(shoulder, hand_b, w * 0.85, w * 0.6)}),
        join({circle({neck.x + dir * 0.012 * h, neck.y - 0.075 * h}, 0.062 * h),
              capsule(neck, {neck.x, neck.y - 0.05 * h}, 0.03 * h, 0.03 * h)}),
        join({ellipse({neck.x + dir * 0.015 * h, neck.y - 0.118 * h}, 0.085 * h, 0.016 * h),
              bar(neck.x - 0.045 * h, neck.y - 0.165 * h, neck.x + 0.06 * h, neck.y - 0.115 * h, 0.02 * h)})};
}

}  // namespace

Shape person_shape(const Person& person) {
    const Limbs l = limbs(person);
    return join({l.legs, l.body, l.arms, l.head});
}

void paint_person(Canvas& canvas, const Person& p) {
    const double h = p.height;
    const Shape shadow =
        turned(ellipse({p.feet.x + 0.30 * h, p.feet.y + 0.02 * h}, 0.36 * h, 0.05 * h), {p.feet.x, p.feet.y}, 0.10);
    canvas.darken(shadow, 0.07 * h, 0.5);
    canvas.darken(ellipse({p.feet.x, p.feet.y + 0.01 * h}, 0.13 * h, 0.025 * h), 0.04 * h, 0.5);
    const Limbs l = limbs(p);
    const auto cloth = [&](Rgb colour, std::uint64_t seed) {
        return [=](Point q) {
            // Light from the left, folds in the cloth.
            const double side = 1.05 - 0.9 * smooth_step(-0.09 * h, 0.10 * h, q.x - p.feet.x);
            return colour * (0.55 + 0.55 * side) * (1 + 0.16 * cloudy(seed, q.x / (0.05 * h), q.y / (0.12 * h), 3));
        };
    };
    canvas.paint(l.legs, cloth(p.legs, 3));
    canvas.paint(l.body, cloth(p.coat, 4));
    canvas.paint(l.arms, cloth(p.coat * 0.82, 5));
    canvas.paint(l.head, cloth(srgb(196, 148, 118), 6));
    if (p.hat)
        canvas.paint(l.hat, cloth(p.legs * 0.9, 7));
    else
        canvas.paint(both(l.head, bar(p.feet.x - h, p.feet.y - h, p.feet.x + h, p.feet.y - 0.905 * h)),
                     cloth(srgb(66, 46, 34), 8));
    if (p.basket) {
        const double dir = p.to_left ? -1 : 1;
        const Shape basket = bar(p.feet.x + dir * 0.12 * h - 0.1 * h, p.feet.y - 0.46 * h,
                                 p.feet.x + dir * 0.12 * h + 0.1 * h, p.feet.y - 0.36 * h, 0.03 * h);
        canvas.paint(basket, cloth(srgb(168, 126, 72), 9));
    }
}

void paint_gull(Canvas& canvas, Point at, double span, double flap) {
    const double lift = std::sin(flap) * span * 0.22;
    const Shape left = rope({{at.x, at.y},
                             {at.x - span * 0.22, at.y - lift - span * 0.06},
                             {at.x - span * 0.5, at.y - lift * 0.5 + span * 0.02}},
                            span * 0.026);
    const Shape right = mirrored(left, at.x);
    const Shape body = ellipse({at.x, at.y + span * 0.015}, span * 0.12, span * 0.038, 0.12);
    canvas.paint(join({left, right}), srgb(150, 158, 166));
    canvas.paint(body, srgb(238, 238, 234));
    canvas.paint(ellipse({at.x - span * 0.46, at.y - lift * 0.5 + span * 0.015}, span * 0.05, span * 0.014),
                 srgb(40, 40, 44));
    canvas.paint(ellipse({at.x + span * 0.46, at.y - lift * 0.5 + span * 0.015}, span * 0.05, span * 0.014),
                 srgb(40, 40, 44));
}

void paint_cart(Canvas& canvas, Point wheel, double s, bool to_left) {
    const double dir = to_left ? -1 : 1;
    canvas.darken(ellipse({wheel.x + s * 0.25, wheel.y + s * 0.3}, s * 0.9, s * 0.1), s * 0.12, 0.5);
    const auto wood = [&](Point p) {
        return srgb(142, 98, 56) *
               (0.7 + 0.2 * (1 - smooth_step(-s, s, p.x - wheel.x)) + 0.14 * cloudy(12, p.x / 24, p.y / 2.2, 4));
    };
    canvas.paint(
        rope({{wheel.x - dir * s * 0.5, wheel.y - s * 0.22}, {wheel.x - dir * s * 1.25, wheel.y - s * 0.5}}, s * 0.035),
        wood);
    for (int i = 0; i < 3; ++i)
        canvas.paint(circle({wheel.x - s * 0.36 + i * s * 0.36, wheel.y - s * 0.58}, s * 0.22),
                     i == 1 ? srgb(176, 92, 60) : srgb(128, 140, 146));
    canvas.paint(polygon({{wheel.x - s * 0.72, wheel.y - s * 0.52},
                          {wheel.x + s * 0.72, wheel.y - s * 0.52},
                          {wheel.x + s * 0.58, wheel.y - s * 0.14},
                          {wheel.x - s * 0.58, wheel.y - s * 0.14}}),
                 wood);
    canvas.paint(without(circle(wheel, s * 0.32), circle(wheel, s * 0.26)), srgb(52, 42, 36));
    for (int i = 0; i < 4; ++i) {
        const double a = i * 0.785;
        canvas.paint(
            capsule({wheel.x - std::cos(a) * s * 0.28, wheel.y - std::sin(a) * s * 0.28},
                    {wheel.x + std::cos(a) * s * 0.28, wheel.y + std::sin(a) * s * 0.28}, s * 0.018, s * 0.018),
            srgb(70, 54, 42));
    }
}

}  // namespace bp::practice
