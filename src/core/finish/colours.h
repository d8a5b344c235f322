// Colours of the picture: ranges of hues, and the two colours of dark and bright tones.
#pragma once

#include <array>
#include <memory>
#include <vector>

#include "finish/sheet.h"

namespace bp {

// Colours within 60 degrees of a hue, the more the nearer.
struct ColourRange {
    double hue_at = 0;      // degrees: 0 red, 120 green, 240 blue
    double hue_turn = 0;    // degrees
    double strength = 0;    // -100 takes the colour away
    double brightness = 0;  // hundredths of a power of two, for what is all colour
    static constexpr std::size_t most = 8;
    friend bool operator==(const ColourRange&, const ColourRange&) = default;
};

// Dark tones towards one hue, bright ones towards another. Brightness stays.
struct TwoTints {
    double dark_hue = 230, dark_strength = 0;  // degrees; hundredths
    double bright_hue = 40, bright_strength = 0;
    double middle = 0;  // of which tone both have half: -100 dark, 100 bright
    friend bool operator==(const TwoTints&, const TwoTints&) = default;
};

// `luminance`: what red, green and blue add to brightness.
std::shared_ptr<const FinishTool> range_tool(const std::vector<ColourRange>& ranges,
                                             const std::array<double, 3>& luminance);
std::shared_ptr<const FinishTool> tint_tool(const TwoTints& tints, const std::array<double, 3>& luminance);

}  // namespace bp
