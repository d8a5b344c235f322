// People, gulls and carts on the quay.
#pragma once

#include "practice/canvas.h"

namespace bp::practice {

struct Person {
    Point feet;     // where they stand
    double height;  // scene units
    double stride;  // phase of the step in radians; the legs swing with its sine
    bool to_left;
    Rgb coat, legs;
    bool hat;
    bool basket;
};

void paint_person(Canvas& canvas, const Person& person);
Shape person_shape(const Person& person);
void paint_gull(Canvas& canvas, Point at, double span, double flap);
void paint_cart(Canvas& canvas, Point wheel, double size, bool to_left);

}  // namespace bp::practice
