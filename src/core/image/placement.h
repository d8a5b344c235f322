// Where the pixels of a frame lie on the canvas.
#pragma once

#include <optional>
#include <utility>

#include "image/flex.h"
#include "image/geometry.h"

namespace bp {

// Radial distortion about the middle of the picture: r_seen = r (1 + k1 r^2 + k2 r^4), radii in units of `unit` pixels
// (Brown, "Decentering distortion of lenses", 1966, without the decentering). Must rise over the picture.
struct Lens {
    Point middle;
    double unit = 1;
    double k1 = 0;
    double k2 = 0;

    Point seen(Point straight) const;
    // By Newton's method: right to 1e-9 pixels.
    Point straight(Point seen) const;
    friend bool operator==(const Lens&, const Lens&) = default;
};
// The same lens in pictures of `level`, and taken from them.
Lens at_level(const Lens& lens, int level);
Lens from_level(const Lens& lens, int level);

// From frame to canvas: back to its usual place on the sensor, as the lens would not have bent it, by the matrix, as
// the lens bends it; what then lies at p + flex(p) belongs to p. All of that is moved on by `after`.
struct Placement {
    // A matrix alone is a placement.
    Placement(const Matrix& straight = {}, std::optional<Lens> seen_by = {}, Point lies_off = {}, SharedFlex bent = {})
        : matrix(straight), lens(seen_by), sensor(lies_off), flex(std::move(bent)) {}

    Matrix matrix;
    std::optional<Lens> lens;
    Point sensor;     // pixels by which the frame lies off its usual place behind the lens
    SharedFlex flex;  // null for none
    std::optional<Matrix> after;

    bool is_identity() const { return matrix.is_identity() && sensor == Point{} && !flex && !after; }
    // True when straight lines with even steps stay so: shifts, turns, scales, shears.
    bool is_affine() const;
    Point to_canvas(Point frame) const;
    Point to_frame(Point canvas) const;
    friend bool operator==(const Placement& a, const Placement& b);
};
Placement at_level(const Placement& placement, int level);
// The same, and on from there. `matrix` is affine; it may mirror.
Placement moved_on(Placement placement, const Matrix& matrix);

}  // namespace bp
