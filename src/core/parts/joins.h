// How a part meets what lies below it. A new join is one function and one line in the table of joins.cpp.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <span>
#include <string_view>

#include "image/profile.h"

namespace bp {

enum class Join { replace, lighter, darker, add };

// Lays a row of 16-bit samples over another through a mask, which has one value a pixel; `opacity` is 0 to 255. The
// base moves towards what the join gives by mask * opacity / 255^2, rounded once; of added light that share is added.
// The rows must not overlap. Pure; any thread.
using JoinFunction = void (*)(const std::uint16_t* over, const std::uint8_t* mask, int opacity, std::size_t pixels,
                              int channels, const LightCurve& curve, std::uint16_t* base);

struct JoinEntry {
    Join join;
    std::string_view name;  // in pile files
    JoinFunction lay;
};
std::span<const JoinEntry> joins();
const JoinEntry& entry_of(Join join);

// Takes so much light, by channel as a share of white, off every pixel of a row; none goes below black.
void lower_light(std::uint16_t* row, const std::array<double, 3>& by, std::size_t pixels, int channels,
                 const LightCurve& curve);

}  // namespace bp
