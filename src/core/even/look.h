// A look: tone and colour values that frames are seen and merged in.
#pragma once

#include <span>
#include <string_view>

namespace bp {

// Zero everywhere changes nothing. Tone is pulled at five knots on a ribbon from dark to bright; tones are the power
// 1/2.2 of light, which is about as the eye sees it.
struct Look {
    double exposure_ev = 0;       // light times 2 to this power
    double contrast = 0;          // tones drawn apart about the middle, or together
    double floor = 0;             // the tone below which all is black, in hundredths of white, with a soft knee
    double deep = 0;              // dark tones, brighter or darker
    double middle = 0;            // the tones in the middle
    double bright = 0;            // bright tones; below 0 brings back what exposure lifted beyond white
    double peak = 0;              // above 0: darker tones are white already, softly; below: white comes later
    double warmth = 0;            // above 0 warmer
    double green_to_magenta = 0;  // above 0 towards magenta, below towards green
    double colour_strength = 0;   // -100 takes all colour away
    double pale_colours = 0;      // the same for what has little colour
    double hue_at = 0;            // the middle of one range of hues, in degrees: 0 red, 120 green, 240 blue
    double hue_turn = 0;          // by which the hues of that range are turned
    friend bool operator==(const Look&, const Look&) = default;
};

struct LookValue {
    std::string_view name;  // in pile files
    double Look::*value;
    double least, most;
    double step;     // that one can see
    bool of_colour;  // does nothing to grey pictures
    bool adds;       // of two looks, one on top of the other, the sum counts; else the upper one where it is set
};
std::span<const LookValue> look_values();

// One look on top of another: values add up, within their limits. The range of hues is the upper look's when it turns
// one.
Look on_top(const Look& below, const Look& own);
// Every value within its limits; what is no number becomes zero.
Look limited(Look look);

}  // namespace bp
