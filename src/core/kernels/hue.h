// Turning hues about grey. Internal to the room.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>

#include "kernels/develop.h"

namespace bp::kernels {

constexpr float hue_slant = 0.866025404F;    // half the root of 3
constexpr float hue_unslant = 0.577350269F;  // one over the root of 3

// Light off its grey as a place in the plane of hues, which has none of the grey.
struct HuePlace {
    float x, y;
};
inline HuePlace hue_place(const std::array<float, 3>& off) {
    return {off[0] - 0.5F * (off[1] + off[2]), hue_slant * (off[1] - off[2])};
}

// How far a hue is in a range: all of it in the middle, nothing 60 degrees away.
inline float share_of_range(const HueTurn& range, const HuePlace& at) {
    const float length = std::sqrt(at.x * at.x + at.y * at.y);
    const float along = at.x * range.across + at.y * range.down;
    const float near = length > 0 ? along / length : 0;
    const float share = std::min(std::max(near + near - 1.0F, 0.0F), 1.0F);
    return share * share * (3.0F - (share + share));
}

// The colour at a place of the plane, of no luminance.
inline std::array<float, 3> colour_at(const HuePlace& at, const std::array<float, 3>& luminance) {
    const float rest = -1.0F / 3 * at.x;
    const std::array<float, 3> made{2.0F / 3 * at.x, rest + hue_unslant * at.y, rest - hue_unslant * at.y};
    const float bright = luminance[0] * made[0] + luminance[1] * made[1] + luminance[2] * made[2];
    return {made[0] - bright, made[1] - bright, made[2] - bright};
}

// Cosine and sine by their first terms, within a ten-thousandth.
inline HuePlace turned(const HuePlace& at, float angle) {
    const float square = angle * angle;
    const float c = 1.0F + square * (-0.5F + square * (1.0F / 24 + square * (-1.0F / 720)));
    const float s = angle * (1.0F + square * (-1.0F / 6 + square * (1.0F / 120 + square * (-1.0F / 5040))));
    return {at.x * c - at.y * s, at.x * s + at.y * c};
}

// What a colour is off its grey, turned as far as its hue is in the range; its luminance stays.
inline std::array<float, 3> turned_hue(const HueTurn& turn, const std::array<float, 3>& luminance,
                                       const std::array<float, 3>& off) {
    const HuePlace at = hue_place(off);
    return colour_at(turned(at, share_of_range(turn, at) * turn.radians), luminance);
}

}  // namespace bp::kernels
