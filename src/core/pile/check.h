// Whether a value of a pile can be true, by the limits in its table of fields. What edits keep to is what readers hold.
// Internal to the room.
#pragma once

#include "pile/pile.h"

namespace bp::pile {

// Of a frame in a picture of this size.
bool sound(const Alignment& place, Size size);
bool sound(const LightGains& level);
// Of a canvas, in pixels of the reference.
bool sound(const Rect& canvas);

}  // namespace bp::pile
