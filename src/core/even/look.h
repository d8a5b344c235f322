// A look: tone and colour values that frames are seen and merged in.
#pragma once

#include <span>
#include <string_view>

namespace bp {

// Zero everywhere changes nothing.
struct Look {
    double exposure_ev = 0;  // light times 2 to this power
    double temperature = 0;  // above 0 warmer
    double tint = 0;         // above 0 towards magenta, below towards green
    double contrast = 0;
    double highlights = 0;  // below 0 brings back what exposure lifted beyond white
    double shadows = 0;
    double floor = 0;  // what is darker becomes black, with a soft knee
    double white = 0;  // above 0: what is darker than white becomes white
    double saturation = 0;
    double vibrance = 0;  // saturation of what has little
    friend bool operator==(const Look&, const Look&) = default;
};

struct LookValue {
    std::string_view name;  // in pile files
    double Look::*value;
    double least, most;
    double step;     // that one can see
    bool of_colour;  // does nothing to grey pictures
};
std::span<const LookValue> look_values();

// One look on top of another: values add up, within their limits.
Look on_top(const Look& below, const Look& own);
// Every value within its limits; what is no number becomes zero.
Look limited(Look look);

}  // namespace bp
