// Where a part lies that was moved from where its frame has it.
#pragma once

#include "image/geometry.h"

namespace bp {

// Mirrored left for right, turned with the clock and scaled about the middle of the reference, then moved.
struct PartPlace {
    Point moved;  // pixels of the reference
    double turn_degrees = 0;
    double scale = 1;
    bool mirrored = false;

    static constexpr double smallest = 0.01, largest = 100;
    friend bool operator==(const PartPlace&, const PartPlace&) = default;
};

// In pixels of a reference of this size, level 0.
Matrix matrix_of(const PartPlace& place, Size reference);
// The place whose matrix is this one, which moves, turns, scales and mirrors alone.
PartPlace place_of(const Matrix& matrix, Size reference);

}  // namespace bp
