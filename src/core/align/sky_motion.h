// How the lights of a turning sky move over a picture whose camera stands still.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <vector>

#include "align/align.h"

namespace bp {

struct SkyMotion {
    Lens lens;                     // `unit` is the focal length, in pixels
    std::array<double, 3> spin{};  // of the sky in the camera (x right, y down, z ahead): its axis, radians a second

    // From where a light is seen to where it is seen `seconds` later.
    Placement over(double seconds) const;
    friend bool operator==(const SkyMotion&, const SkyMotion&) = default;
};

// A frame as the stars placed it, and the middle of its exposure.
struct PlacedInTime {
    Alignment place;
    double time_s = 0;
};

struct FoundMotion {
    SkyMotion motion;
    std::vector<bool> fits;  // by frame: its sky lies where the motion has it, within a pixel
};

// The one turn that most frames agree on, by least squares over those that fit; all against the frame of `reference`,
// which lies as it is. None when fewer than three frames were placed by their stars, or the sky hardly turned.
std::optional<FoundMotion> sky_motion(std::span<const PlacedInTime> frames, std::size_t reference, Size size);

}  // namespace bp
