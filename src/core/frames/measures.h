// What is known of one frame beside the others.
#pragma once

#include <optional>

#include "image/geometry.h"

namespace bp {

// "Against the reference" means the frame that the pile calls so. Absent values could not be measured.
struct FrameMeasures {
    std::optional<double> gap_s;         // from the end of the frame before to the begin of this one
    std::optional<double> brightness;    // mean linear light, 0 to 1
    std::optional<double> gain_ev;       // light against the reference, unmoved by what moves
    std::optional<double> warmth_ev;     // red over blue against the reference; above 0 is warmer
    std::optional<double> sharpness;     // fine contrast against the reference, 1 is the same
    std::optional<Point> shift_px;       // of the picture's middle against the reference
    std::optional<double> turn_degrees;  // against the reference, clockwise
    std::optional<double> noise;         // deviation of encoded samples, in per cent of white
    std::optional<double> clipped;       // share of pixels at white in at least one channel, 0 to 1
    std::optional<double> veil;  // share of the picture whose light differs smoothly from its neighbours in time
    friend bool operator==(const FrameMeasures&, const FrameMeasures&) = default;
};

}  // namespace bp
