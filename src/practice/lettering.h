// Words on labels and signs.
#pragma once

#include <string>

#include "practice/canvas.h"

namespace bp::practice {

// Paints a word centred in the box, as high as the box allows.
void letter(Canvas& canvas, const std::string& word, const Box& box, Rgb ink, double opacity = 0.9);

}  // namespace bp::practice
