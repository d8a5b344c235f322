// How a camera on a tripod sees the turning sky. Internal to the room.
#pragma once

#include <array>
#include <cmath>
#include <vector>

#include "align/sky.h"

namespace bp {

using Vec3 = std::array<double, 3>;

struct SkyCamera {
    double focal = 1;  // pixels
    double k1 = 0;
    double k2 = 0;  // seen radius = r (1 + k1 r^2 + k2 r^4), r in focal lengths
};

// A frame's own: small beside the sky's turn.
struct SkyPose {
    double angle = 0;                   // radians the sky has turned since the reference, by the clock
    Vec3 turn{0, 0, 0};                 // of the camera, as an axis times an angle
    std::array<double, 2> shift{0, 0};  // of the picture on the sensor, in pixels
};

struct SkyModel {
    SkyCamera camera;
    Vec3 axis{0, 0, 1};  // about which the sky turns, in the reference's camera (x right, y down, z ahead)
    std::vector<SkyPose> poses;
};

// One star seen in one frame.
struct Sighted {
    std::size_t frame = 0;
    std::size_t star = 0;  // in the catalogue
    Point at;              // pixels about the picture's middle
};

// A vector turned about a unit axis.
template <class T>
std::array<T, 3> turned(const std::array<T, 3>& v, const std::array<T, 3>& axis, const T& angle) {
    using std::cos;
    using std::sin;
    const T c = cos(angle);
    const T s = sin(angle);
    const T along = (axis[0] * v[0] + axis[1] * v[1] + axis[2] * v[2]) * (T(1) - c);
    return {v[0] * c + (axis[1] * v[2] - axis[2] * v[1]) * s + axis[0] * along,
            v[1] * c + (axis[2] * v[0] - axis[0] * v[2]) * s + axis[1] * along,
            v[2] * c + (axis[0] * v[1] - axis[1] * v[0]) * s + axis[2] * along};
}

// The same for an axis times an angle, well-behaved at zero.
template <class T>
std::array<T, 3> turned_by(const std::array<T, 3>& v, const std::array<T, 3>& w) {
    using std::sqrt;
    const T squared = w[0] * w[0] + w[1] * w[1] + w[2] * w[2];
    const std::array<T, 3> cross{w[1] * v[2] - w[2] * v[1], w[2] * v[0] - w[0] * v[2], w[0] * v[1] - w[1] * v[0]};
    if (squared > T(1e-12)) {
        const T angle = sqrt(squared);
        return turned<T>(v, {w[0] / angle, w[1] / angle, w[2] / angle}, angle);
    }
    return {v[0] + cross[0], v[1] + cross[1], v[2] + cross[2]};
}

// From straight directions, z = 1, to the pixels of a lens whose unit is the focal length.
inline Matrix to_pixels(const Lens& lens) {
    return Matrix({lens.unit, 0, lens.middle.x, 0, lens.unit, lens.middle.y, 0, 0, 1});
}
// The turn of the camera's view that a frame's placement under such a lens is, as an axis times an angle.
Vec3 turn_of(const Alignment& frame);

// Where a star of the reference's sky is seen in a frame, about the picture's middle; z tells whether it lies ahead.
template <class T>
std::array<T, 3> seen_at(const std::array<T, 3>& star, const T* camera, const std::array<T, 3>& axis, const T& angle,
                         const std::array<T, 3>& turn, const T* shift) {
    const std::array<T, 3> v = turned_by<T>(turned<T>(star, axis, angle), turn);
    const T x = v[0] / v[2];
    const T y = v[1] / v[2];
    const T rr = x * x + y * y;
    const T factor = camera[0] * (T(1) + rr * (camera[1] + camera[2] * rr));
    return {x * factor + shift[0], y * factor + shift[1], v[2]};
}

// Fits camera, axis and stars to what was seen, and the poses too or not; the pose of frame `fixed` stays. Stars are
// directions in the reference's sky. Distances count less from `loss_px` on (Cauchy's loss).
enum class Free { sky, all };
void fit_sky(SkyModel& model, std::vector<Vec3>& stars, const std::vector<Sighted>& sightings, std::size_t fixed,
             double loss_px, Free free);
// Fits the pose of one frame under a sky that is known. Poses of different frames may be fitted at once.
void fit_pose(SkyModel& model, const std::vector<Vec3>& stars, const std::vector<Sighted>& sightings, std::size_t frame,
              double loss_px);

}  // namespace bp
